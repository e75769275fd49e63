import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import { createServer, request as rawRequest } from 'node:http';
import { connect as connectSocket } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import type { Sequelize } from 'sequelize';
import { createApp } from '../src/app';
import { migrate } from '../src/db/migrate';
import { listen } from '../src/http-server';
import { measureJson, wellFormed } from '../src/json-body';
import { createSite } from '../src/standins/site';
import { DEMO, demoDatabase, freshDatabase } from './database';

jest.setTimeout(120_000);

const log = pino({ level: 'silent' });
const ORIGIN = 'http://127.0.0.1:4710';
let sequelize: Sequelize;
let drop: () => Promise<void>;
let app: ReturnType<typeof createApp>;
let site: ReturnType<typeof createSite>;

beforeAll(async () => {
  ({ sequelize, drop } = await demoDatabase('hostile', 0));
  const webDir = mkdtempSync(join(tmpdir(), 'typikon-web-'));
  writeFileSync(join(webDir, 'index.html'), '<!doctype html><title>Typikon</title>');
  writeFileSync(join(webDir, 'main-ABCDEFGH.js'), '1');
  writeFileSync(join(webDir, '.sources'), 'secret');
  mkdirSync(join(webDir, '.git'));
  writeFileSync(join(webDir, '.git', 'config'), 'secret');
  app = createApp({ sequelize, log, siteOrigins: ['http://127.0.0.1:4711'], webDir });
  site = createSite({ sequelize, log, applicationOrigins: [ORIGIN], imagesDir: join(DEMO, 'images') });
});
afterAll(() => drop());

type Init = Omit<RequestInit, 'headers'> & { headers?: Record<string, string> };
const to =
  (target: { request: typeof app.request }, origin: string) =>
  (path: string, { headers, ...init }: Init = {}) =>
    target.request(`${origin}${path}`, { ...init, headers: { host: new URL(origin).host, ...headers } }) as Promise<Response>;
const onApp: ReturnType<typeof to> = (path, init) => to(app, ORIGIN)(path, init);
const onSite: ReturnType<typeof to> = (path, init) => to(site, 'http://127.0.0.1:4711')(path, init);
const json = (method: string, body: string, headers: Record<string, string> = {}): Init => ({
  method,
  headers: { 'content-type': 'application/json', ...headers },
  body,
});

/** Every error is problem details with the headers that keep a page safe. */
async function isProblem(response: Response, statuses: readonly number[]): Promise<string> {
  expect(statuses).toContain(response.status);
  expect(response.headers.get('content-type')).toContain('application/problem+json');
  expect(response.headers.get('x-content-type-options')).toBe('nosniff');
  expect(response.headers.get('content-security-policy')).toContain('default-src');
  const body = (await response.json()) as { detail: string; status: number };
  expect(body.status).toBe(response.status);
  expect(body.detail).toMatch(/\w.*\.$|:/);
  return body.detail;
}

describe('what a caller sends', () => {
  const specimen = (name: string) =>
    `{"format":"typikon-specimen/1","id":"half","name":"${name}","profile":"diary","arrives":"paste","payload":{"types":{"text/html":"<p>\\ud83d</p>"}}}`;

  test('half an emoji is stored as the sign for what is lost', async () => {
    expect((await onApp('/api/v1/specimens', json('POST', specimen('cut \\uD83D here')))).status).toBe(201);
    expect(await (await onApp('/api/v1/specimens/half')).json()).toMatchObject({
      name: 'cut \ufffd here',
      payload: { types: { 'text/html': '<p>\ufffd</p>' } },
    });
  });
  test.each<[string, string]>([
    ['"\\ud83d\\ude00"', '"\\ud83d\\ude00"'],
    ['"\\ud83d"', '"\\ufffd"'],
    ['"\\ude00"', '"\\ufffd"'],
    ['"\\\\ud83d"', '"\\\\ud83d"'],
    ['"\\\\\\ud83d"', '"\\\\\\ufffd"'],
    ['"\\ud83d\\ud83d\\ude00"', '"\\ufffd\\ud83d\\ude00"'],
    ['"\\uD83Dx\\uDE00"', '"\\ufffdx\\ufffd"'],
  ])('%s is read as %s', (given, sound) => expect(wellFormed(given)).toBe(sound));

  test.each<[string, string, number]>([
    ['[1,[2,{"a":[]}]]', 'depth and values', 4],
    ['"[[[["', 'brackets in strings are none', 0],
    ['"\\"[["', 'nor behind an escaped quotation mark', 0],
  ])('%s: %s', (text, _what, depth) => expect(measureJson(text).depth).toBe(depth));

  test.each<[string, string, Init, number[]]>([
    ['JSON that is 300 000 deep', '/api/v1/profiles', json('POST', '['.repeat(300_000)), [422]],
    ['JSON of millions of values', '/api/v1/house-limits', json('PUT', `[${'1,'.repeat(300_000)}1]`, { 'if-match': '"1"' }), [422]],
    ['JSON that breaks off', '/api/v1/profiles', json('POST', '{"id":"x"'), [400]],
    ['no JSON where it must be', '/api/v1/profiles', { method: 'POST', body: 'x' }, [400, 415, 422]],
    ['null', '/api/v1/profiles', json('POST', 'null'), [422]],
    ['an origin that is none', '/api/v1/site-dictionary/words', json('POST', '{"word":"pier"}', { origin: 'null' }), [403]],
    ['an origin that is no address', '/api/v1/site-dictionary/words', json('POST', '{"word":"pier"}', { origin: ':::' }), [403]],
    ['another origin', '/api/v1/site-dictionary/words', json('POST', '{"word":"pier"}', { origin: 'http://other.example' }), [403]],
    ['another host', '/api/v1/profiles', { headers: { host: 'other.example' } }, [403]],
    ['a broken escape in the path', '/api/v1/profiles/%ff%fe', {}, [404, 422]],
    ['a NUL in the path', '/api/v1/profiles/a%00b', {}, [404, 422]],
    ['a wrong number', '/api/v1/texts?limit=-1', {}, [422]],
    ['too much at once', '/api/v1/texts?limit=100000000', {}, [422]],
    ['a picture that is none', '/api/v1/assets', { method: 'POST', body: 'x'.repeat(1000) }, [415]],
    ['a body that is too large', '/api/v1/profiles', json('POST', `"${'x'.repeat(1_100_000)}"`), [413]],
    [
      'markup of too many tags',
      '/api/v1/documents/orrenstrand',
      json('PUT', JSON.stringify({ fields: { body: { value: '<p>'.repeat(200_001) } } }), { 'if-match': '"1"' }),
      [422],
    ],
    ['nothing that is there', '/api/v1/nothing', {}, [404]],
    ['a method that is not taken', '/api/v1/profiles', { method: 'PATCH' }, [404]],
  ])('%s gets a sentence', async (_what, path, init, statuses) => {
    await isProblem(await onApp(path, init), statuses);
  });

  test('how much is too much is said with numbers', async () => {
    const answer = await onApp(
      '/api/v1/documents/orrenstrand',
      json('PUT', JSON.stringify({ fields: { body: { value: '<p>'.repeat(300_000) } } }), { 'if-match': '"1"' }),
    );
    expect(await isProblem(answer, [422])).toBe('The markup has about 300,000 tags; 200,000 can be cleaned at once. Nothing was saved.');
  });

  test('a stylesheet that is nested too deep is refused with its line, one that only looks so is taken', async () => {
    const { stylesheets } = (await (await onApp('/api/v1/style-files')).json()) as { stylesheets: { id: string; css: string }[] };
    const change = (css: string) =>
      onApp('/api/v1/style-files/changes', json('POST', JSON.stringify({ stylesheets: [{ ...stylesheets[0], css }] })));
    expect(await isProblem(await change(`a{}\n${'p{&'.repeat(100)}`), [422])).toContain('line 2: Nested deeper than 64 levels.');
    expect((await change(`.a,.b{${'& &,& &{'.repeat(24)}color:red${'}'.repeat(25)}`)).status).toBe(200);
  });
});

describe('lists', () => {
  test('come in pages that name the next one, and together are the whole', async () => {
    for (const path of [
      '/api/v1/texts',
      '/api/v1/specimens',
      '/api/v1/specimens/contents',
      '/api/v1/assets',
      '/api/v1/profiles',
      '/api/v1/texts/published',
    ]) {
      const whole = (await (await onApp(path)).json()) as Record<string, unknown>[];
      const found: Record<string, unknown>[] = [];
      let next: string | undefined = `${path}?limit=2`;
      for (let pages = 0; next !== undefined; pages++) {
        expect(pages).toBeLessThan(whole.length);
        const answer = await onApp(next);
        const page = (await answer.json()) as Record<string, unknown>[];
        expect(page.length).toBeLessThanOrEqual(2);
        found.push(...page);
        next = /<([^>]+)>; rel="next"/.exec(answer.headers.get('link') ?? '')?.[1];
      }
      expect({ path, found }).toEqual({ path, found: whole });
    }
  });
  test('a picture is sent in pieces, whole', async () => {
    const [asset] = (await (await onApp('/api/v1/assets')).json()) as { address: string; bytes: number }[];
    const answer = await onSite(asset!.address);
    expect(Number(answer.headers.get('content-length'))).toBe(asset!.bytes);
    expect((await answer.arrayBuffer()).byteLength).toBe(asset!.bytes);
  });
});

describe('files', () => {
  test.each(['/main-ZZZZZZZZ.js', '/media/none.woff2', '/favicon.none.ico', '/x/y/styles-AAAAAAAA.css'])(
    '%s is not there, and no browser keeps that',
    async (path) => {
      const answer = await onApp(path);
      await isProblem(answer, [404]);
      expect(answer.headers.get('cache-control')).toBe('no-cache');
    },
  );
  test.each(['/.sources', '/.git/config', '/%2egit/config', '/x/..%2f.sources', '/%2e%2e/package.json', '/..%5c.sources'])(
    '%s is never served',
    async (path) => isProblem(await onApp(path), [404]),
  );
  test('what is there is kept for a year where its name says what it holds, and addresses of the application open it', async () => {
    expect((await onApp('/main-ABCDEFGH.js')).headers.get('cache-control')).toContain('immutable');
    const start = await onApp('/profiles/story-desk');
    expect(await start.text()).toContain('<title>Typikon</title>');
    expect(start.headers.get('cache-control')).toBe('no-cache');
  });
});

describe('the site stand-in', () => {
  const form = (fields: Record<string, string>): FormData => {
    const data = new FormData();
    for (const [name, value] of Object.entries(fields)) data.set(name, value);
    return data;
  };
  test.each<[string, Init, number[]]>([
    ['profiles that are null', { method: 'POST', body: form({ html: 'x', profiles: 'null' }) }, [400]],
    ['profiles that are a list', { method: 'POST', body: form({ html: 'x', profiles: '[1]' }) }, [400]],
    ['profiles that are no objects', { method: 'POST', body: form({ html: 'x', profiles: '{"a":1}' }) }, [400]],
    ['profiles that are too deep', { method: 'POST', body: form({ html: 'x', profiles: '{"a":'.repeat(5000) }) }, [400]],
    ['a form that is none', { method: 'POST', headers: { 'content-type': 'multipart/form-data; boundary=x' }, body: 'nothing' }, [400]],
    ['a form without a boundary', { method: 'POST', headers: { 'content-type': 'multipart/form-data' }, body: 'nothing' }, [400]],
    ['too many tags', { method: 'POST', body: form({ html: '<b>'.repeat(200_001) }) }, [422]],
    ['another origin', { method: 'POST', headers: { origin: 'http://other.example' }, body: form({ html: 'x' }) }, [403]],
    ['no origin at all, of a browser', { method: 'POST', headers: { 'sec-fetch-site': 'cross-site' }, body: form({ html: 'x' }) }, [403]],
    ['an origin that is none', { method: 'POST', headers: { origin: 'null' }, body: form({ html: 'x' }) }, [403]],
    [
      'a page from elsewhere',
      { method: 'POST', headers: { origin: 'http://other.example', 'sec-fetch-site': 'cross-site' }, body: form({ html: 'x' }) },
      [403],
    ],
    ['another host', { method: 'POST', headers: { host: 'other.example' }, body: form({ html: 'x' }) }, [403]],
  ])('%s gets a sentence', async (_what, init, statuses) => {
    await isProblem(await onSite('/proof', init), statuses);
  });
  test('the application may post to it', async () => {
    expect(
      (
        await onSite('/proof', {
          method: 'POST',
          headers: { origin: 'null', 'sec-fetch-site': 'same-site' },
          body: form({ html: 'Hi', profile: 'diary' }),
        })
      ).status,
    ).toBe(200);
  });
});

describe('requests that cannot be read', () => {
  let port = 0;
  let close: () => void;
  beforeAll(async () => {
    port = await new Promise<number>((done) => {
      const probe = createServer().listen(0, '127.0.0.1', () => {
        const { port: free } = probe.address() as { port: number };
        probe.close(() => done(free));
      });
    });
    const server = await listen(app.fetch, '127.0.0.1', port);
    close = () => server.close();
  });
  afterAll(() => close());

  const raw = (bytes: string): Promise<string> =>
    new Promise((done, reject) => {
      const socket = connectSocket(port, '127.0.0.1', () => socket.write(bytes));
      let all = '';
      socket.on('data', (chunk) => (all += String(chunk)));
      socket.on('close', () => done(all));
      socket.on('error', reject);
    });

  test.each<[string, string, number]>([
    ['no HTTP', 'what is this\r\n\r\n', 400],
    ['a broken header', 'GET / HTTP/1.1\r\nbad header\r\n\r\n', 400],
    ['a wrong length', 'POST /api/v1/profiles HTTP/1.1\r\nHost: localhost\r\nContent-Length: x\r\n\r\n', 400],
    ['headers without end', `GET / HTTP/1.1\r\nHost: localhost\r\nX: ${'x'.repeat(40_000)}\r\n\r\n`, 431],
  ])('%s', async (_what, bytes, status) => {
    const answer = await raw(bytes);
    expect(answer).toMatch(new RegExp(`^HTTP/1\\.1 ${status} `));
    expect(answer).toContain('Content-Type: application/problem+json');
    expect(answer).toContain('X-Content-Type-Options: nosniff');
    expect(JSON.parse(answer.slice(answer.indexOf('\r\n\r\n') + 4))).toMatchObject({ status, detail: expect.stringMatching(/\.$/) });
  });
  test('one that can be read is answered as ever', async () => {
    const status = await new Promise((done) =>
      rawRequest({ port, host: '127.0.0.1', path: '/api/v1/health' }, (answer) => done(answer.statusCode)).end(),
    );
    expect(status).toBe(200);
  });
});

describe('a database with nothing in it', () => {
  let empty: Awaited<ReturnType<typeof freshDatabase>>;
  let bare: ReturnType<typeof createApp>;
  beforeAll(async () => {
    empty = await freshDatabase('empty');
    await migrate(empty.sequelize);
    bare = createApp({ sequelize: empty.sequelize, log, siteOrigins: ['http://127.0.0.1:4711'] });
  });
  afterAll(() => empty.drop());

  test('every list is empty, the first limits can be set, and the site has a start page', async () => {
    const get = (path: string) => to(bare, ORIGIN)(`/api/v1${path}`);
    for (const path of [
      '/profiles',
      '/specimens',
      '/specimens/contents',
      '/texts',
      '/texts/published',
      '/assets',
      '/assets/folders',
      '/roles',
      '/likeness/figures',
    ])
      expect(await (await get(path)).json()).toEqual([]);
    expect(await (await get('/style-files')).json()).toEqual({ revision: 0, stylesheets: [], pageKinds: [] });
    expect(await (await get('/texts/census')).json()).toMatchObject({ documents: 0 });
    const limits = await get('/house-limits');
    expect([limits.status, limits.headers.get('etag'), await limits.json()]).toEqual([200, '"0"', { format: 'typikon-house/1' }]);
    const bareSite = createSite({ sequelize, log, applicationOrigins: [ORIGIN] });
    expect((await to(bareSite as never, 'http://127.0.0.1:4711')('/')).status).toBe(200);
    const saved = await to(bare, ORIGIN)(
      '/api/v1/house-limits',
      json('PUT', '{"format":"typikon-house/1","markup":{}}', { 'if-match': '"0"' }),
    );
    expect([saved.status, saved.headers.get('etag')]).toEqual([200, '"1"']);
  });
});
