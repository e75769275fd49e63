import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { siteSchema, type Site } from '@typikon/core';
import { pino } from 'pino';
import { QueryTypes, type Sequelize } from 'sequelize';
import { createApp } from '../src/app';
import { migrate } from '../src/db/migrate';
import { SettingHistoryModel } from '../src/db/models';
import { apiDescription } from '../src/description';
import { DEMO, demoDatabase, freshDatabase } from './database';

jest.setTimeout(120_000);

const ORIGIN = 'http://127.0.0.1:4710';
const DOCUMENT = siteSchema.parse(JSON.parse(readFileSync(join(DEMO, 'site.json'), 'utf8')));

let sequelize: Sequelize;
let drop: () => Promise<void>;
let app: ReturnType<typeof createApp>;

beforeAll(async () => {
  ({ sequelize, drop } = await demoDatabase('site', 0));
  app = createApp({ sequelize, log: pino({ level: 'silent' }), siteOrigins: ['http://127.0.0.1:4711'] });
});
afterAll(() => drop());

const request = (
  path: string,
  { method = 'GET', headers = {}, body }: { method?: string; headers?: Record<string, string>; body?: unknown } = {},
) =>
  app.request(`${ORIGIN}/api/v1${path}`, {
    method,
    headers: { host: '127.0.0.1:4710', ...(body === undefined ? {} : { 'content-type': 'application/json' }), ...headers },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
async function stored(): Promise<{ site: Site; revision: number }> {
  const response = await request('/site');
  return { site: (await response.json()) as Site, revision: Number(/\d+/.exec(response.headers.get('etag')!)![0]) };
}
const put = (site: unknown, revision: number | string, headers: Record<string, string> = {}) =>
  request('/site', { method: 'PUT', headers: { 'if-match': `"${revision}"`, ...headers }, body: site });
const problem = async (response: Response) =>
  (await response.json()) as { detail: string; problems?: { pointer: string; message: string }[] };

describe('the site', () => {
  test('is read as the document it was written as', async () => {
    const { site, revision } = await stored();
    expect(site).toEqual(DOCUMENT);
    expect(revision).toBe(1);
  });

  test('is not stored where nobody could change it again', async () => {
    const { site, revision } = await stored();
    const roles = site.roles.map((role) => ({ ...role, rights: role.rights.filter((right) => right !== 'administer') }));
    const response = await put({ ...site, roles }, revision);
    expect(response.status).toBe(422);
    const { problems } = await problem(response);
    expect(problems).toMatchObject([{ pointer: '/people', message: expect.stringContaining('nobody could change this again') as string }]);
    expect(await stored()).toEqual({ site, revision });
  });

  test('is stored whole, in another order, and read back the same', async () => {
    const { site, revision } = await stored();
    const changed: Site = {
      ...site,
      roles: [...site.roles].reverse(),
      people: site.people.map((person) => ({ ...person, roles: [...person.roles].reverse() })),
      types: [...site.types].reverse().map((type) => ({ ...type, fields: [...type.fields].reverse() })),
      assignments: [...site.assignments].reverse(),
      fallback: ['reply', 'house'],
    };
    const response = await put(changed, revision);
    expect([response.status, response.headers.get('etag')]).toEqual([200, `"${revision + 1}"`]);
    expect(await stored()).toEqual({ site: changed, revision: revision + 1 });
    expect((await put(site, revision + 1)).status).toBe(200);
    expect((await stored()).site).toEqual(DOCUMENT);
    // Every document that ever held is kept.
    const history = await SettingHistoryModel.findAll({ where: { name: 'site' }, order: ['revision'] });
    expect(history.map(({ value }) => (value as unknown as Site).types[0]!.id)).toEqual(['story', 'diary-entry', 'story']);
  });

  test('of two saves that began from the same, one wins and the other gets what is there now', async () => {
    const { site, revision } = await stored();
    const named = (label: string): Site => ({ ...site, people: site.people.with(0, { ...site.people[0]!, label }) });
    const answers = await Promise.all([put(named('One'), revision), put(named('Other'), revision)]);
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 412]);
    const lost = (await answers.find(({ status }) => status === 412)!.json()) as { current: { site: Site; revision: number } };
    expect(lost.current).toEqual(await stored());
  });

  test.each<[string, (site: Site) => unknown, number, RegExp]>([
    ['a key that it does not know', (site) => ({ ...site, colour: 'red' }), 422, /colour/],
    ['another format', (site) => ({ ...site, format: 'typikon-site/2' }), 422, /\/format/],
    [
      'a profile that is not there',
      (site) => ({ ...site, assignments: [{ ...site.assignments[0]!, profiles: ['house', 'nothing'] }] }),
      422,
      /\/assignments\/0\/profiles\/1: there is no profile "nothing"/,
    ],
    [
      'a kind of page that is not there',
      (site) => ({ ...site, types: site.types.with(2, { ...site.types[2]!, pageKind: 'poster' }) }),
      422,
      /\/types\/2\/pageKind: there is no kind of page "poster"/,
    ],
    ['a fallback that is not there', (site) => ({ ...site, fallback: ['nothing'] }), 422, /\/fallback\/0/],
    [
      'a field twice',
      (site) => ({ ...site, types: [{ ...site.types[0]!, fields: [site.types[0]!.fields[0], site.types[0]!.fields[0]] }] }),
      422,
      /"headline" is there twice/,
    ],
  ])('%s is refused with its place, and nothing is stored', async (_what, change, status, detail) => {
    const before = await stored();
    const response = await put(change(before.site), before.revision);
    expect(response.status).toBe(status);
    expect((await problem(response)).detail).toMatch(detail);
    expect(await stored()).toEqual(before);
  });

  test('a save must say what it began from', async () => {
    const { site } = await stored();
    expect((await request('/site', { method: 'PUT', body: site })).status).toBe(428);
    expect((await put(site, 4711)).status).toBe(412);
  });

  test('what a change needs is held by keys of the database as well', async () => {
    const orphans: [string, string][] = [
      ['fields', "INSERT INTO fields (type_id, `key`, position, definition) VALUES ('nothing', 'a', 0, '{}')"],
      ['person_roles', "INSERT INTO person_roles (person_id, role_id, position) VALUES ('isa-wren', 'nothing', 9)"],
      ['statement_profiles', "INSERT INTO statement_profiles (statement, profile_id, position) VALUES (0, 'nothing', 9)"],
      ['profiles', "DELETE FROM profiles WHERE id = 'reply'"],
      ['page_kinds', "DELETE FROM page_kinds WHERE id = 'news'"],
      ['positions', "UPDATE content_types SET position = 0 WHERE id = 'tender'"],
    ];
    for (const [, sql] of orphans) await expect(sequelize.query(sql)).rejects.toThrow(/constraint|Duplicate|Validation/i);
  });
});

describe('why this profile', () => {
  const why = async (query: string) => await (await request(`/site/assignment?${query}`)).json();
  test('names the statement that won and those it beat', async () => {
    expect(await why('roles=communications-desk&type=story&field=teaser')).toEqual({
      profile: 'ferry-note',
      choices: ['ferry-note'],
      statement: 0,
      beaten: [1],
    });
    expect(await why('roles=crew-volunteers,communications-desk&type=story&field=body')).toMatchObject({
      profile: 'story-desk',
      beaten: [8],
    });
    expect(await why('roles=&type=story&field=body')).toEqual({ profile: null, choices: [], statement: null, beaten: [] });
  });
  test('a field that is not there is told', async () => {
    for (const query of ['roles=web-team&type=poster&field=body', 'roles=web-team&type=story&field=nothing'])
      expect((await request(`/site/assignment?${query}`)).status).toBe(404);
    expect((await request('/site/assignment?roles=A B&type=story&field=body')).status).toBe(422);
  });
});

describe('rights', () => {
  test.each<[string, string, string, string, unknown?]>([
    ['kit-marsh', 'PUT', '/profiles/diary/draft', 'change how content is written', {}],
    ['kit-marsh', 'POST', '/style-files/changes', 'change how content is written', {}],
    ['kit-marsh', 'PUT', '/house-limits', 'change how content is written', {}],
    ['kit-marsh', 'DELETE', '/specimens/any', 'change how content is written', undefined],
    ['tom-hallow', 'PUT', '/site', 'say what there is to write and who writes it', {}],
  ])('%s may not %s %s', async (person, method, path, words, body) => {
    const answer = await request(path, { method, headers: { 'typikon-person': person, 'if-match': '"1"' }, body });
    expect(answer.status).toBe(403);
    expect((await problem(answer)).detail).toContain(` may not ${words}: none of their roles has the right`);
  });

  test('somebody without any right sees nothing; somebody who is not there is told so', async () => {
    const { site, revision } = await stored();
    const changed = structuredClone(site);
    changed.roles.push({ id: 'guests', label: 'Guests', description: '', rights: [] });
    changed.people.push({ id: 'a-guest', label: 'A guest', roles: ['guests'] });
    expect((await put(changed, revision)).status).toBe(200);
    for (const path of ['/profiles', '/site', '/documents', '/texts', '/assets', '/acting'])
      expect([path, (await request(path, { headers: { 'typikon-person': 'a-guest' } })).status]).toEqual([path, 403]);
    expect((await request('/health', { headers: { 'typikon-person': 'a-guest' } })).status).toBe(200);
    expect((await problem(await request('/profiles', { headers: { 'typikon-person': 'nobody' } }))).detail).toContain(
      'There is nobody called "nobody"',
    );
    expect((await put(site, revision + 1)).status).toBe(200);
  });
});

describe('who acts', () => {
  test('is whom the request names, or the first who administers the site', async () => {
    const acting = async (headers: Record<string, string> = {}) =>
      ((await (await request('/acting', { headers })).json()) as { acting: { id: string; rights: string[] } }).acting;
    expect(await acting()).toMatchObject({ id: 'isa-wren', rights: ['read', 'write', 'design', 'administer'] });
    expect(await acting({ 'typikon-person': 'bea-lund' })).toMatchObject({ id: 'bea-lund', rights: ['read', 'write'] });
    const everybody = ((await (await request('/acting')).json()) as { people: { id: string; roles: object[] }[] }).people;
    expect(everybody.map(({ id }) => id)).toEqual(DOCUMENT.people.map(({ id }) => id));
    expect(everybody[2]!.roles).toEqual([
      { id: 'communications-desk', label: 'Communications desk' },
      { id: 'crew-volunteers', label: 'Crew volunteers' },
    ]);
  });
  test('somebody without the right is refused, and nothing is stored', async () => {
    const before = await stored();
    const response = await put(before.site, before.revision, { 'typikon-person': 'tom-hallow' });
    expect(response.status).toBe(403);
    expect((await problem(response)).detail).toMatch(/^Tom Hallow may not say what there is to write .* the right "administer"\.$/);
    expect((await request('/site', { headers: { 'typikon-person': 'nobody' } })).status).toBe(403);
    expect(await stored()).toEqual(before);
  });
  test('where nobody is known yet, everything may be set up', async () => {
    const fresh = await freshDatabase('site_new');
    try {
      await migrate(fresh.sequelize);
      const bare = createApp({ sequelize: fresh.sequelize, log: pino({ level: 'silent' }), siteOrigins: ['http://127.0.0.1:4711'] });
      const ask = (path: string, init: RequestInit = {}) =>
        bare.request(`${ORIGIN}/api/v1${path}`, {
          ...init,
          headers: { host: '127.0.0.1:4710', ...(init.headers as Record<string, string>) },
        });
      expect(await (await ask('/site')).json()).toEqual({
        format: 'typikon-site/1',
        roles: [],
        people: [],
        types: [],
        assignments: [],
        fallback: [],
      });
      const body = JSON.stringify({
        format: 'typikon-site/1',
        roles: [{ id: 'a', label: 'A', rights: ['administer'] }],
        people: [{ id: 'p', label: 'P', roles: ['a'] }],
      });
      const saved = await ask('/site', { method: 'PUT', body, headers: { 'content-type': 'application/json', 'if-match': '"0"' } });
      expect([saved.status, saved.headers.get('etag')]).toEqual([200, '"1"']);
      expect(await fresh.sequelize.query('SELECT id FROM people', { type: QueryTypes.SELECT })).toEqual([{ id: 'p' }]);
    } finally {
      await fresh.drop();
    }
  });
});

test('the committed description of the API is the one that the server gives', async () => {
  const committed = JSON.parse(readFileSync(join(DEMO, '..', 'docs', 'openapi.json'), 'utf8')) as unknown;
  expect(committed).toEqual(await apiDescription());
});

test('every route names the right that it needs, but for those that are open to all', async () => {
  const { paths } = (await apiDescription()) as { paths: Record<string, Record<string, { 'x-right'?: string }>> };
  const open = Object.entries(paths).flatMap(([path, methods]) =>
    Object.entries(methods).flatMap(([method, route]) => (route['x-right'] === undefined ? [`${method} ${path}`] : [])),
  );
  expect(open).toEqual(['get /api/v1/health']);
});
