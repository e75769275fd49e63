import type { Json, JsonObject } from '@typikon/core';
import { cleanWithoutLedger, compileRules, mergePatch, readHouseLimits, resolveProfile, type HouseLimits } from '@typikon/core';
import { DocumentFieldModel } from '../src/db/document-models';
import { ProfileEditionModel, ProfileModel, SettingModel } from '../src/db/models';
import { useDemoApp } from './demo-app';

jest.setTimeout(120_000);

const ask = useDemoApp('editions', 60);
const AS = { 'typikon-person': 'isa-wren' };

interface Edition {
  profile: string;
  number: number;
  releasedBy: string;
  note: string;
  fromRevision: number;
  backTo: number | null;
  inputs: Record<string, string>;
  chain: { id: string; document: JsonObject }[];
}
interface Stored {
  document: JsonObject;
  revision: number;
}
interface Look {
  texts: number;
  looked: number;
  touched: {
    document: string;
    field: string;
    reach: { textLost: number; wordsLost: number; taken: { element: string; places: number }[] };
  }[];
}

const profile = async (id: string): Promise<Stored> => (await ask<Stored>('GET', `/profiles/${id}`)).body;
const editionsOf = async (id: string): Promise<Edition[]> => (await ask<Edition[]>('GET', `/profiles/${id}/editions`)).body;
const change = async (id: string, patch: Json): Promise<Stored> => {
  const { document, revision } = await profile(id);
  const saved = await ask<Stored>('PUT', `/profiles/${id}/draft`, mergePatch(document, patch), { ...AS, 'if-match': `"${revision}"` });
  expect(saved.status).toBe(200);
  return saved.body;
};
const release = async (id: string, more: object = {}, revision?: number) =>
  ask<Edition[]>(
    'POST',
    `/profiles/${id}/editions`,
    { note: 'Why', ...more },
    { ...AS, 'if-match': `"${revision ?? (await profile(id)).revision}"` },
  );
const takeBack = (id: string, number: number, last: number) =>
  ask<Edition>('POST', `/profiles/${id}/editions/${number}/again`, { note: 'Too strict' }, { ...AS, 'if-match': `"${last}"` });
const markupOf = (elements: JsonObject): JsonObject => ({ markup: { elements } });

/** Writes into the first rich text of a profile, and tells what was stored. */
async function write(id: string, html: string): Promise<string> {
  const field = (await DocumentFieldModel.findOne({ where: { profileId: id }, order: ['documentId'] }))!;
  const { etag } = await ask('GET', `/documents/${field.documentId}`);
  const saved = await ask(
    'PUT',
    `/documents/${field.documentId}`,
    { fields: { [field.fieldKey]: { value: html, profile: id } } },
    { ...AS, 'if-match': etag },
  );
  expect(saved.status).toBe(200);
  return (await DocumentFieldModel.findOne({ where: { documentId: field.documentId, fieldKey: field.fieldKey } }))!.value;
}

test('every profile has a first edition, with all that its rules follow from', async () => {
  const { body } = await ask<Edition[]>('GET', '/editions');
  expect(body.map(({ profile: id }) => id)).toEqual((await ProfileModel.findAll({ order: ['id'] })).map(({ id }) => id));
  const story = body.find(({ profile: id }) => id === 'story-desk')!;
  expect(story).toMatchObject({ number: 1, fromRevision: 1, backTo: null, note: '', reach: null, accepted: [] });
  expect(story.chain.map(({ id }) => id)).toEqual(['story-desk', 'house']);
  expect(Object.keys(story.inputs)).toEqual(expect.arrayContaining(['profile', 'house-limits', 'stylesheets/site']));
  const made = await ask(
    'POST',
    '/profiles',
    { id: 'fresh', document: { format: 'typikon-profile/1', name: 'Fresh', extends: 'house' } },
    AS,
  );
  expect(made.status).toBe(201);
  expect(await editionsOf('fresh')).toMatchObject([{ number: 1, releasedBy: 'isa-wren' }]);
  expect((await ask('GET', '/profiles/nobody/editions')).status).toBe(404);
  expect((await ask('GET', '/profiles/fresh/editions/2')).status).toBe(404);
});

test('authors write with the last edition: what is changed in a draft holds once it is released, and not before', async () => {
  await change('notices-desk', markupOf({ kbd: {} }));
  expect(await write('notices-desk', '<p>Press <kbd>A</kbd></p>')).toBe('<p>Press A</p>');
  const released = await release('notices-desk', { note: 'Keys may be told.' });
  expect([released.status, released.etag]).toEqual([201, '"2"']);
  expect(released.body).toMatchObject([
    { profile: 'notices-desk', number: 2, fromRevision: 2, note: 'Keys may be told.', releasedBy: 'isa-wren' },
  ]);
  expect(await write('notices-desk', '<p>Press <kbd>B</kbd></p>')).toBe('<p>Press <kbd>B</kbd></p>');
});

test('what a profile extends holds as it was released last, unless both are released together', async () => {
  await change('house', markupOf({ strong: { outcome: 'unwrap' } }));
  await change('story-desk', { purpose: 'Other' });
  expect((await release('story-desk')).status).toBe(201);
  expect(await write('story-desk', '<p><strong>Loud</strong></p>')).toBe('<p><strong>Loud</strong></p>');
  const [, parent] = (await ask<Edition>('GET', '/profiles/story-desk/editions/2')).body.chain;
  expect((parent!.document as { markup: { elements: object } }).markup.elements).not.toMatchObject({ strong: { outcome: 'unwrap' } });
  const { revision } = await profile('story-desk');
  const both = await release('house', { together: [{ id: 'story-desk', revision }] });
  expect(both.body.map(({ profile: id, number }) => [id, number])).toEqual([
    ['house', 2],
    ['story-desk', 3],
  ]);
  expect(await write('story-desk', '<p><strong>Louder</strong></p>')).toBe('<p>Louder</p>');
  // One that was not released with it goes on as it was.
  expect(await write('notices-desk', '<p><strong>Loud</strong></p>')).toBe('<p><strong>Loud</strong></p>');
});

test('nothing is released of a draft that somebody else saved, that has mistakes, that says nothing new, or by nobody who may', async () => {
  const { revision } = await change('diary', { purpose: 'One' });
  await change('diary', { purpose: 'Two' });
  expect((await release('diary', {}, revision)).status).toBe(412);
  const other = await profile('ferry-note');
  expect((await release('diary', { together: [{ id: 'ferry-note', revision: other.revision + 1 }] })).status).toBe(412);
  expect((await release('diary', { together: [{ id: 'nobody', revision: 1 }] })).status).toBe(404);
  expect(await editionsOf('diary')).toHaveLength(1);
  expect((await ask('POST', '/profiles/diary/editions', { note: '' }, AS)).status).toBe(428);
  expect((await ask('POST', '/profiles/diary/editions', { note: '' }, { 'typikon-person': 'ned-orr', 'if-match': '*' })).status).toBe(403);
  expect((await release('diary')).status).toBe(201);
  const again = await release('diary');
  expect([again.status, again.body.detail]).toEqual([409, 'The draft of "diary" says what edition 2 says. There is nothing to release.']);
  // Released with another one, it is left out where it says nothing new.
  await change('ferry-note', { purpose: 'Three' });
  const both = await release('ferry-note', { together: [{ id: 'diary', revision: (await profile('diary')).revision }] });
  expect(both.body.map(({ profile: id }) => id)).toEqual(['ferry-note']);
});

test('an earlier edition is taken back to as a new one; a draft in which nothing was changed follows, another stays', async () => {
  const before = (await profile('tender-desk')).document;
  await change('tender-desk', { purpose: 'Stricter' });
  await release('tender-desk');
  const back = await takeBack('tender-desk', 1, 2);
  expect(back.body).toMatchObject({ number: 3, backTo: 1, note: 'Too strict', fromRevision: 3 });
  expect((await profile('tender-desk')).document).toEqual(before);
  expect((await takeBack('tender-desk', 2, 2)).status).toBe(412);
  expect((await takeBack('tender-desk', 1, 3)).status).toBe(409);
  expect((await takeBack('tender-desk', 9, 3)).status).toBe(404);
  await change('tender-desk', { purpose: 'Working on it' });
  expect((await takeBack('tender-desk', 2, 3)).body).toMatchObject({ number: 4, backTo: 2 });
  expect((await profile('tender-desk')).document['purpose']).toBe('Working on it');
  expect((await editionsOf('tender-desk')).map(({ number }) => number)).toEqual([4, 3, 2, 1]);
  const first = (await ask<Edition>('GET', '/profiles/tender-desk/editions/1')).body;
  expect(first.chain[0]!.document).toEqual(before);
});

test('of two releases of one draft at once, one is made', async () => {
  const { revision } = await change('fresh', { purpose: 'Raced' });
  const answers = await Promise.all([release('fresh', {}, revision), release('fresh', {}, revision)]);
  expect(answers.map(({ status }) => status).sort()).toEqual([201, 409]);
  expect((await editionsOf('fresh')).map(({ number }) => number)).toEqual([2, 1]);
});

describe('the reach of a draft', () => {
  const STRICTER = markupOf({
    table: { outcome: 'drop' },
    h2: null,
    a: { attributes: { href: { test: 'url', hosts: ['none.example'] } } },
  });

  async function lookThrough(id: string, body: object, limit: number): Promise<Look & { answers: number }> {
    const all: Look & { answers: number } = { texts: 0, looked: 0, touched: [], answers: 0 };
    for (let path: string | undefined = `/profiles/${id}/reach?limit=${limit}`; path !== undefined;) {
      const { status, body: look, next }: Awaited<ReturnType<typeof ask<Look>>> = await ask<Look>('POST', path, body, AS);
      expect(status).toBe(200);
      all.texts = look.texts;
      all.looked += look.looked;
      all.touched.push(...look.touched);
      all.answers++;
      path = next;
    }
    return all;
  }

  test('names every text that comes out differently and no other, page by page', async () => {
    const id = 'notices-desk';
    const { document } = await profile(id);
    const draft = mergePatch(document, STRICTER) as JsonObject;
    const look = await lookThrough(id, { document: draft }, 7);
    const fields = await DocumentFieldModel.findAll({ where: { profileId: id }, order: ['documentId', 'fieldKey'] });
    expect([look.texts, look.looked]).toEqual([fields.length, fields.length]);
    expect(look.answers).toBe(Math.ceil(fields.length / 7));
    const chain = (await ProfileEditionModel.findOne({ where: { profileId: id }, order: [['number', 'DESC']] }))!.chain;
    const read = readHouseLimits((await SettingModel.findByPk('house-limits'))!.value);
    const house: HouseLimits | undefined = read.ok ? read.house : undefined;
    // What it extends was released again above: the draft would be released on top of that.
    const parent = (await ProfileEditionModel.findOne({ where: { profileId: 'house' }, order: [['number', 'DESC']] }))!.chain;
    expect(parent).not.toEqual(chain.slice(1));
    const rulesWith = (own: JsonObject, role: string) => {
      const above = own === draft ? parent : chain;
      const resolution = resolveProfile(id, (other) => (other === id ? own : above.find((link) => link.id === other)?.document));
      if (!resolution.ok) throw new Error('mistakes');
      return compileRules(resolution.resolved, { ...(house === undefined ? {} : { house }), ...(role === '' ? {} : { role }) });
    };
    const differing = fields.filter(
      ({ value, role }) =>
        cleanWithoutLedger(value, rulesWith(chain[0]!.document, role)) !== cleanWithoutLedger(value, rulesWith(draft, role)),
    );
    expect(look.touched.map(({ document: of, field }) => `${of}/${field}`)).toEqual(
      differing.map(({ documentId, fieldKey }) => `${documentId}/${fieldKey}`),
    );
    expect(look.touched.length).toBeGreaterThan(1);
    expect(look.touched.length).toBeLessThan(fields.length);
    expect(look.touched.some(({ reach }) => reach.wordsLost > 0)).toBe(true);
    // One of them, as both leave it.
    const [{ document: of, field }] = look.touched as unknown as [{ document: string; field: string }];
    const one = await ask<{ before: string; after: string; entries: object[] }>(
      'POST',
      `/profiles/${id}/reach/${of}/${field}`,
      { document: draft },
      AS,
    );
    expect(one.body.before).not.toBe(one.body.after);
    expect(one.body.after).toBe(cleanWithoutLedger(differing[0]!.value, rulesWith(draft, differing[0]!.role)));
  });

  test('is none where the draft changes nothing of the markup, and is that of the stored draft where none is sent', async () => {
    const { document } = await profile('diary');
    expect((await lookThrough('diary', { document: mergePatch(document, { purpose: 'Else' }) }, 1000)).touched).toEqual([]);
    expect((await lookThrough('diary', {}, 1000)).touched).toEqual([]);
    await change('diary', markupOf({ p: { outcome: 'drop' } }));
    const { touched, texts } = await lookThrough('diary', {}, 1000);
    expect(texts).toBeGreaterThan(0);
    expect(touched).toHaveLength(texts);
  });

  test('of a draft with mistakes, of no profile, of no text, is said to be none', async () => {
    const reach = (id: string, body: object, path = '') => ask('POST', `/profiles/${id}/reach${path}`, body, AS);
    expect((await reach('nobody', {})).status).toBe(404);
    expect((await reach('reply', { together: ['nobody'] })).status).toBe(404);
    const mistaken = await reach('reply', {
      document: { format: 'typikon-profile/1', name: 'X', markup: { elements: { p: { outcome: 'eat' } } } },
    });
    expect([mistaken.status, mistaken.body.detail]).toEqual([422, expect.stringContaining('/markup/elements/p/outcome')]);
    expect((await reach('reply', {}, '/nothing/text')).status).toBe(404);
    expect((await ask('POST', '/profiles/reply/reach', {}, { 'typikon-person': 'ned-orr' })).status).toBe(403);
  });
});

test('a profile that is taken away takes its editions along', async () => {
  const { revision } = await profile('fresh');
  expect((await ask('DELETE', '/profiles/fresh', undefined, { ...AS, 'if-match': `"${revision}"` })).status).toBe(204);
  expect(await ProfileEditionModel.count({ where: { profileId: 'fresh' } })).toBe(0);
});
