import { siteSchema, type Site } from '@typikon/core';
import fc from 'fast-check';
import { pino } from 'pino';
import { QueryTypes, type Sequelize } from 'sequelize';
import { createApp } from '../src/app';
import { DocumentFieldModel, DocumentModel } from '../src/db/document-models';
import { profilesOf } from '../src/documents/repository';
import { createSite } from '../src/standins/site';
import { demoDatabase } from './database';
import { runs } from '../../core/test/fixed-seed';

jest.setTimeout(120_000);

const ORIGIN = 'http://127.0.0.1:4710';

interface Stored {
  id: string;
  title: string;
  type: string;
  changedBy: string;
  revision: number;
  fields: { key: string; value: string; profile: string | null; revision: number }[];
  changes: Record<string, number>;
  notes: { field: string; sentence: string }[];
}
interface Listed {
  documents: { id: string; title: string; type: string; changedAt: string; changedBy: string; profiles: string[] }[];
  count: number;
}

let sequelize: Sequelize;
let drop: () => Promise<void>;
let app: ReturnType<typeof createApp>;
let page: (path: string) => Promise<string>;

beforeAll(async () => {
  ({ sequelize, drop } = await demoDatabase('documents', 40));
  const log = pino({ level: 'silent' });
  app = createApp({ sequelize, log, siteOrigins: ['http://127.0.0.1:4711'] });
  const site = createSite({ sequelize, log, applicationOrigins: [ORIGIN] });
  page = async (path) => (await site.request(`http://127.0.0.1:4711${path}`, { headers: { host: '127.0.0.1:4711' } })).text();
});
afterAll(() => drop());

const request = (
  path: string,
  { method = 'GET', as, revision, body }: { method?: string; as?: string; revision?: number; body?: unknown } = {},
) =>
  Promise.resolve(
    app.request(`${ORIGIN}/api/v1${path}`, {
      method,
      headers: {
        host: '127.0.0.1:4710',
        ...(as === undefined ? {} : { 'typikon-person': as }),
        ...(revision === undefined ? {} : { 'if-match': `"${revision}"` }),
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    }),
  );
const json = async <Body>(response: Response): Promise<Body> => (await response.json()) as Body;
const read = async (id: string): Promise<Stored> => json(await request(`/documents/${id}`));
const valueOf = ({ fields }: Pick<Stored, 'fields'>, key: string) => fields.find((field) => field.key === key);
const put = (id: string, fields: unknown, revision: number | undefined, as?: string) =>
  request(`/documents/${id}`, {
    method: 'PUT',
    ...(revision === undefined ? {} : { revision }),
    ...(as === undefined ? {} : { as }),
    body: { fields },
  });
const asFields = (fields: readonly DocumentFieldModel[]) => fields.map(({ profileId }) => ({ profile: profileId }));
const refusal = async (response: Response) => [response.status, (await json<{ detail: string }>(response)).detail];

describe('the documents of the demo', () => {
  test('stand in fields: nothing of the old markup is lost, and each has a main text', async () => {
    const documents = await DocumentModel.findAll();
    expect(documents).toHaveLength(60);
    const { types } = siteSchema.parse(await json(await request('/site')));
    for (const { id, typeId, title, words } of documents) {
      const fields = await DocumentFieldModel.findAll({ where: { documentId: id } });
      const known = new Set(types.find((type) => type.id === typeId)!.fields.map(({ key }) => key));
      expect({ id, unknown: fields.filter(({ fieldKey }) => !known.has(fieldKey)) }).toEqual({ id, unknown: [] });
      expect({ id, rich: fields.some(({ profileId, size }) => profileId !== null && size > 0) }).toEqual({ id, rich: true });
      expect(words.startsWith(title)).toBe(true);
    }
    expect(valueOf(await read('old-tansy-back'), 'teaser')?.value).toMatch(/^<p>After eleven weeks/);
    const tender = (await DocumentFieldModel.findAll({ where: { fieldKey: 'conditions' } }))[0]!;
    expect(tender.value).toMatch(/^<h2>Conditions<\/h2>\s*<ol>/);
    expect((await DocumentFieldModel.findOne({ where: { documentId: tender.documentId, fieldKey: 'body' } }))!.value).not.toContain(
      'Conditions',
    );
  });

  test('show through their templates: a field where it has a slot, a card with what it prints, nothing around what is empty', async () => {
    const news = await page('/documents/old-tansy-back');
    expect(news).toMatch(/<h1>Old Tansy back in service<\/h1>\s*<p class="lead">/);
    expect(news).not.toContain('<slot');
    const card = await page('/documents/old-tansy-back?on=card');
    expect(card).toContain('<h3>Old Tansy back in service</h3>');
    expect(card).toContain('<p>After eleven weeks');
    expect(card).not.toContain('shipwrights');
    const tender = await page('/documents/tender-pontoon');
    expect(tender).not.toContain('Questions:');
    expect(tender).not.toContain('Offers are taken');
    const marked = await page('/documents/old-tansy-back?on=card&field=teaser');
    expect(marked).toMatch(/<div style="outline[^"]*"><p>After eleven weeks/);
  });
});

describe('finding', () => {
  const find = async (query: string): Promise<Listed> => json(await request(`/documents?${query}`));

  test('by type, person, profile and words, all of which must fit', async () => {
    const all = await find('');
    expect([all.count, all.documents.length]).toEqual([60, 50]);
    const notices = await find('type=notice&limit=200');
    expect(notices.documents).toHaveLength(notices.count);
    expect(new Set(notices.documents.map(({ type }) => type))).toEqual(new Set(['notice']));
    const by = await find('by=una-pell');
    expect(by.count).toBeGreaterThan(0);
    expect(by.documents.every(({ changedBy }) => changedBy === 'una-pell')).toBe(true);
    const diary = await find('profile=diary');
    expect(diary.documents.every(({ profiles }) => profiles.includes('diary'))).toBe(true);
    expect((await find('words=shipwr')).documents.map(({ id }) => id)).toEqual(['old-tansy-back']);
    expect((await find('words=shipwrights engine')).count).toBe(1);
    expect((await find('words=shipwrights zebra')).count).toBe(0);
    expect((await find(`words=${encodeURIComponent('+-"(*) shipwrights @>')}`)).count).toBe(1);
    // Words that an index leaves out still find titles.
    expect((await find('words=a day')).documents.map(({ id }) => id)).toContain('diary-slip-day');
    expect((await find('words=the')).documents.map(({ id }) => id)).toContain('net-loft-open');
    // Beside others they are looked for in all that was found.
    expect((await find('words=the shipwrights')).documents.map(({ id }) => id)).toEqual(['old-tansy-back']);
    expect((await find('words=it shipwrights')).count).toBe(1);
    expect((await find('words=zq shipwrights')).count).toBe(0);
  });

  test('by ids, those that are there', async () => {
    expect((await find('ids=old-tansy-back,nobody,ferry-today')).documents.map(({ id }) => id).sort()).toEqual([
      'ferry-today',
      'old-tansy-back',
    ]);
    expect((await find('ids=nobody')).count).toBe(0);
    expect((await find('ids=')).count).toBe(0);
    expect((await request('/documents?ids=a%20b')).status).toBe(422);
    expect((await request(`/documents?ids=${Array.from({ length: 201 }, (_, n) => `a-${n}`).join(',')}`)).status).toBe(422);
  });

  test('texts are counted by type, field, profile and kind of page', async () => {
    interface Text {
      type: string;
      field: string;
      profileId: string;
      pageKindId: string;
    }
    const texts = await json<(Text & { id: string })[]>(await request('/texts?limit=1000'));
    const keyOf = ({ type, field, profileId, pageKindId }: Text) => `${type} ${field} ${profileId} ${pageKindId}`;
    const expected = new Map<string, number>();
    for (const text of texts) expected.set(keyOf(text), (expected.get(keyOf(text)) ?? 0) + 1);
    const counts = await json<(Text & { count: number; taken: object })[]>(await request('/texts/counts'));
    expect(new Map(counts.map((one) => [keyOf(one), one.count]))).toEqual(expected);
    expect(counts).toHaveLength(expected.size);
  });

  test('by every profile of a document, however many it has', async () => {
    const profiles = Array.from({ length: 40 }, (_, n) => `profile-${'x'.repeat(40)}-${n}`);
    const [known] = await DocumentModel.findAll({ where: { typeId: 'story' }, limit: 1 });
    const before = profilesOf(await DocumentFieldModel.findAll({ where: { documentId: known!.id } }).then(asFields));
    const make = (profile: string, n: number) =>
      DocumentFieldModel.create({
        documentId: known!.id,
        fieldKey: `more-${n}`,
        profileId: profile,
        value: '<p>a</p>',
        pageKindId: known!.pageKindId,
        census: null,
      });
    await Promise.all(profiles.map(make));
    await known!.update({ profiles: profilesOf(await DocumentFieldModel.findAll({ where: { documentId: known!.id } }).then(asFields)) });
    for (const profile of [profiles[0]!, profiles[39]!]) {
      const found = await find(`profile=${profile}`);
      expect(found.documents.map(({ id }) => id)).toEqual([known!.id]);
      expect(found.count).toBe(1);
      expect(found.documents[0]!.profiles).toEqual(expect.arrayContaining(profiles));
    }
    expect((await find('profile=profile-x')).count).toBe(0);
    await DocumentFieldModel.destroy({ where: { documentId: known!.id, profileId: profiles } });
    await known!.update({ profiles: before });
  });

  test('in pages that together are the whole, however sorted', async () => {
    for (const sort of ['sort=title', 'sort=title&order=desc', 'sort=changed', 'sort=changed&order=asc', 'type=story&sort=title']) {
      const whole = await find(`${sort}&limit=200`);
      const found: string[] = [];
      let next: string | undefined = `/documents?${sort}&limit=7`;
      while (next !== undefined) {
        const answer = await request(next);
        const { documents, count } = await json<Listed>(answer.clone());
        expect(count).toBe(whole.count);
        found.push(...documents.map(({ id }) => id));
        next = /<\/api\/v1([^>]+)>; rel="next"/.exec(answer.headers.get('link') ?? '')?.[1];
      }
      expect(found).toEqual(whole.documents.map(({ id }) => id));
      const keys = whole.documents.map(({ title, changedAt }) => (sort.includes('title') ? title.toLowerCase() : changedAt));
      const isUp = sort === 'sort=title' || sort.endsWith('asc') || sort.startsWith('type');
      for (let at = 1; at < keys.length; at++)
        expect(isUp ? keys[at - 1]!.localeCompare(keys[at]!) <= 0 : keys[at - 1]!.localeCompare(keys[at]!) >= 0).toBe(true);
    }
  });

  test('any words get an answer, and none reaches the database as SQL', async () => {
    await fc.assert(
      fc.asyncProperty(fc.string({ unit: 'grapheme', maxLength: 40 }), async (words) => {
        expect((await request(`/documents?words=${encodeURIComponent(words)}`)).status).toBe(200);
      }),
      { numRuns: runs(60) },
    );
  });
});

describe('writing', () => {
  test('is cleaned by the profile of the field, counted, and kept as a version', async () => {
    const before = await read('ferry-today');
    expect(valueOf(before, 'text')?.profile).toBe('ferry-note');
    const stored = await put(
      'ferry-today',
      { text: { value: '<p onclick="x">Noon <script>alert(1)</script><b>only</b></p>' } },
      1,
      'may-carrow',
    );
    expect(stored.status).toBe(200);
    const now = await json<Stored>(stored);
    expect(now).toMatchObject({ revision: 2, changedBy: 'may-carrow', changes: { text: 3 } });
    expect(valueOf(now, 'text')).toMatchObject({ value: '<p>Noon <strong>only</strong></p>', revision: 2 });
    // What was not sent is as it was.
    expect(now.fields.filter(({ key }) => key !== 'text')).toEqual(before.fields.filter(({ key }) => key !== 'text'));
    expect(await page('/documents/ferry-today')).toContain('<p>Noon <strong>only</strong></p>');
    expect((await json<{ revision: number }[]>(await request('/documents/ferry-today/versions'))).map(({ revision }) => revision)).toEqual([
      2, 1,
    ]);
    const found = await json<Listed>(await request('/documents?words=noon&type=ferry-note'));
    expect(found.documents.map(({ id }) => id)).toContain('ferry-today');
  });

  test('what it holds is counted anew', async () => {
    const count = async () => (await json<{ elements: Record<string, number> }>(await request('/texts/census'))).elements['sup'] ?? 0;
    const before = await count();
    expect((await put('ferry-tomorrow', { text: { value: '<p>1<sup>st</sup></p>' } }, 1)).status).toBe(200);
    expect(await count()).toBe(before + 1);
  });

  test('the title follows the first field of one line', async () => {
    const { revision } = await read('notice-015');
    expect((await put('notice-015', { title: { value: 'Notice 15: buoy back on station' } }, revision)).status).toBe(200);
    expect((await read('notice-015')).title).toBe('Notice 15: buoy back on station');
    expect(await page('/documents/notice-015')).toContain('<h1>Notice 15: buoy back on station</h1>');
  });

  test('is not written over what somebody else stored, and not without saying what was seen', async () => {
    const text = { text: { value: '<p>x</p>' } };
    const outdated = await put('ferry-today', text, 1);
    expect(outdated.status).toBe(412);
    expect(await json<{ current: Stored }>(outdated)).toMatchObject({ current: { id: 'ferry-today', revision: 2 } });
    expect((await put('ferry-today', text, undefined)).status).toBe(428);
    expect((await put('nobody', text, 1)).status).toBe(404);
    expect((await request('/documents/nobody')).status).toBe(404);
    expect((await request('/documents/nobody/versions')).status).toBe(404);
    expect((await put('ferry-today', { text: { value: 'x'.repeat(5_000_000) } }, 2)).status).toBe(413);
  });

  test.each([
    [{ 'valid-from': { value: 'tomorrow' } }, '“In force from” must be a date, such as 2026-05-03.'],
    [{ 'valid-from': { value: '2026-02-30' } }, '“In force from” must be a date, such as 2026-05-03.'],
    [{ body: { value: '<p> </p>' } }, '“Notice” is needed, and it is empty.'],
    [{ title: { value: 'a\nb' } }, '“Title” is one line, and this has several.'],
    [{ nothing: { value: 'x' } }, 'Notice to mariners has no field "nothing".'],
    [{ body: { value: 'x', profile: 'nobody' } }, 'There is no profile "nobody".'],
  ])('%j is refused with a sentence, and nothing of it is stored', async (fields, sentence) => {
    const before = await read('notice-016');
    const answer = await put('notice-016', { title: { value: 'Another' }, ...fields }, before.revision, 'ned-orr');
    expect(await refusal(answer)).toEqual([422, sentence]);
    expect(await read('notice-016')).toEqual(before);
  });

  test('of two at once exactly one is stored', async () => {
    const { revision } = await read('notice-017');
    const answers = await Promise.all([1, 2, 3, 4].map((n) => put('notice-017', { body: { value: `<p>${n}</p>` } }, revision)));
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 412, 412, 412]);
    const won = answers.findIndex(({ status }) => status === 200) + 1;
    expect(valueOf(await read('notice-017'), 'body')?.value).toBe(`<p>${won}</p>`);
  });

  test('links and pictures from elsewhere than the field says are told, and stay', async () => {
    const stored = await json<{ revision: number } & Site>(await request('/site'));
    const { revision, ...document } = { ...stored, revision: Number(/\d+/.exec((await request('/site')).headers.get('etag')!)![0]) };
    const site = structuredClone(document);
    site.types.find(({ id }) => id === 'ferry-note')!.fields.find(({ key }) => key === 'text')!.linksWithin = '/documents/ferry-';
    expect((await request('/site', { method: 'PUT', revision, body: site })).status).toBe(200);
    const html = '<p>See <a href="/documents/ferry-tomorrow">tomorrow</a> and <a href="/documents/thornholm?x#y">Thornholm</a>.</p>';
    const now = await json<Stored>(await put('ferry-today', { text: { value: html } }, (await read('ferry-today')).revision));
    expect(now.notes).toEqual([
      { field: 'text', sentence: '“Short text” links to /documents/thornholm; its links stay within /documents/ferry-.' },
    ]);
    expect(valueOf(now, 'text')?.value).toContain('/documents/thornholm');
    expect((await request('/site', { method: 'PUT', revision: revision + 1, body: document })).status).toBe(200);
  });
});

test('what the rules took of a text while it was written stays beside it, whoever saves it next', async () => {
  const taken = async (): Promise<string[]> =>
    (await json<{ id: string; taken: string[] }[]>(await request('/texts?limit=1000'))).find(({ id }) => id === 'ferry-today/text')!.taken;
  const { revision, fields } = await read('ferry-today');
  const key = fields.find(({ profile }) => profile !== null)!.key;
  expect(key).toBe('text');
  expect(await taken()).toEqual([]);
  const first = await put(
    'ferry-today',
    { text: { value: '<p>Noon</p><iframe src="https://a.example/"></iframe>', taken: ['tables'] } },
    revision,
  );
  expect(first.status).toBe(200);
  expect(await taken()).toEqual(['tables', 'frames']);
  expect((await put('ferry-today', { text: { value: '<p>Two</p>' } }, revision + 1)).status).toBe(200);
  expect(await taken()).toEqual(['tables', 'frames']);
  const counts = await json<{ type: string; field: string; taken: Record<string, number> }[]>(await request('/texts/counts'));
  const withTaken = counts.filter((one) => Object.keys(one.taken).length > 0);
  expect(withTaken.map(({ field, taken: names }) => [field, names])).toEqual([['text', { tables: 1, frames: 1 }]]);
  expect((await put('ferry-today', { text: { value: '<p>Three</p>', taken: ['<b>'] } }, revision + 2)).status).toBe(422);
});

describe('rights', () => {
  test('somebody writes where a statement lets them, with a profile that it gives', async () => {
    const { revision } = await read('thornholm');
    const text = (profile?: string) => ({ body: { value: '<p>Mine</p>', ...(profile === undefined ? {} : { profile }) } });
    expect(await refusal(await put('thornholm', text(), revision, 'una-pell'))).toEqual([
      403,
      'Una Pell may not write in “Body” of Harbour page: no statement fits their roles. Nothing was stored.',
    ]);
    expect(await refusal(await put('thornholm', text('tender-desk'), revision, 'ivo-stead'))).toEqual([
      403,
      'Ivo Stead may not write in “Body” of Harbour page with the profile "tender-desk"; with "notices-desk". Nothing was stored.',
    ]);
    expect((await put('thornholm', text(), revision, 'nobody')).status).toBe(403);
    // A text keeps the profile that it has, although another one is assigned now.
    const kept = await json<Stored>(await put('thornholm', text(), revision, 'ivo-stead'));
    expect(valueOf(kept, 'body')).toMatchObject({ profile: 'story-desk', value: '<p>Mine</p>' });
    const moved = await json<Stored>(await put('thornholm', text('notices-desk'), kept.revision, 'ivo-stead'));
    expect(valueOf(moved, 'body')).toMatchObject({ profile: 'notices-desk' });
  });

  test('a move is undone by going back, to markup and profile as they were', async () => {
    const before = await read('orrenstrand');
    const moved = await json<Stored>(
      await put('orrenstrand', { body: { value: valueOf(before, 'body')!.value, profile: 'notices-desk' } }, before.revision, 'ivo-stead'),
    );
    expect(valueOf(moved, 'body')!.value).not.toBe(valueOf(before, 'body')!.value);
    const restore = (revision: number, to: number) =>
      request('/documents/orrenstrand/restore', { method: 'POST', revision, as: 'ivo-stead', body: { revision: to } });
    expect((await restore(before.revision, before.revision)).status).toBe(412);
    expect((await restore(moved.revision, 77)).status).toBe(404);
    const back = await json<Stored>(await restore(moved.revision, before.revision));
    expect(back.revision).toBe(moved.revision + 1);
    expect(valueOf(back, 'body')!.profile).toBe('story-desk');
    // What the rules had never cleaned before is clean now; on the page both look alike.
    const again = await json<Stored>(await restore(back.revision, moved.revision));
    expect(valueOf(again, 'body')).toMatchObject({ value: valueOf(moved, 'body')!.value, profile: 'notices-desk' });
  });
});

describe('making', () => {
  const make = (type: string, title: string, as?: string) =>
    request('/documents', { method: 'POST', ...(as === undefined ? {} : { as }), body: { type, title } });

  test('gives an address of its own to each, whatever it is called', async () => {
    const ids: string[] = [];
    for (const title of ['Fog in the sound', 'Fog in the sound', '雾', '雾', 'x'.repeat(200)]) {
      const answer = await make('story', title);
      expect(answer.status).toBe(201);
      const made = await json<Stored>(answer);
      expect(made).toMatchObject({ title, type: 'story', revision: 1 });
      expect(made.fields).toEqual([{ key: 'headline', value: title, profile: null, revision: 1, shownBy: null }]);
      ids.push(made.id);
    }
    expect(ids.slice(0, 4)).toEqual(['fog-in-the-sound', 'fog-in-the-sound-2', 'story', 'story-2']);
    expect(new Set(ids).size).toBe(5);
    const text = await put('fog-in-the-sound', { body: { value: '<p>Thick.</p>' } }, 1, 'tom-hallow');
    expect(valueOf(await json<Stored>(text), 'body')).toMatchObject({ profile: 'story-desk', value: '<p>Thick.</p>' });
  });

  test('is for those who write something in it', async () => {
    expect(await refusal(await make('story', 'Mine', 'una-pell'))).toEqual([
      403,
      'Una Pell writes in no field of News story. Nothing was stored.',
    ]);
    expect((await make('nothing', 'Mine')).status).toBe(404);
    expect((await make('story', '  ')).status).toBe(422);
  });

  test('a type with documents cannot go, and says how many they are', async () => {
    const answer = await request('/site');
    const site = await json<Site>(answer.clone());
    const without = {
      ...site,
      types: site.types.filter(({ id }) => id !== 'tender'),
      assignments: site.assignments.filter(({ types }) => types === '*' || !types.includes('tender')),
    };
    const refused = await request('/site', {
      method: 'PUT',
      revision: Number(/\d+/.exec(answer.headers.get('etag')!)![0]),
      body: without,
    });
    expect(await refusal(refused)).toEqual([
      409,
      expect.stringMatching(/^\d+ documents are of the content type “Tender”, so it cannot go\./),
    ]);
    expect(
      Number((await sequelize.query<{ n: number }>('SELECT COUNT(*) AS n FROM content_types', { type: QueryTypes.SELECT }))[0]!.n),
    ).toBe(6);
  });
});
