import {
  cleanWithoutLedger,
  compileRules,
  mergePatch,
  readHouseLimits,
  resolveProfile,
  type HouseLimits,
  type Json,
  type JsonObject,
} from '@typikon/core';
import { DocumentFieldModel } from '../src/db/document-models';
import { ProfileEditionModel, ProfileModel, SettingHistoryModel, SharedEditionModel } from '../src/db/models';
import { rulesOf } from '../src/rules';
import { useDemoApp } from './demo-app';

jest.setTimeout(120_000);

const ask = useDemoApp('shared_editions', 60);
const ISA = { 'typikon-person': 'isa-wren' };
const TOM = { 'typikon-person': 'tom-hallow' };

interface SharedEdition {
  part: string;
  number: number;
  note: string;
  fromRevision: number;
  backTo: number | null;
  releasedBy: string;
  document: JsonObject;
}
interface Look {
  texts: number;
  candidates: number;
  looked: number;
  touched: { document: string; field: string; reach: { wordsLost: number } }[];
}

const draft = async () => {
  const { body, etag } = await ask<JsonObject>('GET', '/house-limits');
  return { document: body as JsonObject, revision: Number(etag.slice(1, -1)) };
};
/** Changes the draft of the house limits, and tells its state. */
async function change(patch: Json, as = ISA): Promise<number> {
  const { document, revision } = await draft();
  const saved = await ask('PUT', '/house-limits', mergePatch(document, patch), { ...as, 'if-match': `"${revision}"` });
  expect(saved.status).toBe(200);
  return revision + 1;
}
const elements = (rules: JsonObject): JsonObject => ({ markup: { elements: rules } });
const editions = async () => (await ask<SharedEdition[]>('GET', '/shared/house-limits/editions')).body;
const held = async () => (await ask<SharedEdition[]>('GET', '/shared')).body[0]!;
const release = async (more: object = {}, revision?: number, as = ISA) =>
  ask<SharedEdition>(
    'POST',
    '/shared/house-limits/editions',
    { note: 'Why', ...more },
    { ...as, 'if-match': `"${revision ?? (await draft()).revision}"` },
  );
const takeBack = (number: number, last: number) =>
  ask<SharedEdition>('POST', `/shared/house-limits/editions/${number}/again`, { note: 'Too strict' }, { ...ISA, 'if-match': `"${last}"` });
const profile = async (id: string) => (await ask<{ document: JsonObject; revision: number }>('GET', `/profiles/${id}`)).body;
async function changeProfile(id: string, patch: Json, as = ISA): Promise<number> {
  const { document, revision } = await profile(id);
  const saved = await ask<{ revision: number }>('PUT', `/profiles/${id}/draft`, mergePatch(document, patch), {
    ...as,
    'if-match': `"${revision}"`,
  });
  expect(saved.status).toBe(200);
  return saved.body.revision;
}
const editionsOf = (profileId: string): Promise<number> => ProfileEditionModel.count({ where: { profileId } });
const limits = (document: Json): HouseLimits => {
  const read = readHouseLimits(document);
  if (!read.ok) throw new Error('mistakes');
  return read.house;
};

test('the house limits have a first edition, which says what the draft says', async () => {
  const first = await held();
  expect(first).toMatchObject({ part: 'house-limits', number: 1, fromRevision: 1, backTo: null, note: '' });
  expect(first.document).toEqual((await draft()).document);
  expect(await editions()).toHaveLength(1);
  expect((await ask('GET', '/shared/house-limits/editions/7')).status).toBe(404);
  expect((await ask('GET', '/shared/nothing/editions')).status).toBe(422);
  expect((await release()).status).toBe(409);
});

test('authors write by what was released, whatever the draft says', async () => {
  const html = '<p>One <em>word</em>.</p>';
  const stored = async () => cleanWithoutLedger(html, await rulesOf('story-desk', ''));
  expect(await stored()).toBe(html);
  const revision = await change(elements({ em: { outcome: 'unwrap' } }));
  expect(await stored()).toBe(html);
  // The bench tries drafts, also that of the house limits.
  const own = (await profile('story-desk')).document;
  expect(cleanWithoutLedger(html, await rulesOf('story-desk', '', { 'story-desk': own }))).toBe('<p>One word.</p>');
  expect((await release({}, revision - 1)).status).toBe(412);
  expect((await ask('POST', '/shared/house-limits/editions', { note: '' }, ISA)).status).toBe(428);
  expect((await release({}, revision, { 'typikon-person': 'ned-orr' })).status).toBe(403);
  expect(await editions()).toHaveLength(1);
  const made = await release({ accepted: [{ what: 'It is less', why: 'It is meant' }] }, revision);
  expect([made.status, made.etag]).toEqual([201, '"2"']);
  expect(made.body).toMatchObject({ number: 2, fromRevision: revision, note: 'Why', releasedBy: 'isa-wren' });
  expect(await stored()).toBe('<p>One word.</p>');
  expect((await held()).document).toEqual((await draft()).document);
});

test('an earlier edition is taken back to, and a draft that was not changed since follows', async () => {
  const { document } = (await ask<SharedEdition>('GET', '/shared/house-limits/editions/1')).body;
  expect((await takeBack(1, 1)).status).toBe(412);
  expect((await takeBack(2, 2)).status).toBe(409);
  expect((await takeBack(9, 2)).status).toBe(404);
  const back = await takeBack(1, 2);
  expect([back.status, back.body]).toEqual([201, expect.objectContaining({ number: 3, backTo: 1 })]);
  expect((await held()).document).toEqual(document);
  expect((await draft()).document).toEqual(document);
  // One that was changed since stays.
  await change(elements({ em: { outcome: 'drop' } }));
  expect((await takeBack(2, 3)).status).toBe(201);
  expect((await draft()).document).toMatchObject(elements({ em: { outcome: 'drop' } }));
  expect((await takeBack(1, 4)).status).toBe(201);
});

test('its reach names every text of every profile that comes out differently and no other, page by page', async () => {
  // One text is shown by an earlier edition of its profile.
  const kept = (await DocumentFieldModel.findOne({ where: { profileId: 'story-desk' }, order: ['documentId'] }))!;
  await changeProfile('story-desk', elements({ strong: { outcome: 'drop' } }));
  const { revision } = await profile('story-desk');
  const leave = [{ document: kept.documentId, field: kept.fieldKey }];
  expect((await ask('POST', '/profiles/story-desk/editions', { note: '', leave }, { ...ISA, 'if-match': `"${revision}"` })).status).toBe(
    201,
  );
  await change(elements({ em: { outcome: 'drop' }, ul: { outcome: 'unwrap' }, table: { outcome: 'drop' }, strong: { outcome: 'drop' } }));

  const look: Look = { texts: 0, candidates: 0, looked: 0, touched: [] };
  for (let path: string | undefined = '/shared/house-limits/reach?limit=9'; path !== undefined;) {
    const answer: { status: number; body: Look; next: string | undefined } = await ask<Look>('POST', path, {}, ISA);
    expect(answer.status).toBe(200);
    look.looked += answer.body.looked;
    look.touched.push(...answer.body.touched);
    [look.texts, look.candidates] = [answer.body.texts, answer.body.candidates];
    path = answer.next;
  }
  const fields = (await DocumentFieldModel.findAll({ order: ['documentId', 'fieldKey'] })).filter(({ profileId }) => profileId !== null);
  const [now, then] = [limits((await held()).document), limits((await draft()).document)];
  const differing: string[] = [];
  for (const { documentId, fieldKey, profileId, keptEdition, role, value } of fields) {
    const edition = await ProfileEditionModel.findOne({
      where: { profileId: profileId!, ...(keptEdition === null ? {} : { number: keptEdition }) },
      order: [['number', 'DESC']],
    });
    const resolution = resolveProfile(profileId!, (id) => edition!.chain.find((link) => link.id === id)?.document);
    if (!resolution.ok) throw new Error('mistakes');
    const by = (house: HouseLimits) =>
      cleanWithoutLedger(value, compileRules(resolution.resolved, { house, ...(role === '' ? {} : { role }) }));
    if (by(now) !== by(then)) differing.push(`${documentId}/${fieldKey}`);
  }
  expect(look.touched.map(({ document, field }) => `${document}/${field}`)).toEqual(differing);
  expect(look.texts).toBe(fields.length);
  expect(look.looked).toBe(look.candidates);
  expect(differing.length).toBeGreaterThan(3);
  expect(differing.length).toBeLessThan(fields.length);
  expect(
    new Set(fields.filter((one) => differing.includes(`${one.documentId}/${one.fieldKey}`)).map((one) => one.profileId)).size,
  ).toBeGreaterThan(1);

  const [{ document, field }] = look.touched as [Look['touched'][number]];
  const both = await ask<{ before: string; after: string }>('POST', `/shared/house-limits/reach/${document}/${field}`, {}, ISA);
  expect(both.status).toBe(200);
  expect(both.body.before).not.toBe(both.body.after);
  expect((await ask('POST', '/shared/house-limits/reach/nothing/text', {}, ISA)).status).toBe(404);
  expect((await ask('POST', '/shared/house-limits/reach', { together: ['nobody'] }, ISA)).status).toBe(404);
  expect((await ask('POST', '/shared/house-limits/reach', {}, { 'typikon-person': 'ned-orr' })).status).toBe(403);
});

describe('several together', () => {
  test('are released all: a profile rests on the house limits that are released with it', async () => {
    const before = (await ask<{ inputs: Record<string, string> }[]>('GET', '/profiles/story-desk/editions')).body[0]!;
    const revision = await changeProfile('story-desk', { purpose: 'Together' });
    const house = (await draft()).revision;
    const released = await ask<{ number: number; inputs: Record<string, string> }[]>(
      'POST',
      '/profiles/story-desk/editions',
      { note: 'Both', shared: [{ part: 'house-limits', revision: house }] },
      { ...ISA, 'if-match': `"${revision}"` },
    );
    expect(released.status).toBe(201);
    expect(await held()).toMatchObject({ note: 'Both', fromRevision: house });
    expect(released.body[0]!.inputs['house-limits']).not.toBe(before.inputs['house-limits']);
    // House limits that say what was released are none of a release that names them.
    const next = await changeProfile('story-desk', { purpose: 'Alone' });
    const alone = { note: '', shared: [{ part: 'house-limits', revision: house }] };
    const count = (await editions()).length;
    expect((await ask('POST', '/profiles/story-desk/editions', alone, { ...ISA, 'if-match': `"${next}"` })).status).toBe(201);
    expect(await editions()).toHaveLength(count);
  });

  test('are released by none where one is outdated, or does not stand on what it extends', async () => {
    const [number, profiles] = [(await editions()).length, await editionsOf('notices-desk')];
    const revision = await change(elements({ hr: { outcome: 'drop' } }));
    const notices = await changeProfile('notices-desk', { purpose: 'With the house' });
    expect((await release({ together: [{ id: 'notices-desk', revision: notices - 1 }] }, revision)).status).toBe(412);
    expect((await release({ together: [{ id: 'nobody', revision: 1 }] }, revision)).status).toBe(404);
    // A profile that cannot be resolved is found only after the house limits were written.
    const stored = (await ProfileModel.findByPk('notices-desk'))!;
    const { document } = stored;
    await stored.update({ document: { ...document, markup: { elements: { p: { outcome: 'eat' } } } } });
    expect((await release({ together: [{ id: 'notices-desk', revision: notices }] }, revision)).status).toBe(422);
    expect((await editions()).length).toBe(number);
    await stored.update({ document });
    // Nor are profiles before the one that cannot be.
    const story = await changeProfile('story-desk', { purpose: 'Before' });
    const stories = await editionsOf('story-desk');
    await stored.update({ document: { ...document, markup: { elements: { p: { outcome: 'eat' } } } } });
    const both = { note: '', together: [{ id: 'notices-desk', revision: notices }] };
    expect((await ask('POST', '/profiles/story-desk/editions', both, { ...ISA, 'if-match': `"${story}"` })).status).toBe(422);
    expect(await editionsOf('story-desk')).toBe(stories);
    await stored.update({ document });
    expect((await release({ together: [{ id: 'notices-desk', revision: notices }] }, revision)).status).toBe(201);
    expect([(await editions()).length, await editionsOf('notices-desk')]).toEqual([number + 1, profiles + 1]);
  });

  test('a reach with profiles tells what all of them do together', async () => {
    await change(elements({ blockquote: { outcome: 'drop' } }));
    await changeProfile('notices-desk', elements({ p: { outcome: 'drop' } }));
    const touched = async (together: string[]) =>
      (await ask<Look>('POST', '/shared/house-limits/reach?limit=1000', { together }, ISA)).body.touched.length;
    expect(await touched(['notices-desk'])).toBeGreaterThan(await touched([]));
    const ofProfile = async (shared: string[]) =>
      (await ask<Look>('POST', '/profiles/notices-desk/reach?limit=1000', { shared }, ISA)).body;
    const [alone, both] = [await ofProfile([]), await ofProfile(['house-limits'])];
    expect(both.texts).toBeGreaterThan(alone.texts);
    expect(both.touched.length).toBe(await touched(['notices-desk']));
  });
});

test('where a second person is wanted, nobody releases house limits that they changed', async () => {
  const { body, etag } = await ask<{ people: { id: string; roles: string[] }[] }>('GET', '/site');
  const people = body.people.map((person) => (person.id === 'tom-hallow' ? { ...person, roles: [...person.roles, 'web-team'] } : person));
  expect((await ask('PUT', '/site', { ...body, people }, { ...ISA, 'if-match': etag })).status).toBe(200);
  expect((await release({}, await change({ release: { secondPerson: true } }))).status).toBe(201);
  const revision = await change(elements({ q: { outcome: 'drop' } }));
  const refused = await release({}, revision);
  expect([refused.status, refused.body.detail]).toEqual([403, expect.stringContaining('have somebody else release them')]);
  expect((await SettingHistoryModel.findOne({ where: { name: 'house-limits', revision } }))!.savedBy).toBe('isa-wren');
  expect((await release({}, revision, TOM)).status).toBe(201);
  // Also that no second person is wanted has to be released by one.
  const last = await change({ release: null });
  expect((await release({}, last)).status).toBe(403);
  expect((await release({}, last, TOM)).status).toBe(201);
  expect((await release({}, await change(elements({ q: null })))).status).toBe(201);
});

test('two releases at once: one of them is made', async () => {
  const revision = await change(elements({ dl: { outcome: 'drop' } }));
  const count = await SharedEditionModel.count();
  const answers = await Promise.all([release({}, revision), release({}, revision), release({}, revision)]);
  expect(answers.map(({ status }) => status).sort()).toEqual([201, 409, 409]);
  expect(await SharedEditionModel.count()).toBe(count + 1);
});

describe('page kinds and stylesheets', () => {
  interface Files {
    revision: number;
    stylesheets: { id: string; purpose: string; media: string; css: string; revision: number }[];
    pageKinds: ({ id: string; name: string; revision: number } & JsonObject)[];
  }
  const files = async () => (await ask<Files>('GET', '/style-files')).body;
  const save = async (changes: object, as = ISA): Promise<Files> => {
    const saved = await ask<Files>('POST', '/style-files/changes', changes, as);
    expect(saved.status).toBe(200);
    return saved.body;
  };
  const ofPages = (path: string, body: object, tag: number, as = ISA) =>
    ask<SharedEdition & { revision: number }>('POST', `/shared/pages${path}`, body, { ...as, 'if-match': `"${tag}"` });
  const lastPages = async () => (await ask<SharedEdition[]>('GET', '/shared')).body.find(({ part }) => part === 'pages')!;
  const cssOf = (document: JsonObject): string =>
    (document['stylesheets'] as { id: string; css: string }[]).find(({ id }) => id === 'site')!.css;
  const withSite = async (css: string) => {
    const { stylesheets } = await files();
    return save({ stylesheets: [{ ...stylesheets.find(({ id }) => id === 'site')!, css }] });
  };

  test('are released as they are saved, each save counted, and taken back to', async () => {
    const first = await lastPages();
    expect(first).toMatchObject({ number: 1, fromRevision: 1 });
    const before = await files();
    const { revision } = await withSite('h2 { color: red }');
    expect(revision).toBe(before.revision + 1);
    expect((await lastPages()).document).toEqual(first.document);
    expect((await ofPages('/editions', { note: '' }, revision - 1)).status).toBe(412);
    expect((await ofPages('/editions', { note: 'Red' }, revision)).body).toMatchObject({ number: 2, note: 'Red', fromRevision: revision });
    expect(cssOf((await lastPages()).document)).toBe('h2 { color: red }');
    // An edition of a profile names the stylesheets by what they were then.
    const profileRevision = await changeProfile('diary', { purpose: 'Red' });
    const released = await ask<{ inputs: Record<string, string> }[]>(
      'POST',
      '/profiles/diary/editions',
      { note: '' },
      { ...ISA, 'if-match': `"${profileRevision}"` },
    );
    const [now, then] = (await ask<{ inputs: Record<string, string> }[]>('GET', '/profiles/diary/editions')).body;
    expect(released.status).toBe(201);
    expect(now!.inputs['stylesheets/site']).not.toBe(then!.inputs['stylesheets/site']);
    const back = await ofPages('/editions/1/again', { note: 'Too red' }, 2);
    expect(back.body).toMatchObject({ number: 3, backTo: 1 });
    expect((await files()).stylesheets.map(({ id, css }) => [id, css])).toEqual(before.stylesheets.map(({ id, css }) => [id, css]));
    expect((await lastPages()).document).toEqual(first.document);
  });

  test('what was changed since goes from the draft where it is put back, unless somebody uses it', async () => {
    const { stylesheets, pageKinds } = await files();
    const { document, number } = await lastPages();
    const kind = { ...pageKinds[0]!, id: 'fresh', name: 'Fresh', revision: null };
    await save({ stylesheets: [{ id: 'fresh', purpose: '', media: '', css: 'a {}', revision: null }], pageKinds: [kind] });
    const { revision } = await withSite('h2 { color: blue }');
    expect((await ofPages('/draft/back', {}, revision - 1)).status).toBe(412);
    expect((await ask('POST', '/shared/pages/draft/back', {}, ISA)).status).toBe(428);
    const reset = await ofPages('/draft/back', {}, revision);
    expect(reset.status).toBe(200);
    const now = await files();
    expect([now.revision, now.stylesheets.length, now.pageKinds.length]).toEqual([
      reset.body.revision,
      stylesheets.length,
      pageKinds.length,
    ]);
    expect((await lastPages()).document).toEqual(document);
    expect((await ofPages('/draft/back', {}, now.revision)).body.revision).toBe(now.revision);
    expect((await ofPages('/editions', { note: '' }, now.revision)).status).toBe(409);
    // A content type stands on a kind of page that the edition does not have.
    await save({ pageKinds: [kind] });
    const site = await ask<{ types: ({ id: string } & JsonObject)[] }>('GET', '/site');
    const types = site.body.types.map((type, at) => (at === 0 ? { ...type, alsoOn: ['fresh'] } : type));
    expect((await ask('PUT', '/site', { ...site.body, types }, { ...ISA, 'if-match': site.etag })).status).toBe(200);
    const held = await ofPages('/draft/back', {}, (await files()).revision);
    expect([held.status, held.body.detail]).toEqual([422, expect.stringContaining('show on the page kind "fresh"')]);
    expect((await files()).pageKinds.map(({ id }) => id)).toContain('fresh');
    expect((await lastPages()).number).toBe(number);
  });
});

describe('what there is to write, and who writes it', () => {
  interface Site {
    roles: ({ id: string; rights: string[] } & JsonObject)[];
    people: { id: string; label: string; roles: string[] }[];
    types: ({ id: string; label: string } & JsonObject)[];
    assignments: ({ roles: string[] | '*'; profiles: string[] } & JsonObject)[];
  }
  const held = async () => (await ask<Site>('GET', '/site')).body;
  const siteDraft = async () => {
    const { body, etag } = await ask<Site>('GET', '/site/draft');
    return { site: body as Site, revision: Number(etag.slice(1, -1)) };
  };
  const save = async (change: (site: Site) => Partial<Site>, as = ISA) => {
    const { site, revision } = await siteDraft();
    return ask<Site>('PUT', '/site/draft', { ...site, ...change(site) }, { ...as, 'if-match': `"${revision}"` });
  };
  const ofSite = (path: string, body: object, tag: number, as: Record<string, string> = ISA) =>
    ask<SharedEdition>('POST', `/shared/site${path}`, body, { ...as, 'if-match': `"${tag}"` });
  const lastSite = async () => (await ask<SharedEdition[]>('GET', '/shared')).body.find(({ part }) => part === 'site')!;
  const renamed = (label: string) => (site: Site) => ({ types: site.types.map((type, at) => (at === 0 ? { ...type, label } : type)) });
  const profileThere = async (type: string, field: string) =>
    (await ask<{ profile: string }>('GET', `/site/assignment?type=${type}&field=${field}&roles=web-team`)).body.profile;

  test('is saved as a draft: people and roles hold at once, the rest once it is released', async () => {
    const before = await held();
    const saved = await save((site) => ({
      ...renamed('Other name')(site),
      people: [...site.people, { id: 'new-person', label: 'New Person', roles: ['web-team'] }],
    }));
    expect(saved.status).toBe(200);
    const now = await held();
    expect(now.people.map(({ id }) => id)).toContain('new-person');
    expect(now.types[0]!.label).toBe(before.types[0]!.label);
    const { site, revision } = await siteDraft();
    expect(site.types[0]!.label).toBe('Other name');
    expect((await ofSite('/editions', { note: '' }, revision - 1)).status).toBe(412);
    expect((await ask('PUT', '/site/draft', site, ISA)).status).toBe(428);
    expect((await ask('PUT', '/site/draft', site, { ...ISA, 'if-match': `"${revision - 1}"` })).status).toBe(412);
    const { number } = await lastSite();
    expect((await ofSite('/editions', { note: 'Named' }, revision)).body).toMatchObject({ number: number + 1, note: 'Named' });
    expect((await held()).types[0]!.label).toBe('Other name');
    expect((await ofSite('/editions', { note: '' }, revision)).status).toBe(409);
    const back = await ofSite(`/editions/${number}/again`, { note: '' }, number + 1);
    expect(back.body).toMatchObject({ number: number + 2, backTo: number });
    expect((await held()).types[0]!.label).toBe(before.types[0]!.label);
    expect((await siteDraft()).site.types[0]!.label).toBe(before.types[0]!.label);
    expect((await held()).people.map(({ id }) => id)).toContain('new-person');
  });

  test('who writes with what changes once it is released, and can be put back before', async () => {
    const { site } = await siteDraft();
    const of = site.types[0]!;
    const [{ key }] = of['fields'] as unknown as [{ key: string }];
    const before = await profileThere(of.id, key);
    const other = before === 'reply' ? 'diary' : 'reply';
    expect(
      (await save(({ assignments }) => ({ assignments: [{ roles: '*', types: '*', fields: '*', profiles: [other] }, ...assignments] })))
        .status,
    ).toBe(200);
    expect(await profileThere(of.id, key)).toBe(before);
    const { revision } = await siteDraft();
    expect((await ofSite('/draft/back', {}, revision)).status).toBe(200);
    expect((await siteDraft()).site.assignments).toEqual(site.assignments);
    expect(
      (await save(({ assignments }) => ({ assignments: [{ roles: '*', types: '*', fields: '*', profiles: [other] }, ...assignments] })))
        .status,
    ).toBe(200);
    expect((await ofSite('/editions', { note: '' }, (await siteDraft()).revision)).status).toBe(201);
    expect(await profileThere(of.id, key)).toBe(other);
    const last = (await lastSite()).number;
    expect((await ofSite(`/editions/${last - 1}/again`, { note: '' }, last)).status).toBe(201);
    expect(await profileThere(of.id, key)).toBe(before);
  });

  test('is released by whoever administers, alone or with something else', async () => {
    const made = await save((site) => ({
      ...renamed('By nobody')(site),
      roles: [...site.roles, { ...site.roles[0]!, id: 'designer', label: 'Designer', rights: ['read', 'design'] }],
      people: [...site.people, { id: 'dee', label: 'Dee', roles: ['designer'] }],
    }));
    expect(made.status).toBe(200);
    const { revision } = await siteDraft();
    const dee = { 'typikon-person': 'dee' };
    expect((await ofSite('/editions', { note: '' }, revision, dee)).status).toBe(403);
    const house = await change(elements({ abbr: { outcome: 'drop' } }), dee);
    const both = { note: '', shared: [{ part: 'site', revision }] };
    expect((await release(both, house, dee)).status).toBe(403);
    const story = await changeProfile('story-desk', { purpose: 'By Dee' }, dee);
    expect((await ask('POST', '/profiles/story-desk/editions', both, { ...dee, 'if-match': `"${story}"` })).status).toBe(403);
    expect((await held()).types[0]!.label).not.toBe('By nobody');
    const count = (await editions()).length;
    expect((await release(both, house)).status).toBe(201);
    expect((await held()).types[0]!.label).toBe('By nobody');
    expect((await editions()).length).toBe(count + 1);
  });

  test('a role that a statement still names stays, and nothing is released that names what is not there', async () => {
    const { roles } = await held();
    const { revision } = await siteDraft();
    const role = roles[0]!.id;
    expect(
      (await save((site) => ({ assignments: [{ roles: [role], types: '*', fields: '*', profiles: ['diary'] }, ...site.assignments] })))
        .status,
    ).toBe(200);
    expect((await ofSite('/editions', { note: '' }, revision + 1)).status).toBe(201);
    const unnamed = await save((site) => ({
      roles: site.roles.filter(({ id }) => id !== role),
      people: site.people.map((person) => ({ ...person, roles: person.roles.filter((id) => id !== role) })),
      assignments: [],
    }));
    // Whoever administers may be the only one of that role: then that is said first.
    expect([409, 422]).toContain(unnamed.status);
    expect((await held()).roles.map(({ id }) => id)).toContain(role);
    // A profile goes while the draft names it: neither the site is released nor what was to be released with it.
    const brief = await ask('POST', '/profiles', { id: 'brief', document: { format: 'typikon-profile/1', name: 'Brief' } }, ISA);
    expect(brief.status).toBe(201);
    expect((await save(() => ({ assignments: [{ roles: '*', types: '*', fields: '*', profiles: ['brief'] }] }))).status).toBe(200);
    expect((await ask('DELETE', '/profiles/brief', undefined, { ...ISA, 'if-match': '"1"' })).status).toBe(204);
    const house = await change(elements({ cite: { outcome: 'drop' } }));
    const draft = await siteDraft();
    const number = (await editions()).length;
    const refused = await release({ shared: [{ part: 'site', revision: draft.revision }] }, house);
    expect([refused.status, refused.body.detail]).toEqual([422, expect.stringContaining('no profile "brief"')]);
    expect((await editions()).length).toBe(number);
    expect((await ofSite('/draft/back', {}, draft.revision)).status).toBe(200);
  });

  test('one that is stored to hold at once is an edition, and a draft follows where nothing was changed in it', async () => {
    const { number } = await lastSite();
    const stored = await ask<Site>('GET', '/site');
    const put = (body: Site, etag: string) => ask<Site>('PUT', '/site', body, { ...ISA, 'if-match': etag });
    const first = await put({ ...stored.body, ...renamed('At once')(stored.body) }, stored.etag);
    expect(first.status).toBe(200);
    expect((await lastSite()).number).toBe(number + 1);
    expect((await siteDraft()).site.types[0]!.label).toBe('At once');
    // Roles and people alone are no edition.
    const people = first.body.people.map((person) => (person.id === 'dee' ? { ...person, label: 'Dee Dee' } : person));
    const second = await put({ ...first.body, people }, first.etag);
    expect([second.status, (await lastSite()).number]).toEqual([200, number + 1]);
    // A draft that says something of its own stays.
    expect((await save(renamed('Mine'))).status).toBe(200);
    const third = await put({ ...second.body, ...renamed('Theirs')(second.body) }, second.etag);
    expect(third.status).toBe(200);
    expect([(await held()).types[0]!.label, (await siteDraft()).site.types[0]!.label]).toEqual(['Theirs', 'Mine']);
  });
});
