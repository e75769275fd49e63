import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { pino } from 'pino';
import type { Sequelize } from 'sequelize';
import sharp from 'sharp';
import { createApp } from '../src/app';
import { readConfig } from '../src/config';
import { connect } from '../src/db/connection';
import { migrate } from '../src/db/migrate';
import type { CensusOfAll } from '@typikon/core';
import { DraftHistoryModel, SettingHistoryModel } from '../src/db/models';
import { ALL_FIGURES, likenessJobs } from '../src/jobs/likeness';
import { countLikeness, likenessInputs, type CountTask } from '../src/jobs/likeness-count';
import { JobQueue } from '../src/jobs/queue';
import { compose } from '../src/seed/compose';
import { seedDemo } from '../src/seed/demo';
import { createSite } from '../src/standins/site';

const DEMO = join(__dirname, '..', '..', '..', 'demo');
const ORIGIN = 'http://127.0.0.1:4710';

interface Stored {
  id: string;
  revision: number;
  document: Record<string, unknown>;
}

let sequelize: Sequelize;
let app: ReturnType<typeof createApp>;
let site: ReturnType<typeof createSite>;

beforeAll(async () => {
  sequelize = connect(readConfig(process.env).database);
  await sequelize.getQueryInterface().dropAllTables();
  await migrate(sequelize);
  await seedDemo(sequelize, DEMO, 22);
  const log = pino({ level: 'silent' });
  app = createApp({ sequelize, log, siteOrigins: ['http://127.0.0.1:4711'] });
  site = createSite({ sequelize, log, applicationOrigins: [ORIGIN], imagesDir: join(DEMO, 'images') });
}, 60_000);

afterAll(() => sequelize.close());

const request = (
  path: string,
  { method = 'GET', headers = {}, body }: { method?: string; headers?: Record<string, string>; body?: unknown } = {},
) =>
  app.request(`${ORIGIN}/api/v1${path}`, {
    method,
    headers: { host: '127.0.0.1:4710', ...(body === undefined ? {} : { 'content-type': 'application/json' }), ...headers },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });

const onSite = async (path: string, { headers, ...init }: RequestInit = {}): Promise<Response> =>
  site.request(`http://127.0.0.1:4711${path}`, { ...init, headers: { host: '127.0.0.1:4711', ...(headers as Record<string, string>) } });

async function read(id: string): Promise<Stored> {
  return (await (await request(`/profiles/${id}`)).json()) as Stored;
}

const save = (id: string, document: unknown, revision: number | string) =>
  request(`/profiles/${id}/draft`, { method: 'PUT', headers: { 'if-match': `"${revision}"` }, body: document });

/** Does all background work that there is, here instead of in a thread. */
async function takeFigures(): Promise<void> {
  const queue = new JobQueue(sequelize);
  const run = async (name: string, task: unknown) =>
    name === 'inputs' ? likenessInputs(task as CountTask) : countLikeness(task as CountTask);
  const handlers = likenessJobs(sequelize, queue, { run: run as never });
  await queue.ask(ALL_FIGURES, 'all');
  for (let job = await queue.claim(); job !== null; job = await queue.claim()) {
    await handlers[job.kind]!(job.subject, () => Promise.resolve(true));
    await queue.done(job);
  }
}

describe('the database', () => {
  test('a second migration and a second seed do nothing', async () => {
    expect(await migrate(sequelize)).toEqual([]);
    expect(await seedDemo(sequelize, DEMO)).toBe(false);
  });
});

describe('reading', () => {
  test('health', async () => {
    const response = await request('/health');
    expect(response.status).toBe(200);
    expect(await response.json()).toEqual({ status: 'ok' });
  });
  test('profiles come with their documents', async () => {
    const profiles = (await (await request('/profiles')).json()) as Stored[];
    expect(profiles.map(({ id }) => id)).toEqual(['diary', 'ferry-note', 'house', 'notices-desk', 'reply', 'story-desk', 'tender-desk']);
    expect(profiles[2]!.document['name']).toBe('House');
  });
  test('a profile has an entity tag', async () => {
    const response = await request('/profiles/house');
    expect(response.headers.get('etag')).toBe('"1"');
  });
  test.each([
    ['/specimens', 27],
    ['/texts', 55],
    ['/texts/published', 55],
    ['/texts/published?pageKind=news', 11],
    ['/texts/published?profile=diary&pageKind=diary', 3],
    ['/likeness/figures', 0],
  ])('%s', async (path, count) => expect(await (await request(path)).json()).toHaveLength(count));
  test('house limits', async () => expect(await (await request('/house-limits')).json()).toMatchObject({ format: 'typikon-house/1' }));
  test('the API describes itself in OpenAPI 3.1', async () => {
    const description = (await (await request('/openapi.json')).json()) as { openapi: string; paths: Record<string, object> };
    expect(description.openapi).toBe('3.1.0');
    expect(Object.keys(description.paths).sort()).toEqual(
      [
        '/acting',
        '/assets',
        '/assets/folders',
        '/comparison',
        '/conversions/{number}',
        '/conversions/{number}/texts',
        '/conversions/{number}/{act}',
        '/documents',
        '/documents/{id}',
        '/documents/{id}/left-out',
        '/documents/{id}/previews',
        '/documents/{id}/publishing',
        '/documents/{id}/restore',
        '/documents/{id}/versions',
        '/documents/{id}/versions/{revision}',
        '/editions',
        '/fit',
        '/fit/profile',
        '/health',
        '/house-limits',
        '/house-limits/rule-history',
        '/likeness/figures',
        '/profiles',
        '/profiles/{id}',
        '/profiles/{id}/conversions',
        '/profiles/{id}/conversions/try',
        '/profiles/{id}/draft',
        '/profiles/{id}/editions',
        '/profiles/{id}/editions/{number}',
        '/profiles/{id}/editions/{number}/again',
        '/profiles/{id}/follow',
        '/profiles/{id}/left',
        '/profiles/{id}/questions',
        '/profiles/{id}/reach',
        '/profiles/{id}/reach/allow',
        '/profiles/{id}/reach/{document}/{field}',
        '/profiles/{id}/revisions',
        '/profiles/{id}/revisions/{revision}',
        '/profiles/{id}/rule-history',
        '/profiles/{id}/scheduled',
        '/profiles/{id}/use',
        '/questions',
        '/questions/{number}/answer',
        '/roles',
        '/scheduled/{number}/off',
        '/shared',
        '/shared/{part}/draft/back',
        '/shared/{part}/editions',
        '/shared/{part}/editions/{number}',
        '/shared/{part}/editions/{number}/again',
        '/shared/{part}/reach',
        '/shared/{part}/reach/{document}/{field}',
        '/shared/{part}/scheduled',
        '/site',
        '/site-dictionary',
        '/site-dictionary/words',
        '/site-dictionary/words/{word}',
        '/site/assignment',
        '/site/draft',
        '/specimens',
        '/specimens/contents',
        '/specimens/{id}',
        '/style-files',
        '/style-files/changes',
        '/style-files/stylesheets/{id}/versions',
        '/style-files/stylesheets/{id}/versions/{revision}',
        '/taken',
        '/texts',
        '/texts/census',
        '/texts/counts',
        '/texts/published',
        '/types/{type}/give-documents',
        '/types/{type}/outdated-versions',
        '/types/{type}/use',
      ].map((path) => `/api/v1${path}`),
    );
  });
  test.each(['/profiles/nobody', '/nothing', '/profiles/NOT%20an%20id'])('%s is not there, as problem details', async (path) => {
    const response = await request(path);
    expect([404, 422]).toContain(response.status);
    expect(response.headers.get('content-type')).toContain('application/problem+json');
    expect(await response.json()).toMatchObject({ status: response.status, title: expect.any(String), detail: expect.any(String) });
  });
});

describe('saving a draft', () => {
  test('keeps it, counts up the entity tag, and keeps every earlier one', async () => {
    const { document, revision } = await read('diary');
    const changed = { ...document, purpose: 'Changed' };
    const response = await save('diary', changed, revision);
    expect(response.status).toBe(200);
    expect(response.headers.get('etag')).toBe(`"${revision + 1}"`);
    expect((await read('diary')).document).toEqual(changed);
    const history = await DraftHistoryModel.findAll({ where: { profileId: 'diary' }, order: ['revision'] });
    expect(history.map((kept) => kept.document)).toEqual([document, changed]);
  });
  test('a stale save changes nothing and brings back what is there', async () => {
    const { document, revision } = await read('reply');
    await save('reply', { ...document, purpose: 'Theirs' }, revision);
    const stale = await save('reply', { ...document, purpose: 'Mine' }, revision);
    expect(stale.status).toBe(412);
    expect(await stale.json()).toMatchObject({ current: { revision: revision + 1, document: { purpose: 'Theirs' } } });
    expect((await read('reply')).document['purpose']).toBe('Theirs');
  });
  test('of many saves at once from the same state, one wins', async () => {
    const { document, revision } = await read('tender-desk');
    const statuses = await Promise.all(
      Array.from({ length: 6 }, async (_, i) => (await save('tender-desk', { ...document, purpose: `Number ${i}` }, revision)).status),
    );
    expect(statuses.sort()).toEqual([200, 412, 412, 412, 412, 412]);
    expect((await read('tender-desk')).revision).toBe(revision + 1);
  });
  test('needs If-Match', async () => {
    expect((await request('/profiles/house/draft', { method: 'PUT', body: {} })).status).toBe(428);
  });
  test('a mistake is refused with its place, and nothing is saved', async () => {
    const before = await read('house');
    const response = await save('house', { ...before.document, markup: { elemnts: {} } }, before.revision);
    expect(response.status).toBe(422);
    expect(await response.json()).toMatchObject({ problems: [{ profile: 'house', pointer: '/markup/elemnts' }] });
    expect(await read('house')).toEqual(before);
  });
  test('a parent cannot be changed so that its children break', async () => {
    const { document, revision } = await read('notices-desk');
    const response = await save('notices-desk', { ...document, extends: 'ferry-note' }, revision);
    expect(response.status).toBe(422);
    expect(await response.json()).toMatchObject({ problems: [{ message: expect.stringContaining('circle') }] });
  });
  test('what is not JSON is refused', async () => {
    const response = await app.request(`${ORIGIN}/api/v1/profiles/house/draft`, {
      method: 'PUT',
      headers: { host: '127.0.0.1:4710', 'content-type': 'application/json', 'if-match': '"1"' },
      body: '{',
    });
    expect(response.status).toBe(400);
    expect(response.headers.get('content-type')).toContain('application/problem+json');
  });
  test('more than 4 MB is refused', async () => {
    expect((await save('house', { purpose: 'x'.repeat(5_000_000) }, 1)).status).toBe(413);
  });
});

describe('house limits', () => {
  const put = (document: unknown, revision: number | null) =>
    request('/house-limits', { method: 'PUT', headers: revision === null ? {} : { 'if-match': `"${revision}"` }, body: document });
  const current = async () => {
    const response = await request('/house-limits');
    return {
      document: (await response.json()) as { markup: Record<string, unknown> },
      revision: Number(response.headers.get('etag')!.slice(1, -1)),
    };
  };

  test('are changed under their entity tag, and every version is kept', async () => {
    const { document, revision } = await current();
    const changed = { ...document, markup: { ...document.markup, comments: 'keep' } };
    const response = await put(changed, revision);
    expect(response.status).toBe(200);
    expect(response.headers.get('etag')).toBe(`"${revision + 1}"`);
    expect((await current()).document).toEqual(changed);
    expect((await put(document, revision)).status).toBe(412);
    expect((await put(document, null)).status).toBe(428);
    expect(await SettingHistoryModel.count({ where: { name: 'house-limits' } })).toBe(revision + 1);
    expect(await (await request('/house-limits/rule-history?pointer=/markup/comments')).json()).toMatchObject({
      revision: revision + 1,
      before: 'drop',
      after: 'keep',
      isFirst: false,
    });
    expect((await put(document, revision + 1)).status).toBe(200);
  });
  test('with a mistake are refused with its place', async () => {
    const { document, revision } = await current();
    const response = await put({ ...document, rules: {} }, revision);
    expect(response.status).toBe(422);
    expect(await response.json()).toMatchObject({ problems: [{ pointer: '/rules' }] });
    expect((await current()).revision).toBe(revision);
  });
  test('roles that they can except', async () => {
    expect(await (await request('/roles')).json()).toContainEqual({ id: 'web-team', name: 'Web team' });
  });
});

describe('when a rule was set', () => {
  const history = async (pointer: string) => (await request(`/profiles/house/rule-history?pointer=${encodeURIComponent(pointer)}`)).json();

  test('the save that last changed it, with what stood there before', async () => {
    expect(await history('/markup/unlisted')).toMatchObject({ revision: 1, before: null, after: 'unwrap', isFirst: true });
    const { document, revision } = await read('house');
    const markup = document['markup'] as Record<string, unknown>;
    await save('house', { ...document, markup: { ...markup, unlisted: 'drop' } }, revision);
    await save('house', { ...document, purpose: 'Else', markup: { ...markup, unlisted: 'drop' } }, revision + 1);
    expect(await history('/markup/unlisted')).toMatchObject({ revision: revision + 1, before: 'unwrap', after: 'drop', isFirst: false });
    await save('house', document, revision + 2);
  });
  test('is a question about a place of a profile that is there', async () => {
    expect((await request('/profiles/nobody/rule-history?pointer=/markup')).status).toBe(404);
    expect((await request('/profiles/house/rule-history?pointer=markup')).status).toBe(422);
  });
});

test('what is read comes shorter to a browser that takes it so, and is the same', async () => {
  const [short, plain] = [
    await request('/specimens/contents', { headers: { 'accept-encoding': 'gzip, br' } }),
    await request('/specimens/contents'),
  ];
  const [packed, text] = [Buffer.from(await short.arrayBuffer()), await plain.text()];
  expect([short.headers.get('content-encoding'), plain.headers.get('content-encoding')]).toEqual(['gzip', null]);
  expect(packed.length).toBeLessThan(text.length / 2);
  expect(gunzipSync(packed).toString()).toBe(text);
  expect(short.headers.get('vary')).toContain('Accept-Encoding');
});

test('the entity tag of what came shorter can be sent back', async () => {
  const read = await request('/house-limits', { headers: { 'accept-encoding': 'gzip' } });
  expect(read.headers.get('content-encoding')).toBe('gzip');
  expect(read.headers.get('etag')).toMatch(/^"\d+"$/);
});

test('the census adds up what all stored documents hold', async () => {
  const census = (await (await request('/texts/census')).json()) as CensusOfAll;
  expect(census.documents).toBe(55);
  expect(census.classes['lead']).toBeGreaterThan(5);
  expect(census.elements['p']).toBeGreaterThan(20);
  expect(census.elements['iframe']).toBe(1);
  expect(census.attributes['iframe']).toMatchObject({ src: 1 });
  expect(census.most.nesting).toBeGreaterThan(3);
});

describe('making a profile', () => {
  test('works once for each id', async () => {
    const body = { id: 'picture-desk', document: { format: 'typikon-profile/1', name: 'Picture desk', extends: 'house' } };
    const first = await request('/profiles', { method: 'POST', body });
    expect(first.status).toBe(201);
    expect(first.headers.get('etag')).toBe('"1"');
    expect((await request('/profiles', { method: 'POST', body })).status).toBe(409);
  });
  test('needs a parent that is there', async () => {
    const response = await request('/profiles', {
      method: 'POST',
      body: { id: 'orphan', document: { format: 'typikon-profile/1', name: 'Orphan', extends: 'nobody' } },
    });
    expect(response.status).toBe(422);
    expect(await response.json()).toMatchObject({ problems: [{ pointer: '/extends' }] });
  });
});

describe('guarding', () => {
  test.each([
    ['a foreign host name', 'GET', { host: 'evil.example' }],
    ['a change from another site', 'PUT', { host: '127.0.0.1:4710', 'sec-fetch-site': 'cross-site' }],
    ['a change from another port', 'POST', { host: '127.0.0.1:4710', origin: 'http://127.0.0.1:4711' }],
  ])('%s is refused', async (_what, method, headers) => {
    expect((await request('/profiles', { method, headers: headers })).status).toBe(403);
  });
  test('the application forbids foreign scripts and being framed', async () => {
    const headers = (await request('/health')).headers;
    expect(headers.get('content-security-policy')).toContain("script-src 'self'");
    expect(headers.get('content-security-policy')).toContain("frame-ancestors 'none'");
    expect(headers.get('x-content-type-options')).toBe('nosniff');
    expect(headers.get('x-request-id')).toMatch(/^[0-9a-f-]{36}$/);
  });
});

describe('stylesheets and page kinds', () => {
  interface Files {
    stylesheets: { id: string; css: string; purpose: string; media: string; revision: number }[];
    pageKinds: { id: string; name: string; stylesheets: string[]; revision: number; widthsPx: number[] }[];
  }
  const files = async (): Promise<Files> => (await (await request('/style-files')).json()) as Files;
  const change = (body: unknown) => request('/style-files/changes', { method: 'POST', body });
  const sheet = async (id: string) => (await files()).stylesheets.find((one) => one.id === id)!;
  const kind = async (id: string) => (await files()).pageKinds.find((one) => one.id === id)!;

  test('the demo has seven kinds of page and nine stylesheets, one of them for print', async () => {
    const { stylesheets, pageKinds } = await files();
    expect(pageKinds.map(({ id }) => id)).toEqual(['article', 'card', 'diary', 'guide', 'news', 'notice', 'tender']);
    expect(stylesheets).toHaveLength(9);
    expect(stylesheets.find(({ id }) => id === 'print')).toMatchObject({ media: 'print', revision: 1 });
    expect(pageKinds[0]!.widthsPx).toEqual([1280, 768, 375]);
  });
  test('a change of both is stored together, with a version and its note', async () => {
    const [night, news] = [await sheet('night'), await kind('news')];
    const response = await change({
      note: 'Darker',
      stylesheets: [{ ...night, css: 'body { color: red }' }],
      pageKinds: [{ ...news, stylesheets: [...news.stylesheets, 'night'] }],
    });
    expect(response.status).toBe(200);
    expect(await sheet('night')).toMatchObject({ css: 'body { color: red }', revision: 2 });
    expect((await kind('news')).stylesheets.at(-1)).toBe('night');
    const versions = (await (await request('/style-files/stylesheets/night/versions')).json()) as { revision: number; note: string }[];
    expect(versions.map(({ revision, note }) => [revision, note])).toEqual([
      [2, 'Darker'],
      [1, ''],
    ]);
    expect(await (await request('/style-files/stylesheets/night/versions/1')).json()).toEqual({ css: night.css });
    expect((await request('/style-files/stylesheets/night/versions/9')).status).toBe(404);
    await change({ pageKinds: [{ ...(await kind('news')), stylesheets: news.stylesheets }] });
  });
  test('of a change with one mistake nothing is stored', async () => {
    const [before, news] = [await sheet('night'), await kind('news')];
    for (const [body, status, words] of [
      [{ stylesheets: [{ ...before, css: 'x' }], pageKinds: [{ ...news, revision: 99 }] }, 412, /changed the page kind "news"/],
      [
        { stylesheets: [{ ...before, css: 'x' }], pageKinds: [{ ...news, stylesheets: ['nothing'] }] },
        409,
        /loads the stylesheet "nothing"/,
      ],
      [{ stylesheets: [{ ...before, css: 'x', revision: null }] }, 409, /already a stylesheet "night"/],
      [{ stylesheets: [{ ...before, css: 'x', revision: 1 }] }, 412, /changed the stylesheet "night"/],
      [{ pageKinds: [{ ...news, stylesheets: ['site', 'site'] }] }, 422, /no stylesheet twice/],
      [{ pageKinds: [{ ...news, wrapper: [{ element: 'script onload=x' }] }] }, 422, /wrapper/],
      [{ removed: { stylesheets: [{ id: 'night', revision: before.revision }] } }, 409, /diary.*loads the stylesheet/],
      [{ removed: { pageKinds: [{ id: 'news', revision: news.revision }] } }, 409, /\d+ stored documents are pages/],
    ] as const) {
      const response = await change(body);
      expect(response.status).toBe(status);
      expect(((await response.json()) as { detail: string }).detail).toMatch(words);
    }
    expect(await sheet('night')).toEqual(before);
    expect(await kind('news')).toEqual(news);
  });
  test('a stylesheet comes and goes, its numbers go on', async () => {
    const added = { id: 'try', purpose: '', media: '', css: 'a {}', revision: null };
    expect((await change({ stylesheets: [added] })).status).toBe(200);
    expect((await change({ removed: { stylesheets: [{ id: 'try', revision: 1 }] } })).status).toBe(200);
    expect(await sheet('try')).toBeUndefined();
    expect((await change({ stylesheets: [added] })).status).toBe(200);
    expect((await sheet('try')).revision).toBe(2);
    await change({ removed: { stylesheets: [{ id: 'try', revision: 2 }] } });
  });
  test('pages name stylesheets by their content, which a browser may keep', async () => {
    const page = (path: string) => onSite(path);
    const html = await (await page('/documents/tender-pontoon')).text();
    const [, address] = /href="(\/stylesheets\/tender\.[0-9a-f]{12}\.css)"/.exec(html)!;
    expect((await page(address!)).headers.get('cache-control')).toContain('immutable');
    expect(html).toMatch(/<link rel="stylesheet" href="[^"]*print[^"]*" media="print">/);
    const tender = await sheet('tender');
    await change({ stylesheets: [{ ...tender, css: `${tender.css}\n.x {}` }] });
    // Readers see what was released; the bench shows what is worked on, under an address of its own.
    expect(await (await page('/documents/tender-pontoon')).text()).toContain(address);
    expect((await page(address!)).headers.get('cache-control')).toContain('immutable');
    const { revision } = (await (await request('/style-files')).json()) as { revision: number };
    const released = await request('/shared/pages/editions', {
      method: 'POST',
      headers: { 'if-match': `"${revision}"` },
      body: { note: 'Another look' },
    });
    expect(released.status).toBe(201);
    expect((await page(address!)).headers.get('cache-control')).toBe('no-cache');
    expect(await (await page('/documents/tender-pontoon')).text()).not.toContain(address);
  });
  test('figures are taken of every profile and page kind, and again only where they changed', async () => {
    await takeFigures();
    await takeFigures();
    const all = (await (await request('/likeness/figures')).json()) as {
      profileId: string;
      pageKindId: string;
      elements: number;
      alike: number;
    }[];
    expect(new Set(all.map(({ profileId, pageKindId }) => `${profileId} ${pageKindId}`)).size).toBe(all.length);
    const guide = all.find(({ profileId, pageKindId }) => profileId === 'story-desk' && pageKindId === 'guide')!;
    expect(guide.alike).toBeLessThan(guide.elements);
    expect(all.find(({ profileId, pageKindId }) => profileId === 'notices-desk' && pageKindId === 'notice')).toMatchObject({ causes: 0 });
    const kindNow = await kind('guide');
    await change({ pageKinds: [{ ...kindNow, stylesheets: (await kind('article')).stylesheets }] });
    await takeFigures();
    const after = (await (await request('/likeness/figures')).json()) as typeof all;
    expect(after).toHaveLength(all.length + 1);
    expect(after.at(-1)).toMatchObject({ profileId: 'story-desk', pageKindId: 'guide', alike: guide.elements });
  }, 60_000);
});

describe('composed documents', () => {
  test('are the same every time, with ids of their own, and hold what years leave behind', () => {
    const all = compose(1, 200);
    expect(compose(1, 200)).toEqual(all);
    expect(new Set(all.map(({ id }) => id)).size).toBe(200);
    const html = all.map((document) => document.html).join('');
    for (const remains of ['<font', 'MsoNormal', '&nbsp;', 'align="center"', 'target="_blank"', 'col-left', 'width="1100"', '<h1>'])
      expect(html).toContain(remains);
  });
});

describe('the site stand-in', () => {
  const page = onSite;

  test('forbids every script, by header', async () => {
    expect((await page('/')).headers.get('content-security-policy')).toContain("script-src 'none'");
  });
  test('cleans stored markup on each render', async () => {
    const html = await (await page('/documents/orrenstrand')).text();
    expect(html).toContain('best left before a blow');
    expect(html).not.toContain('<iframe');
    expect(html).toContain('<link rel="stylesheet" href="/stylesheets/site.');
  });
  test('lists every document', async () => {
    expect(((await (await page('/')).text()).match(/href="\/documents\//g) ?? []).length).toBe(42);
  });
  test.each([
    ['/stylesheets/site.css', 'text/css'],
    ['/images/old-tansy.svg', 'image/svg+xml'],
  ])('%s', async (path, type) => expect((await page(path)).headers.get('content-type')).toContain(type));
  test.each(['/documents/nothing', '/images/..%2f..%2fpackage.json', '/images/none.svg', '/stylesheets/none.css', '/x'])(
    '%s is not there',
    async (path) => expect((await page(path)).status).toBe(404),
  );
  test('a proof is cleaned by the draft that comes with it, never trusted', async () => {
    const form = new FormData();
    form.set('html', '<p>Hi <u>there</u></p><script>alert(1)</script><img src=x onerror=alert(1)>');
    form.set('profile', 'try');
    form.set(
      'profiles',
      JSON.stringify({ try: { format: 'typikon-profile/1', name: 'Try', markup: { elements: { p: {}, u: {}, script: {} } } } }),
    );
    const html = await (await page('/proof', { method: 'POST', body: form })).text();
    expect(html).toContain('<p>Hi <u>there</u></p>');
    expect(html).not.toContain('alert');
  });
  test('a proof is cleaned for the role that it is shown for', async () => {
    const proof = async (role: string): Promise<string> => {
      const form = new FormData();
      form.set('html', '<iframe src="https://cams.example/1"></iframe>');
      form.set('profile', 'try');
      form.set('role', role);
      const elements = { iframe: { attributes: { src: { test: 'url', hosts: ['cams.example'] } } } };
      form.set('profiles', JSON.stringify({ try: { format: 'typikon-profile/1', name: 'Try', markup: { elements } } }));
      return (await page('/proof', { method: 'POST', body: form })).text();
    };
    expect(await proof('')).not.toContain('<iframe');
    expect(await proof('web-team')).toContain('<iframe src="https://cams.example/1"');
  });
  test('a proof with an unknown profile lets nothing but text through', async () => {
    const form = new FormData();
    form.set('html', '<p>Hi <b>there</b></p>');
    form.set('profile', 'nobody');
    expect(await (await page('/proof', { method: 'POST', body: form })).text()).toContain('Hi there');
  });
});

describe('specimens', () => {
  const specimen = {
    format: 'typikon-specimen/1',
    name: 'A tide',
    profile: 'notices-desk',
    payload: { types: { 'text/html': '<p>Tide</p>', 'text/rtf': '{\\rtf1}' }, files: [{ name: 'a.png', type: 'image/png', size: 3 }] },
    expectations: [{ expect: 'count', of: 'p', is: 1 }],
  };

  test('those of the demo hold whole payloads with expectations', async () => {
    const all = (await (await request('/specimens/contents')).json()) as {
      id: string;
      payload: { types: object };
      expectations: unknown[];
    }[];
    expect(all.length).toBeGreaterThanOrEqual(24);
    expect(Object.keys(all.find(({ id }) => id === 'slip-pictures')!.payload.types).sort()).toEqual(['text/html', 'text/rtf']);
    expect(all.every(({ expectations }) => expectations.length > 0)).toBe(true);
  });

  test('one is added, changed by whoever saw it last, and removed', async () => {
    const added = await request('/specimens', { method: 'POST', body: { ...specimen, id: 'a-tide' } });
    expect(added.status).toBe(201);
    expect(added.headers.get('etag')).toBe('"1"');
    expect(await added.json()).toMatchObject({ id: 'a-tide', arrives: 'paste', notes: '', revision: 1, payload: specimen.payload });
    expect((await request('/specimens', { method: 'POST', body: { ...specimen, id: 'a-tide' } })).status).toBe(409);

    const change = (revision: string | null, name: string) =>
      request('/specimens/a-tide', {
        method: 'PUT',
        headers: revision === null ? {} : { 'if-match': `"${revision}"` },
        body: { ...specimen, name },
      });
    expect((await change(null, 'B')).status).toBe(428);
    expect((await change('1', 'B')).status).toBe(200);
    const late = await change('1', 'C');
    expect(late.status).toBe(412);
    expect(await late.json()).toMatchObject({ current: { name: 'B', revision: 2 } });

    expect((await request('/specimens/a-tide', { method: 'DELETE' })).status).toBe(428);
    expect((await request('/specimens/a-tide', { method: 'DELETE', headers: { 'if-match': '"1"' } })).status).toBe(412);
    expect((await request('/specimens/a-tide', { method: 'DELETE', headers: { 'if-match': '"2"' } })).status).toBe(204);
    expect((await request('/specimens/a-tide', { method: 'DELETE', headers: { 'if-match': '"2"' } })).status).toBe(404);
  });

  test.each<[what: string, part: object, pointer: string]>([
    ['an expectation of no kind', { expectations: [{ expect: 'luck' }] }, '/expectations/0/expect'],
    ['a payload without types', { payload: {} }, '/payload/types'],
    ['a key that nobody knows', { colour: 'red' }, ''],
    ['a profile that is not there', { profile: 'nobody' }, '/profile'],
  ])('%s is refused at its place', async (_what, part, pointer) => {
    const answer = await request('/specimens', { method: 'POST', body: { ...specimen, id: 'b-tide', ...part } });
    expect(answer.status).toBe(422);
    const { problems } = (await answer.json()) as { problems: { pointer: string }[] };
    expect(problems[0]!.pointer).toContain(pointer);
    expect((await request('/specimens/b-tide', { method: 'DELETE', headers: { 'if-match': '*' } })).status).toBe(404);
  });
});

const drawn = (width: number, height: number) => sharp({ create: { width, height, channels: 3, background: '#17475c' } });

describe('the asset library', () => {
  let PNG: Buffer;
  beforeAll(async () => (PNG = await drawn(8, 8).png().toBuffer()));
  const put = (bytes: Buffer, alt = '') =>
    app.request(`${ORIGIN}/api/v1/assets?alt=${encodeURIComponent(alt)}`, {
      method: 'POST',
      headers: { host: '127.0.0.1:4710', 'content-type': 'application/octet-stream' },
      body: new Uint8Array(bytes),
    });

  test('takes a picture once, and the site serves it', async () => {
    const first = await put(PNG, 'A mark');
    expect(first.status).toBe(201);
    const asset = (await first.json()) as { address: string };
    expect(asset).toMatchObject({ type: 'image/png', widthPx: 8, heightPx: 8, alt: 'A mark' });
    expect((await put(PNG)).status).toBe(200);
    const served = await site.request(`http://127.0.0.1:4711${asset.address}`, { headers: { host: '127.0.0.1:4711' } });
    expect(served.headers.get('content-type')).toBe('image/png');
    expect(served.headers.get('x-content-type-options')).toBe('nosniff');
    const kept = await sharp(Buffer.from(await served.arrayBuffer())).metadata();
    expect([kept.format, kept.width, kept.height]).toEqual(['png', 8, 8]);
    expect(((await (await request('/assets?q=mark')).json()) as { address: string }[]).map(({ address }) => address)).toContain(
      asset.address,
    );
  });
  const named = (bytes: Buffer, title: string, rest = '') =>
    app.request(`${ORIGIN}/api/v1/assets?title=${encodeURIComponent(title)}&${rest}`, {
      method: 'POST',
      headers: { host: '127.0.0.1:4710', 'content-type': 'application/octet-stream' },
      body: new Uint8Array(bytes),
    });

  test('the demo’s pictures are found by their words, in folders', async () => {
    expect(await (await request('/assets/folders')).json()).toEqual(['charts', 'crew', 'ferries', 'harbours']);
    const titles = async (query: string) =>
      ((await (await request(`/assets?${query}`)).json()) as { title: string }[]).map(({ title }) => title);
    expect(await titles('q=pontoon')).toEqual(expect.arrayContaining(['chart-pontoon.png', 'little-sallow-pontoon.jpg']));
    expect(await titles('q=pontoon&folder=charts')).toEqual(['chart-pontoon.png']);
    expect(await titles('q=100%25')).toEqual([]);
  });

  test('metadata is left out, the picture turned as it asks, and made no wider than is asked', async () => {
    const photo = await drawn(400, 200)
      .jpeg()
      .withExif({ IFD0: { Artist: 'Somebody' } })
      .withMetadata({ orientation: 6 })
      .toBuffer();
    const answer = (await (await named(photo, 'turned.jpg', 'widest=100')).json()) as {
      address: string;
      widthPx: number;
      heightPx: number;
    };
    expect([answer.widthPx, answer.heightPx]).toEqual([100, 200]);
    const served = await site.request(`http://127.0.0.1:4711${answer.address}`, { headers: { host: '127.0.0.1:4711' } });
    const { exif, orientation } = await sharp(Buffer.from(await served.arrayBuffer())).metadata();
    expect([exif, orientation]).toEqual([undefined, undefined]);
    // What has a name can be replaced, so it is asked for anew each time.
    expect(served.headers.get('cache-control')).toBe('no-cache');
  });

  test('a name that is taken is asked about: both are kept, the old one is replaced or used', async () => {
    const [one, other] = [await drawn(20, 10).png().toBuffer(), await drawn(40, 10).png().toBuffer()];
    const first = (await (await named(one, 'twice.png')).json()) as { address: string };
    const asked = await named(other, 'twice.png');
    expect(asked.status).toBe(409);
    expect(await asked.json()).toMatchObject({ existing: { address: first.address, title: 'twice.png', widthPx: 20 } });
    expect(await (await named(other, 'twice.png', 'sameName=use-existing')).json()).toMatchObject({ address: first.address, widthPx: 20 });
    const second = (await (await named(other, 'twice.png', 'sameName=keep-both')).json()) as { title: string; address: string };
    expect(second.title).toBe('twice (2).png');
    expect(await (await named(other, 'twice.png', 'sameName=replace')).json()).toMatchObject({ address: first.address, widthPx: 40 });
    expect((await named(one, 'twice.png', 'folder=crew')).status).toBe(201);
  });

  test('a picture that is damaged past its head is refused', async () => {
    const whole = await drawn(300, 300).jpeg().toBuffer();
    const answer = await named(whole.subarray(0, Math.floor(whole.length / 2)), 'half.jpg');
    expect(answer.status).toBe(415);
    expect(((await answer.json()) as { detail: string }).detail).toContain('damaged');
  });

  test('of a paste, a damaged picture is taken as far as it can be read', async () => {
    const whole = await drawn(300, 300).jpeg().toBuffer();
    expect((await put(whole.subarray(0, Math.floor(whole.length / 2)))).status).toBe(201);
  });

  test.each([
    ['a drawing that can hold scripts', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>1</script></svg>')],
    ['what only begins like a picture', Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0])],
    ['nothing', Buffer.alloc(0)],
  ])('refuses %s', async (_what, bytes) => {
    expect((await put(bytes)).status).toBe(415);
  });
  test('more than 16 MB is refused', async () => {
    expect((await put(Buffer.alloc(17_000_000))).status).toBe(413);
  });
  test('a page from elsewhere cannot put anything in', async () => {
    const answer = await app.request(`${ORIGIN}/api/v1/assets`, {
      method: 'POST',
      headers: { host: '127.0.0.1:4710', 'sec-fetch-site': 'cross-site', 'content-type': 'application/octet-stream' },
      body: new Uint8Array(PNG),
    });
    expect(answer.status).toBe(403);
  });
});

describe('the site’s dictionary', () => {
  test('has the names of the demo; words are added and taken out', async () => {
    const words = async () => ((await (await request('/site-dictionary')).json()) as { words: string[] }).words;
    expect(await words()).toContain('Thornholm');
    expect((await request('/site-dictionary/words', { method: 'POST', body: { word: 'gunwale' } })).status).toBe(200);
    expect(await words()).toContain('gunwale');
    await request('/site-dictionary/words', { method: 'POST', body: { word: 'gunwale' } });
    expect((await words()).filter((word) => word === 'gunwale')).toHaveLength(1);
    expect((await request('/site-dictionary/words/gunwale', { method: 'DELETE' })).status).toBe(200);
    expect(await words()).not.toContain('gunwale');
  });
  test.each(['two words', '<b>', '', 'x'.repeat(61)])('%j is no word', async (word) => {
    expect((await request('/site-dictionary/words', { method: 'POST', body: { word } })).status).toBe(422);
  });
});
