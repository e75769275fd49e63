import { mergePatch, type Json, type JsonObject } from '@typikon/core';
import { QueryTypes, type Sequelize } from 'sequelize';
import { DocumentFieldModel } from '../src/db/document-models';
import { JobModel } from '../src/db/models';
import { ScheduledReleases } from '../src/editions/scheduled';
import { useDemoApp } from './demo-app';

jest.setTimeout(120_000);

const ask = useDemoApp('scheduled', 40);
const ISA = { 'typikon-person': 'isa-wren' };
const database = (): Sequelize => DocumentFieldModel.sequelize!;
const releases = (): ScheduledReleases => new ScheduledReleases(database(), () => undefined);
const HOUR_MS = 3_600_000;

interface Scheduled {
  id: number;
  state: string;
  detail: string;
  edition: number | null;
  askedBy: string;
  note: string;
}
interface Profile {
  document: JsonObject;
  revision: number;
}
const profileOf = async (id: string): Promise<Profile> => (await ask<Profile>('GET', `/profiles/${id}`)).body;
async function change(id: string, patch: Json): Promise<number> {
  const { document, revision } = await profileOf(id);
  const saved = await ask<Profile>('PUT', `/profiles/${id}/draft`, mergePatch(document, patch), { ...ISA, 'if-match': `"${revision}"` });
  expect(saved.status).toBe(200);
  return saved.body.revision;
}
const plan = (id: string, revision: number, at: Date, note = 'In the spring') =>
  ask<Scheduled>('POST', `/profiles/${id}/scheduled`, { at: at.toISOString(), note }, { ...ISA, 'if-match': `"${revision}"` });
const listed = async (id: string): Promise<Scheduled[]> => (await ask<Scheduled[]>('GET', `/profiles/${id}/scheduled`)).body;
const lastNumber = async (id: string): Promise<number> =>
  (await ask<{ number: number }[]>('GET', `/profiles/${id}/editions`)).body[0]!.number;
/** The time comes. */
async function letCome(id: number): Promise<void> {
  await database().query('UPDATE scheduled_releases SET due_at = NOW(3) - INTERVAL 1 SECOND WHERE id = ?', { replacements: [id] });
  await releases().release(id);
}
const elements = (rules: JsonObject): JsonObject => ({ markup: { elements: rules } });

describe('a release at a time to come', () => {
  test('is done then, as it was looked at, in the name of whoever planned it', async () => {
    const revision = await change('diary', elements({ hr: {} }));
    const made = await plan('diary', revision, new Date(Date.now() + HOUR_MS));
    expect(made).toMatchObject({ status: 201, body: { state: 'waiting', askedBy: 'isa-wren', note: 'In the spring', edition: null } });
    const { id } = made.body;
    // It waits in the queue until then, and does nothing before.
    const [job] = await JobModel.findAll({ where: { kind: 'release', subject: String(id) }, raw: true });
    expect(job!.dueAt.getTime()).toBeGreaterThan(Date.now() + HOUR_MS / 2);
    await releases().release(id);
    expect(await lastNumber('diary')).toBe(1);
    await letCome(id);
    expect(await listed('diary')).toMatchObject([{ id, state: 'done', edition: 2 }]);
    const [edition] = (await ask<{ number: number; releasedBy: string; note: string }[]>('GET', '/profiles/diary/editions')).body;
    expect(edition).toMatchObject({ number: 2, releasedBy: 'isa-wren', note: 'In the spring' });
    // Asked for again, as by a process that was killed behind the release, nothing more happens.
    await database().query("UPDATE scheduled_releases SET state = 'waiting' WHERE id = ?", { replacements: [id] });
    await letCome(id);
    expect(await listed('diary')).toMatchObject([{ id, state: 'done', edition: 2 }]);
    expect(await lastNumber('diary')).toBe(2);
  });

  test('is not done where the draft was saved since: that is told', async () => {
    const revision = await change('reply', elements({ hr: {} }));
    const { id } = (await plan('reply', revision, new Date(Date.now() + HOUR_MS))).body;
    await change('reply', elements({ h2: {} }));
    await letCome(id);
    expect(await lastNumber('reply')).toBe(1);
    expect(await listed('reply')).toMatchObject([
      { id, state: 'failed', detail: expect.stringMatching(/saved the profile "reply" since/) as string },
    ]);
  });

  test('is called off, or makes way for a later one', async () => {
    const revision = await change('ferry-note', elements({ hr: {} }));
    const first = (await plan('ferry-note', revision, new Date(Date.now() + HOUR_MS))).body;
    const second = (await plan('ferry-note', revision, new Date(Date.now() + 2 * HOUR_MS))).body;
    expect((await listed('ferry-note')).map(({ id, state }) => [id, state])).toEqual([
      [second.id, 'waiting'],
      [first.id, 'off'],
    ]);
    expect(await ask<Scheduled>('POST', `/scheduled/${second.id}/off`, {}, ISA)).toMatchObject({ status: 200, body: { state: 'off' } });
    expect((await ask('POST', `/scheduled/${second.id}/off`, {}, ISA)).status).toBe(409);
    expect((await ask('POST', '/scheduled/9999/off', {}, ISA)).status).toBe(404);
    await letCome(second.id);
    expect(await lastNumber('ferry-note')).toBe(1);
  });

  test('what cannot be planned is refused with the reason', async () => {
    const { revision } = await profileOf('ferry-note');
    expect((await plan('ferry-note', revision, new Date(Date.now() - 1000))).status).toBe(422);
    expect((await plan('ferry-note', revision, new Date(Date.now() + 400 * 24 * HOUR_MS))).status).toBe(422);
    expect((await plan('ferry-note', revision - 1, new Date(Date.now() + HOUR_MS))).status).toBe(412);
    expect((await plan('diary', (await profileOf('diary')).revision, new Date(Date.now() + HOUR_MS))).status).toBe(409);
    const at = new Date(Date.now() + HOUR_MS).toISOString();
    expect((await ask('POST', '/profiles/diary/scheduled', { at, note: '' }, ISA)).status).toBe(428);
    expect(
      (await ask('POST', '/profiles/diary/scheduled', { at, note: '' }, { 'typikon-person': 'tom-hallow', 'if-match': '"1"' })).status,
    ).toBe(403);
  });
});

describe('a release of what the whole site has once, at a time to come', () => {
  const later = (): string => new Date(Date.now() + HOUR_MS).toISOString();
  const planPart = (part: string, revision: number, more: object = {}, as: object = ISA) =>
    ask<Scheduled & { part: string }>(
      'POST',
      `/shared/${part}/scheduled`,
      { at: later(), note: 'In the spring', ...more },
      { ...as, 'if-match': `"${revision}"` },
    );
  const listedOf = async (part: string): Promise<Scheduled[]> => (await ask<Scheduled[]>('GET', `/shared/${part}/scheduled`)).body;
  const lastOf = async (part: string): Promise<number> =>
    (await ask<{ number: number }[]>('GET', `/shared/${part}/editions`)).body[0]!.number;
  async function changeHouse(patch: Json): Promise<number> {
    const { body, etag } = await ask<JsonObject>('GET', '/house-limits');
    const saved = await ask('PUT', '/house-limits', mergePatch(body, patch) as JsonObject, { ...ISA, 'if-match': etag });
    expect(saved.status).toBe(200);
    return Number(JSON.parse(saved.etag));
  }

  test('is done then, with the drafts of profiles that were to go with it', async () => {
    const revision = await changeHouse(elements({ hr: { outcome: 'drop' } }));
    const diary = await change('diary', elements({ kbd: {} }));
    const number = await lastNumber('diary');
    const made = await planPart('house-limits', revision, { together: [{ id: 'diary', revision: diary }] });
    expect(made).toMatchObject({ status: 201, body: { part: 'house-limits', profile: '', state: 'waiting', askedBy: 'isa-wren' } });
    expect(await lastOf('house-limits')).toBe(1);
    await letCome(made.body.id);
    expect(await listedOf('house-limits')).toMatchObject([{ id: made.body.id, state: 'done', edition: 2 }]);
    expect([await lastOf('house-limits'), await lastNumber('diary')]).toEqual([2, number + 1]);
    // Asked for again, as by a process that was killed behind the release, nothing more happens.
    await database().query("UPDATE scheduled_releases SET state = 'waiting' WHERE id = ?", { replacements: [made.body.id] });
    await letCome(made.body.id);
    expect(await listedOf('house-limits')).toMatchObject([{ state: 'done', edition: 2 }]);
    expect(await lastOf('house-limits')).toBe(2);
    // What is planned for one thing is not told of another.
    expect([await listedOf('pages'), (await listed('diary')).some(({ id }) => id === made.body.id)]).toEqual([[], false]);
  });

  test('is not done where the draft was saved since, is called off, or makes way for a later one', async () => {
    const first = (await planPart('house-limits', await changeHouse(elements({ hr: null })))).body;
    const revision = await changeHouse(elements({ kbd: { outcome: 'drop' } }));
    await letCome(first.id);
    expect(await listedOf('house-limits')).toMatchObject([
      { id: first.id, state: 'failed', detail: expect.stringMatching(/saved the house limits since/) as string },
      { state: 'done' },
    ]);
    const second = (await planPart('house-limits', revision)).body;
    const third = (await planPart('house-limits', revision)).body;
    expect((await listedOf('house-limits')).map(({ state }) => state)).toEqual(['waiting', 'off', 'failed', 'done']);
    expect(await ask('POST', `/scheduled/${third.id}/off`, {}, ISA)).toMatchObject({ status: 200, body: { state: 'off' } });
    for (const { id } of [second, third]) await letCome(id);
    expect(await lastOf('house-limits')).toBe(2);
    expect((await planPart('house-limits', revision - 1)).status).toBe(412);
    expect((await planPart('pages', 1)).status).toBe(409);
  });

  test('of who writes needs the right to administer, to plan it and to call it off', async () => {
    const { body, etag } = await ask<JsonObject>('GET', '/site/draft');
    const site = { ...body, assignments: (body['assignments'] as Json[]).slice(1) };
    const saved = await ask('PUT', '/site/draft', site, { ...ISA, 'if-match': etag });
    expect(saved.status).toBe(200);
    const revision = Number(JSON.parse(saved.etag));
    const TOM = { 'typikon-person': 'tom-hallow' };
    expect((await planPart('site', revision, {}, TOM)).status).toBe(403);
    const { id } = (await planPart('site', revision)).body;
    expect((await ask('POST', `/scheduled/${id}/off`, {}, TOM)).status).toBe(403);
    await letCome(id);
    expect(await listedOf('site')).toMatchObject([{ id, state: 'done', edition: 2 }]);
    expect((await ask<{ assignments: Json[] }>('GET', '/site')).body.assignments).toHaveLength(site.assignments.length);
  });
});

describe('what a draft would have to allow', () => {
  interface Reach {
    touched: { document: string; field: string; reach: { taken: { key: string; element: string }[] } }[];
  }
  interface Allowed {
    document: JsonObject;
    allows: string[];
    kept: number;
    left: number;
  }

  test('is the least by which texts keep what they had, and nothing is stored', async () => {
    const { document, revision } = await profileOf('notices-desk');
    const stricter = mergePatch(document, elements({ table: { outcome: 'drop' } })) as JsonObject;
    const { touched } = (await ask<Reach>('POST', '/profiles/notices-desk/reach', { document: stricter }, ISA)).body;
    const key = touched[0]!.reach.taken.find(({ element }) => element === 'table')!.key;
    const texts = touched
      .filter(({ reach }) => reach.taken.some((group) => group.key === key))
      .map(({ document: of, field }) => ({ document: of, field }));
    const { status, body } = await ask<Allowed>('POST', '/profiles/notices-desk/reach/allow', { document: stricter, key, texts }, ISA);
    expect(status).toBe(200);
    expect(body).toMatchObject({ allows: ['<table>'], kept: texts.length, left: 0 });
    const after = (await ask<Reach>('POST', '/profiles/notices-desk/reach', { document: body.document }, ISA)).body;
    expect(after.touched.filter(({ reach }) => reach.taken.some((group) => group.key === key))).toEqual([]);
    expect((await profileOf('notices-desk')).revision).toBe(revision);
  });

  test('is several things where texts differ; what stands above takes is left', async () => {
    const { document } = await profileOf('story-desk');
    const stricter = mergePatch(document, elements({ p: { attributes: { class: { test: 'tokens', values: ['lead'] } } } })) as JsonObject;
    const { touched } = (await ask<Reach>('POST', '/profiles/story-desk/reach', { document: stricter }, ISA)).body;
    const keys = [...new Set(touched.flatMap(({ reach }) => reach.taken.map(({ key }) => key)))];
    expect(keys.length).toBeGreaterThan(0);
    const texts = touched.map(({ document: of, field }) => ({ document: of, field }));
    let draft = stricter;
    for (const key of keys) {
      const { body } = await ask<Allowed>('POST', '/profiles/story-desk/reach/allow', { document: draft, key, texts }, ISA);
      expect(body.left).toBe(0);
      draft = body.document;
    }
    const after = (await ask<Reach>('POST', '/profiles/story-desk/reach', { document: draft }, ISA)).body;
    expect(after.touched).toEqual([]);
    // A key that no text has asks for nothing.
    const nothing = await ask<Allowed>('POST', '/profiles/story-desk/reach/allow', { document: stricter, key: 'nothing', texts }, ISA);
    expect(nothing.body).toMatchObject({ allows: [], kept: texts.length, left: 0, document: stricter });
    expect((await ask('POST', '/profiles/nobody/reach/allow', { key: 'x', texts }, ISA)).status).toBe(404);
  });
});

describe('where the house wants a second person', () => {
  /** Releases house limits that want one or not; who releases them is not who changed them. */
  async function want(isWanted: boolean): Promise<void> {
    const { body, etag } = await ask<{ value: JsonObject }>('GET', '/house-limits');
    const limits = body.value ?? body;
    const changed = mergePatch(limits, { release: isWanted ? { secondPerson: true } : null }) as JsonObject;
    const saved = await ask('PUT', '/house-limits', changed, { ...ISA, 'if-match': etag });
    expect(saved.status).toBe(200);
    const as = { 'typikon-person': 'tom-hallow', 'if-match': saved.etag };
    expect((await ask('POST', '/shared/house-limits/editions', { note: '' }, as)).status).toBe(201);
  }
  const release = (revision: number, as: Record<string, string>) =>
    ask('POST', '/profiles/house/editions', { note: '' }, { ...as, 'if-match': `"${revision}"` });

  test('nobody releases or plans what they changed since the last edition; somebody else does', async () => {
    // There has to be a second person with the right.
    const { body, etag } = await ask<{ people: { id: string; roles: string[] }[] }>('GET', '/site');
    const people = body.people.map((person) => (person.id === 'tom-hallow' ? { ...person, roles: [...person.roles, 'web-team'] } : person));
    expect((await ask('PUT', '/site', { ...body, people }, { ...ISA, 'if-match': etag })).status).toBe(200);
    await want(true);
    const revision = await change('house', elements({ ruby: {} }));
    const refused = await release(revision, ISA);
    expect([refused.status, refused.body.detail]).toEqual([403, expect.stringContaining('have somebody else release it')]);
    expect((await plan('house', revision, new Date(Date.now() + HOUR_MS))).status).toBe(403);
    expect(await lastNumber('house')).toBe(1);
    expect((await release(revision, { 'typikon-person': 'tom-hallow' })).status).toBe(201);
    // What was changed before the last edition is no matter any more.
    const { document } = await profileOf('house');
    const next = await ask<Profile>('PUT', '/profiles/house/draft', mergePatch(document, elements({ ruby: null, rt: {} })), {
      'typikon-person': 'tom-hallow',
      'if-match': `"${revision}"`,
    });
    expect((await release(next.body.revision, { 'typikon-person': 'tom-hallow' })).status).toBe(403);
    expect((await release(next.body.revision, ISA)).status).toBe(201);
    await want(false);
    expect((await release(await change('house', elements({ rt: null })), ISA)).status).toBe(201);
  });
});

test('what waits is known to a start whose queue was lost', async () => {
  const revision = await change('tender-desk', elements({ hr: {} }));
  const { id } = (await plan('tender-desk', revision, new Date(Date.now() + HOUR_MS))).body;
  const rows = await database().query<{ n: number }>("SELECT COUNT(*) AS n FROM scheduled_releases WHERE state = 'waiting'", {
    type: QueryTypes.SELECT,
  });
  expect((await releases().waiting()).map((one) => one.id)).toContain(id);
  expect((await releases().waiting()).length).toBe(Number(rows[0]!.n));
});
