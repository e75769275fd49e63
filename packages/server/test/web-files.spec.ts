import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliCompressSync, brotliDecompressSync, gunzipSync, gzipSync } from 'node:zlib';
import { Hono } from 'hono';
import { applicationHeaders } from '../src/security';
import { webFiles } from '../src/web-files';

const SCRIPT = `console.log(${JSON.stringify('harbour '.repeat(400))})`;
let folder: string;
const ask = (path: string, encodings?: string) =>
  webFiles(folder).request(`http://127.0.0.1${path}`, encodings === undefined ? {} : { headers: { 'accept-encoding': encodings } });
const bytes = async (response: Response) => Buffer.from(await response.arrayBuffer());

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'typikon-files-'));
  mkdirSync(join(folder, 'media'));
  writeFileSync(join(folder, 'index.html'), '<!doctype html><title>Typikon</title>');
  writeFileSync(join(folder, 'main-ABCDEFGH.js'), SCRIPT);
  writeFileSync(join(folder, 'main-ABCDEFGH.js.br'), brotliCompressSync(SCRIPT));
  writeFileSync(join(folder, 'main-ABCDEFGH.js.gz'), gzipSync(SCRIPT));
  writeFileSync(join(folder, 'worker-ABCDEFGH.js'), SCRIPT);
  writeFileSync(join(folder, 'media', 'letters.woff2'), 'font');
});
afterAll(() => rmSync(folder, { recursive: true }));

test.each([
  ['br, gzip, deflate', 'br', brotliDecompressSync],
  ['gzip', 'gzip', gunzipSync],
  ['', null, (all: Buffer) => all],
] as const)('a browser that takes “%s” gets %s', async (encodings, encoding, decode) => {
  const response = await ask('/main-ABCDEFGH.js', encodings);
  expect(response.status).toBe(200);
  expect(response.headers.get('content-encoding')).toBe(encoding);
  expect(response.headers.get('content-type')).toContain('javascript');
  expect(response.headers.get('cache-control')).toBe('public, max-age=31536000, immutable');
  if (encoding !== null) expect(response.headers.get('vary')).toContain('Accept-Encoding');
  const body = await bytes(response);
  expect(decode(body).toString()).toBe(SCRIPT);
  if (encoding !== null) expect(body.length).toBeLessThan(SCRIPT.length / 10);
});

test('a file that has no shorter form comes as it is', async () => {
  const response = await ask('/media/letters.woff2', 'br, gzip');
  expect([response.headers.get('content-encoding'), (await bytes(response)).toString()]).toEqual([null, 'font']);
});

test('an address of the application is its start page, asked for anew each time', async () => {
  const response = await ask('/profiles/story-desk', 'br');
  expect([response.status, response.headers.get('cache-control')]).toEqual([200, 'no-cache']);
  expect(await response.text()).toContain('<title>Typikon</title>');
});

test('a file that is not there is not the start page', async () => expect((await ask('/main-HGFEDCBA.js', 'br')).status).toBe(404));

test('the policy of a page comes with pages and workers, and not with what a page is made of', async () => {
  const app = new Hono().use(applicationHeaders(['http://127.0.0.1:4711'])).route('/', webFiles(folder));
  const policyOf = async (path: string) => (await app.request(`http://127.0.0.1${path}`)).headers.get('content-security-policy');
  for (const path of ['/', '/profiles/story-desk', '/worker-ABCDEFGH.js', '/main-HGFEDCBA.js'])
    expect(await policyOf(path)).toContain("script-src 'self'");
  for (const path of ['/main-ABCDEFGH.js', '/media/letters.woff2']) {
    const { headers } = await app.request(`http://127.0.0.1${path}`);
    expect([headers.get('content-security-policy'), headers.get('x-content-type-options')]).toEqual([null, 'nosniff']);
  }
});
