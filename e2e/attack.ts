import { fork, spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { startDatabase } from '../scripts/lib/database.mjs';
import { at } from '../scripts/lib/paths.mjs';
import { freePort } from '../scripts/lib/ports.mjs';
import { startServer } from '../scripts/lib/server.mjs';
import { Installation } from './support';

/** What an attack came to. */
export interface Figures {
  /** Small requests beside heavy ones: how many, and how long they took in milliseconds. */
  voice: { polls: number; heavy: number; p99Ms: number; worstMs: number; worstBeside: string; unanswered: number };
  /** Resident memory of the server in MB: before, at the most, and at the end. */
  memory: { beforeMb: number; peakMb: number; afterMb: number };
  requests: { sent: number; failed: string[] };
  races: { rounds: number; wrong: string[] };
  kills: { starts: number; saves: number; wrong: string[] };
  /** Databases that were killed while drafts were saved: what was said of the last save, and whether it was true. */
  lost: { kills: number; unknown: number; wrong: string[] };
  /** Hostile stylesheets: how long the slowest took, in milliseconds. */
  styles: { sheets: number; refused: number; worstMs: number; wrong: string[] };
  files: { asked: number; wrong: string[] };
  commands: { calls: number; worstS: number; wrong: string[] };
}

export interface Plan {
  seed: number;
  /** Requests made from the description of the API. */
  requests: number;
  /** Rounds of changes at once. */
  races: number;
  /** Starts that are killed while they make the database, and saves that are killed. */
  kills: number;
  /** Calls of the command line. */
  commands: number;
  /** Whether a call that takes too long is wrong; on a machine with other work it may not be. */
  isTimed: boolean;
  /** Every how manyth of the heavy requests is made. */
  every: number;
  /** So long the server is given to come to rest, in seconds. */
  calmS: number;
  say: (line: string) => void;
}

interface Parameter {
  name: string;
  in: string;
  schema?: Schema;
}
interface Schema {
  type?: string | string[];
  properties?: Record<string, Schema>;
  items?: Schema;
  enum?: unknown[];
  $ref?: string;
  anyOf?: Schema[];
  additionalProperties?: Schema | boolean;
}
interface Operation {
  parameters?: Parameter[];
  requestBody?: { content: Record<string, { schema?: Schema }> };
}
interface Description {
  paths: Record<string, Record<string, Operation>>;
  components: { schemas: Record<string, Schema> };
}

const pause = (ms: number) => new Promise((done) => setTimeout(done, ms));

/** How much memory the server holds, in MB, once its background work is done and threads with nothing to do have ended. */
async function calm(typikon: Installation, atMostS: number): Promise<number> {
  const begin = Date.now();
  for (let idle = 0; idle < 3 && Date.now() - begin < atMostS * 1000;) {
    const before = typikon.processorMs();
    await pause(2500);
    idle = typikon.processorMs() - before < 200 ? idle + 1 : 0;
  }
  return typikon.memoryMb();
}

/** Attacks a server of its own on loopback with everything that callers, authors and crashes can do to it. */
export async function attack(plan: Plan): Promise<Figures> {
  const typikon = await Installation.start();
  try {
    const beforeMb = await calm(typikon, plan.calmS);
    let peakMb = beforeMb;
    const watch = setInterval(() => (peakMb = Math.max(peakMb, typikon.memoryMb())), 100);
    const voice = await besideHeavy(typikon, plan);
    const requests = await fromDescription(typikon, plan);
    const races = await atOnce(typikon, plan);
    const styles = await hostileStyles(typikon);
    const files = await hostileFiles(typikon);
    const afterMb = await calm(typikon, plan.calmS);
    clearInterval(watch);
    const memory = { beforeMb, peakMb, afterMb };
    const kills = await killed(plan);
    const lost = await databaseLost(plan);
    const commands = await hostileCommands(plan);
    return { voice, memory, requests, races, kills, lost, styles, files, commands };
  } finally {
    await typikon.stop();
  }
}

/** One line for each law. */
export function linesOf({ voice, memory, requests, races, kills, lost, styles, files, commands }: Figures): string[] {
  const list = (wrong: readonly string[]): string => (wrong.length === 0 ? '' : `: ${[...new Set(wrong)].slice(0, 5).join(' | ')}`);
  return [
    `1 voice: ${voice.polls} small requests beside ${voice.heavy} heavy ones, p99 ${voice.p99Ms} ms, worst ${voice.worstMs} ms (beside ${voice.worstBeside}), ${voice.unanswered} unanswered`,
    `2 stylesheets: ${styles.sheets} sent, ${styles.refused} refused with a sentence, the slowest ${styles.worstMs} ms, ${styles.wrong.length} wrong${list(styles.wrong)}`,
    `3 memory: ${memory.beforeMb} MB before, ${memory.peakMb} MB at the most, ${memory.afterMb} MB after`,
    `4 kills: ${kills.starts} starts and ${kills.saves} saves killed, ${kills.wrong.length} wrong${list(kills.wrong)}`,
    `5 at once: ${races.rounds} rounds, ${races.wrong.length} wrong${list(races.wrong)}`,
    `6 requests: ${requests.sent} sent, ${requests.failed.length} answered wrongly${list(requests.failed)}`,
    `7 lost at a save: ${lost.kills} databases killed, ${lost.unknown} answers that nobody knows, ${lost.wrong.length} wrong${list(lost.wrong)}`,
    `8 files: ${files.asked} asked for, ${files.wrong.length} wrong${list(files.wrong)}`,
    `9 command line: ${commands.calls} calls, the slowest ${commands.worstS} s, ${commands.wrong.length} wrong${list(commands.wrong)}`,
  ];
}

const jsonHeaders = { 'content-type': 'application/json' };

/** The heaviest that each route can be asked for, while another process asks for something small. */
async function besideHeavy(typikon: Installation, { every, say }: Plan): Promise<Figures['voice']> {
  const api = `${typikon.address}/api/v1`;
  const poller: ChildProcess = fork(at('e2e', 'poll.mjs'), [`${api}/health`]);
  const texts = (await (await fetch(`${api}/texts`)).json()) as { document: string; field: string }[];
  const { document: id, field } = texts[0]!;
  const { fields } = (await (await fetch(`${api}/documents/${id}`)).json()) as { fields: { key: string; value: string }[] };
  const first = fields.find(({ key }) => key === field)!.value;
  const { stylesheets: sheets } = (await (await fetch(`${api}/style-files`)).json()) as { stylesheets: { css: string }[] };
  const put = async (html: string) => {
    const now = await fetch(`${api}/documents/${id}`);
    await now.arrayBuffer();
    return fetch(`${api}/documents/${id}`, {
      method: 'PUT',
      headers: { ...jsonHeaders, 'if-match': now.headers.get('etag')! },
      body: JSON.stringify({ fields: { [field]: { value: html } } }),
    });
  };
  const style = async (css: string) => {
    const { stylesheets } = (await (await fetch(`${api}/style-files`)).json()) as { stylesheets: object[] };
    return fetch(`${api}/style-files/changes`, {
      method: 'POST',
      headers: jsonHeaders,
      body: JSON.stringify({ stylesheets: [{ ...stylesheets[0], css }] }),
    });
  };
  const proof = (html: string) => {
    const form = new FormData();
    form.set('html', html);
    form.set('profile', 'story-desk');
    return fetch(`${typikon.siteAddress}/proof`, { method: 'POST', body: form });
  };
  const specimen = (text: string, name: string) =>
    fetch(`${api}/specimens`, {
      method: 'POST',
      headers: jsonHeaders,
      body: `{"format":"typikon-specimen/1","id":"${name}","name":"Large","profile":"diary","arrives":"paste","payload":{"types":{"text/html":"${text}"}}}`,
    });
  const nots = (n: number) => Array.from({ length: n }, (_unused, i) => `:not(.x${i}){color:red}`).join('');
  const heavy: readonly (readonly [name: string, act: () => Promise<Response>])[] = [
    ['a text of 390 000 headings', () => put('<h2>x</h2>'.repeat(390_000))],
    ['a text of misnested tags', () => put('<b><i></b>'.repeat(66_000))],
    ['a text of 100 000 headings', () => put('<h2>x</h2>'.repeat(99_000))],
    ['a page of that', () => fetch(`${typikon.siteAddress}/documents/${id}`)],
    ['all that is published', () => fetch(`${api}/texts/published`)],
    ['the census', () => fetch(`${api}/texts/census`)],
    ['a deep text', () => put('<div>'.repeat(190_000))],
    ['a text of 4 MB without a tag', () => put('x & y < z '.repeat(390_000).replaceAll('<', '&lt;').slice(0, 3_900_000))],
    ['a proof of 190 000 tags', () => proof('<p class="x" style="color:red">'.repeat(190_000))],
    ['a stylesheet of nested selectors', () => style(`.a,.b{${'& &,& &{'.repeat(24)}color:red${'}'.repeat(25)}`)],
    ['a stylesheet of 20 000 :not()', () => style(nots(20_000))],
    ['a stylesheet of 1 MB', () => style(nots(60_000).slice(0, 999_000))],
    ['a specimen of 15 MB', () => specimen('\\"'.repeat(7_500_000), 'large-one')],
    ['JSON of millions of values', () => specimen('"],"x":['.padEnd(9_000_000, '[],'), 'large-two')],
    ['JSON without end', () => fetch(`${api}/profiles`, { method: 'POST', headers: jsonHeaders, body: '['.repeat(1_000_000) })],
    ['a picture that is none', () => fetch(`${api}/assets?title=x`, { method: 'POST', body: new Uint8Array(8_000_000).fill(0x89) })],
    [
      'all lists at once',
      async () => {
        const answers = await Promise.all(
          ['profiles', 'specimens', 'specimens/contents', 'assets', 'style-files', 'documents'].map((path) => fetch(`${api}/${path}`)),
        );
        await Promise.all(answers.map((answer) => answer.arrayBuffer()));
        return answers.find(({ ok }) => !ok) ?? new Response(null, { status: 200 });
      },
    ],
  ];
  const chosen = heavy.filter((_one, at) => at % every === 0);
  for (const [name, act] of chosen) {
    poller.send({ type: 'mark', name });
    const begin = Date.now();
    const answer = await act();
    const text = answer.body === null ? '' : await answer.text();
    say(
      `  ${name}: ${answer.status} after ${Date.now() - begin} ms${answer.ok ? '' : `, ${(JSON.parse(text) as { detail: string }).detail}`}`,
    );
    poller.send({ type: 'mark', name: `what follows from ${name}` });
    await pause(500);
  }
  // What follows is asked of the site as it was.
  await put(first);
  await style(sheets[0]!.css);
  const found = await new Promise<Record<string, number[]>>((done) => {
    poller.once('message', (message) => done(message as Record<string, number[]>));
    poller.send({ type: 'end' });
  });
  delete found[''];
  const all = Object.entries(found).flatMap(([name, list]) => list.map((ms) => ({ name, ms })));
  const answered = all.filter(({ ms }) => ms >= 0).sort((a, b) => a.ms - b.ms);
  const worst = answered[answered.length - 1]!;
  return {
    polls: all.length,
    heavy: chosen.length,
    p99Ms: answered[Math.floor(answered.length * 0.99)]!.ms,
    worstMs: worst.ms,
    worstBeside: worst.name,
    unanswered: all.length - answered.length,
  };
}

/** Strings that have broken servers before. */
const TEXTS = [
  '',
  ' ',
  'x',
  'diary',
  'house',
  '"1"',
  '*',
  '0',
  '-1',
  '1e999',
  'NaN',
  '\u0000',
  '\ud83d',
  '😀',
  '../../etc/passwd',
  "' OR 1=1 --",
  '%',
  '<script>alert(1)</script>',
  'x'.repeat(300),
  '/markup',
  'constructor',
  '__proto__',
  '\r\nX-Injected: 1',
];

/** Requests made from the description of the API: by its schemas, beside them, and of any bytes. */
async function fromDescription(typikon: Installation, { seed, requests, say }: Plan): Promise<Figures['requests']> {
  const description = (await (await fetch(`${typikon.address}/api/v1/openapi.json`)).json()) as Description;
  const operations = Object.entries(description.paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, operation]) => ({ path, method: method.toUpperCase(), operation })),
  );
  const text = fc.constantFrom(...TEXTS);
  const valueOf = (schema: Schema | undefined, depth = 0): fc.Arbitrary<unknown> => {
    if (schema === undefined || depth > 5) return fc.jsonValue({ maxDepth: 2 });
    if (schema.$ref !== undefined) return valueOf(description.components.schemas[schema.$ref.split('/').at(-1)!], depth + 1);
    if (schema.enum !== undefined) return fc.constantFrom(...schema.enum);
    if (schema.anyOf !== undefined) return fc.oneof(...schema.anyOf.map((one) => valueOf(one, depth + 1)));
    const [type] = [schema.type ?? 'object'].flat();
    const right: fc.Arbitrary<unknown> =
      type === 'string'
        ? text
        : type === 'integer' || type === 'number'
          ? fc.oneof(fc.integer(), fc.constantFrom(0, 1, -1, 2 ** 53, 1e308))
          : type === 'boolean'
            ? fc.boolean()
            : type === 'array'
              ? fc.array(valueOf(schema.items, depth + 1), { maxLength: 3 })
              : schema.properties !== undefined
                ? fc.record(Object.fromEntries(Object.entries(schema.properties).map(([name, one]) => [name, valueOf(one, depth + 1)])), {
                    requiredKeys: [],
                  })
                : fc.dictionary(text, fc.jsonValue({ maxDepth: 2 }), { maxKeys: 3 });
    return fc.oneof({ weight: 8, arbitrary: right }, { weight: 1, arbitrary: fc.constantFrom(null, 1, 'x', [], {}) });
  };
  const operation = fc.constantFrom(...operations).chain(({ path, method, operation: { parameters = [], requestBody } }) =>
    fc.record({
      method: fc.oneof(
        { weight: 9, arbitrary: fc.constant(method) },
        { weight: 1, arbitrary: fc.constantFrom('PUT', 'DELETE', 'POST', 'PATCH', 'HEAD') },
      ),
      path: fc.tuple(...parameters.map(() => text)).map((values) => {
        let filled = path;
        const query = new URLSearchParams();
        parameters.forEach(({ name, in: where }, index) => {
          if (where === 'path') filled = filled.replace(`{${name}}`, encodeURIComponent(wellFormed(values[index]!)) || 'x');
          else if (where === 'query' && index % 2 === 0) query.set(name, wellFormed(values[index]!));
        });
        return `${filled}${query.size > 0 ? `?${query}` : ''}`;
      }),
      ifMatch: fc.constantFrom('"1"', '"2"', '*', 'x', undefined),
      type: fc.constantFrom(
        'application/json',
        'application/json',
        'application/json',
        'text/plain',
        'multipart/form-data',
        'application/octet-stream',
      ),
      body:
        requestBody === undefined
          ? fc.constant(undefined)
          : fc.oneof(
              { weight: 5, arbitrary: valueOf(Object.values(requestBody.content)[0]?.schema).map((value) => JSON.stringify(value)) },
              { weight: 1, arbitrary: fc.uint8Array({ maxLength: 300 }) },
              { weight: 1, arbitrary: fc.constantFrom('null', '[]', '{', '{"a":'.repeat(3000), '"\\ud83d"', '1'.repeat(5000)) },
            ),
    }),
  );
  const failed: string[] = [];
  let sent = 0;
  const all = fc.sample(operation, { seed, numRuns: requests });
  const send = async (one: (typeof all)[number]): Promise<void> => {
    const hasBody = one.body !== undefined && !['GET', 'HEAD'].includes(one.method);
    const answer = await fetch(`${typikon.address}${one.path}`, {
      method: one.method,
      headers: { 'content-type': one.type, ...(one.ifMatch === undefined ? {} : { 'if-match': one.ifMatch }) },
      ...(hasBody ? { body: one.body as string } : {}),
    });
    sent++;
    const isProblem = answer.headers.get('content-type')?.startsWith('application/problem+json') === true;
    const body = await answer.text();
    const wrong =
      answer.status >= 500
        ? `${answer.status}`
        : answer.status >= 400 && !isProblem
          ? 'no problem details'
          : answer.headers.get('x-content-type-options') !== 'nosniff'
            ? 'no security headers'
            : '';
    if (wrong !== '') failed.push(`${one.method} ${one.path.slice(0, 80)} ${wrong} ${String(one.body).slice(0, 80)} ${body.slice(0, 100)}`);
  };
  for (let index = 0; index < all.length; index += 8) {
    await Promise.all(all.slice(index, index + 8).map(send));
    if (index % 2000 === 0 && index > 0) say(`  ${index} requests sent`);
  }
  return { sent, failed };
}

const wellFormed = (text: string): string =>
  text.replace(/[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g, '\ufffd');

/** Changes of the same at once: each is whole or refused, and exactly one of those that began from the same is first. */
async function atOnce(typikon: Installation, { races }: Plan): Promise<Figures['races']> {
  const api = `${typikon.address}/api/v1`;
  const wrong: string[] = [];
  for (let round = 0; round < races; round++) {
    const profile = (await (await fetch(`${api}/profiles/diary`)).json()) as { document: object; revision: number };
    const saves = await Promise.all(
      Array.from({ length: 6 }, (_unused, n) =>
        fetch(`${api}/profiles/diary/draft`, {
          method: 'PUT',
          headers: { ...jsonHeaders, 'if-match': `"${profile.revision}"` },
          body: JSON.stringify({ ...profile.document, purpose: `Round ${round}, ${n}` }),
        }),
      ),
    );
    const statuses = saves.map(({ status }) => status).sort();
    if (statuses[0] !== 200 || statuses.slice(1).some((status) => status !== 412)) wrong.push(`saves of one draft: ${statuses.join(' ')}`);
    const files = (await (await fetch(`${api}/style-files`)).json()) as { stylesheets: { css: string }[]; pageKinds: object[] };
    const small = files.stylesheets.filter(({ css }) => css.length < 50_000).slice(0, 4);
    const changes = await Promise.all(
      Array.from({ length: 6 }, (_unused, n) =>
        fetch(`${api}/style-files/changes`, {
          method: 'POST',
          headers: jsonHeaders,
          body: JSON.stringify({
            stylesheets: n % 2 === 0 ? small : [...small].reverse(),
            pageKinds: n % 2 === 0 ? files.pageKinds : [...files.pageKinds].reverse(),
          }),
        }),
      ),
    );
    const stored = changes.map(({ status }) => status).sort();
    if (stored[0] !== 200 || stored.slice(1).some((status) => ![409, 412, 503].includes(status)))
      wrong.push(`changes of styles: ${stored.join(' ')}`);
  }
  return { rounds: races, wrong };
}

/** Kills while the database is made, and while drafts are saved: it starts again, and what was acknowledged is there. */
async function killed({ kills, seed, say }: Plan): Promise<Figures['kills']> {
  const wrong: string[] = [];
  const [dice] = fc.sample(fc.array(fc.nat(999), { minLength: kills * 2, maxLength: kills * 2 }), { seed, numRuns: 1 });
  let saves = 0;
  for (let n = 0; n < kills; n++) {
    const folder = mkdtempSync(join(tmpdir(), 'typikon-kill-'));
    const database = await startDatabase(folder);
    const [port, sitePort] = [await freePort(), await freePort()];
    const env = { ...database.env, TYPIKON_SITE_PORT: String(sitePort), TYPIKON_DEMO_DIR: at('demo'), TYPIKON_DEMO_DOCUMENTS: '3' };
    try {
      // The whole first start takes about two seconds.
      const child = fork(at('packages/server/dist/main.js'), { env: { ...process.env, ...env, TYPIKON_PORT: String(port) }, silent: true });
      await pause(500 + dice![n]! * 1.5);
      child.kill('SIGKILL');
      await new Promise((done) => child.once('exit', done));
      const server = await startServer({ port, env });
      const api = `http://127.0.0.1:${port}/api/v1`;
      const profiles = (await (await fetch(`${api}/profiles`)).json()) as unknown[];
      if (profiles.length !== 7) wrong.push(`${profiles.length} profiles after a kill`);
      // Drafts are saved as fast as they can be until the server is killed.
      let { document, revision } = (await (await fetch(`${api}/profiles/reply`)).json()) as { document: object; revision: number };
      let kill: NodeJS.Timeout | null = null;
      try {
        for (;;) {
          const answer = await fetch(`${api}/profiles/reply/draft`, {
            method: 'PUT',
            headers: { ...jsonHeaders, 'if-match': `"${revision}"` },
            body: JSON.stringify({ ...document, purpose: `Save ${revision}` }),
          });
          if (answer.status !== 200) break;
          ({ document, revision } = (await answer.json()) as { document: object; revision: number });
          saves++;
          kill ??= setTimeout(() => process.kill(server.pid, 'SIGKILL'), dice![kills + n]);
        }
      } catch {
        // It was killed.
      }
      if (kill !== null) clearTimeout(kill);
      await server.stop();
      const again = await startServer({ port, env });
      const now = (await (await fetch(`${api}/profiles/reply`)).json()) as { document: { purpose: string }; revision: number };
      // One more may be stored than was acknowledged.
      if (now.revision < revision || now.revision > revision + 1) wrong.push(`revision ${now.revision} after ${revision} was acknowledged`);
      await again.stop();
    } catch (error) {
      wrong.push((error as Error).message.split('\n')[0]!);
    } finally {
      await database.stop();
      rmSync(folder, { recursive: true, force: true });
    }
    if (n % 5 === 4) say(`  ${n + 1} starts killed`);
  }
  return { starts: kills, saves, wrong };
}

/** Stylesheets of every shape that has stopped a reader: each is stored or refused with a sentence, and the site still answers. */
async function hostileStyles(typikon: Installation): Promise<Figures['styles']> {
  const api = `${typikon.address}/api/v1`;
  const id = 'attack';
  const many = (n: number, make: (i: number) => string): string => Array.from({ length: n }, (_unused, i) => make(i)).join('');
  const shapes: readonly string[] = [
    `.a,.b{${'& &,& &{'.repeat(24)}color:red${'}'.repeat(25)}`,
    'p{&'.repeat(100_000),
    many(20_000, (i) => `:not(.x${i}){color:red}`),
    '@media screen{'.repeat(50_000),
    `@media ${'(width>1px) and '.repeat(20_000)}(width>1px){a{color:red}}`,
    many(20_000, (i) => `@layer l${i};`),
    `p{${'a:hover{color:red}'.repeat(20_000)}}`,
    `${':is('.repeat(60)}a${')'.repeat(60)}{color:red}`,
    `:root{${many(5000, (i) => `--v${i}:var(--v${i + 1}) var(--v${i + 1});`)}}p{color:var(--v0)}`,
    `${'a '.repeat(100_000)}{color:red}`,
    `${'@import "attack.css";'.repeat(1000)}`,
    'a{color:'.repeat(100_000),
    '/*'.repeat(300_000),
    'a{content:"'.repeat(80_000),
  ];
  const wrong: string[] = [];
  let [refused, worstMs, revision] = [0, 0, null as number | null];
  for (const css of shapes) {
    const begin = Date.now();
    const answer = await fetch(`${api}/style-files/changes`, {
      method: 'POST',
      headers: jsonHeaders,
      body: JSON.stringify({ stylesheets: [{ id, purpose: '', media: '', css, revision }] }),
    });
    worstMs = Math.max(worstMs, Date.now() - begin);
    const body = (await answer.json()) as { stylesheets?: { id: string; revision: number }[]; detail?: string };
    if (answer.status === 200) revision = body.stylesheets!.find((sheet) => sheet.id === id)!.revision;
    else if (answer.status === 422 && /line \d+: /.test(body.detail ?? '')) refused++;
    else wrong.push(`${css.slice(0, 30)}: ${answer.status} ${body.detail}`);
  }
  return { sheets: shapes.length, refused, worstMs, wrong };
}

/** Files that are not there, or that nobody may have. */
async function hostileFiles(typikon: Installation): Promise<Figures['files']> {
  const wrong: string[] = [];
  const none = [
    '/main-ZZZZZZZZ.js',
    '/media/none.woff2',
    '/.sources',
    '/%2esources',
    '/x/..%2f..%2fpackage.json',
    '/.git/config',
    '/..%5c.sources',
  ];
  for (const path of none) {
    const answer = await fetch(`${typikon.address}${path}`);
    const kept = answer.headers.get('cache-control') ?? '';
    if (answer.status !== 404 || kept.includes('immutable')) wrong.push(`${path}: ${answer.status}, ${kept}`);
    await answer.arrayBuffer();
  }
  const form = (headers: Record<string, string>) =>
    fetch(`${typikon.siteAddress}/proof`, { method: 'POST', headers, body: new URLSearchParams({ html: 'x' }) });
  const foreign: Record<string, string>[] = [{ origin: 'http://other.example' }, { origin: 'null', 'sec-fetch-site': 'cross-site' }];
  for (const headers of foreign) {
    const answer = await form(headers);
    if (answer.status !== 403) wrong.push(`a proof from ${headers['origin']}: ${answer.status}`);
    await answer.arrayBuffer();
  }
  return { asked: none.length + 2, wrong };
}

/** Kills the database while drafts are saved: what the last answer said of its save must be what is found afterwards. */
async function databaseLost({ kills, seed }: Plan): Promise<Figures['lost']> {
  const wrong: string[] = [];
  let unknown = 0;
  const [dice] = fc.sample(fc.array(fc.nat(300), { minLength: kills, maxLength: kills }), { seed, numRuns: 1 });
  const folder = mkdtempSync(join(tmpdir(), 'typikon-lost-'));
  let database = await startDatabase(folder);
  const [port, sitePort] = [await freePort(), await freePort()];
  const settings = { TYPIKON_SITE_PORT: String(sitePort), TYPIKON_DEMO_DIR: at('demo'), TYPIKON_DEMO_DOCUMENTS: '3' };
  const api = `http://127.0.0.1:${port}/api/v1`;
  try {
    for (let n = 0; n < kills; n++) {
      const server = await startServer({ port, env: { ...database.env, ...settings } });
      let { document, revision } = (await (await fetch(`${api}/profiles/reply`)).json()) as { document: object; revision: number };
      let said: { status: number; outcome?: string; detail?: string } = { status: 0 };
      let kill: NodeJS.Timeout | null = null;
      for (;;) {
        const answer = await fetch(`${api}/profiles/reply/draft`, {
          method: 'PUT',
          headers: { ...jsonHeaders, 'if-match': `"${revision}"` },
          body: JSON.stringify({ ...document, purpose: `Save ${revision} of round ${n}` }),
        });
        const body = (await answer.json()) as { document: object; revision: number; outcome?: string; detail?: string };
        if (answer.status !== 200) {
          said = { status: answer.status, ...body };
          break;
        }
        ({ document, revision } = body);
        kill ??= setTimeout(() => process.kill(database.pid, 'SIGKILL'), dice![n]);
      }
      await server.stop();
      await database.stop();
      database = await startDatabase(folder);
      const again = await startServer({ port, env: { ...database.env, ...settings } });
      const now = (await (await fetch(`${api}/profiles/reply`)).json()) as { revision: number };
      await again.stop();
      if (said.outcome === 'unknown') unknown++;
      else if (now.revision !== revision) wrong.push(`“${said.detail}”, and revision ${now.revision} after ${revision}`);
      if (said.status !== 503) wrong.push(`${said.status} ${said.detail}`);
      if (now.revision < revision || now.revision > revision + 1) wrong.push(`revision ${now.revision} after ${revision} was acknowledged`);
    }
  } finally {
    await database.stop();
    rmSync(folder, { recursive: true, force: true });
  }
  return { kills, unknown, wrong };
}

/** Calls of the command line with whatever it may be given: a line and an exit code, in time. */
async function hostileCommands({ commands, isTimed, seed }: Plan): Promise<Figures['commands']> {
  const folder = mkdtempSync(join(tmpdir(), 'typikon-call-'));
  const file = (name: string, text: string): string => {
    writeFileSync(join(folder, name), text);
    return join(folder, name);
  };
  const profile = at('demo', 'profiles', 'story-desk.json');
  const profiles = [
    profile,
    file('deep.json', `${'['.repeat(200_000)}${']'.repeat(200_000)}`),
    file('null.json', 'null'),
    file('cut.json', '{"a":'),
    folder,
    join(folder, 'none.json'),
  ];
  const contents = [
    file('headings.html', '<h2>x</h2>'.repeat(20_000)),
    file('deep.html', '<div>'.repeat(60_000)),
    file('misnested.html', '<b><i></b>'.repeat(30_000)),
    file('plain.txt', 'x & y < z > '.repeat(50_000)),
    file('null.jsonl', 'null\n[]\n{"html":1}\n'),
    file('bytes.bin', String.fromCharCode(...Array.from({ length: 5000 }, (_unused, i) => i % 300))),
    file('empty.html', ''),
    join(folder, 'none.html'),
  ];
  const sheets = [
    file('nested.css', `.a,.b{${'& &,& &{'.repeat(24)}color:red${'}'.repeat(25)}`),
    file('nots.css', Array.from({ length: 8000 }, (_unused, i) => `:not(.x${i}){color:red}`).join('')),
    file('small.css', 'h2{color:red} .x h2{color:blue}'),
    file('open.css', 'p{&'.repeat(50_000)),
    join(folder, 'none.css'),
  ];
  const content = fc.constantFrom(...contents);
  const sheet = fc.constantFrom(...sheets);
  const call = fc.oneof(
    fc
      .tuple(
        fc.constantFrom('clean', 'paste'),
        fc.constantFrom(...profiles, profile, profile, profile),
        fc.constantFrom('--json', '--jsonl', ''),
        content,
      )
      .map(([name, by, form, of]) => [name, '--profile', by, ...(form === '' ? [] : [form]), of]),
    fc.tuple(sheet, content).map(([by, of]) => ['cascade', '--sheets', by, '--properties', 'color', '--jsonl', of]),
    fc.tuple(sheet, sheet, content).map(([editor, page, of]) => ['likeness', '--editor', editor, '--page', page, '--json', of]),
    fc.tuple(fc.constantFrom(...profiles), content).map(([by, of]) => ['check', '--profile', by, of]),
    fc.array(fc.constantFrom('--profile', '--json', '--nothing', 'x', '', '-h', '--house'), { maxLength: 4 }),
  );
  const wrong: string[] = [];
  let worstS = 0;
  try {
    for (const args of fc.sample(call, { seed, numRuns: commands })) {
      const size = args.reduce((sum, path) => sum + (existsSync(path) && statSync(path).isFile() ? statSync(path).size : 0), 0);
      const begin = Date.now();
      const { status, stderr } = await new Promise<{ status: number | null; stderr: string }>((done) => {
        const child = spawn(process.execPath, [at('packages/cli/bin/typikon.mjs'), ...args], { stdio: ['ignore', 'ignore', 'pipe'] });
        let text = '';
        child.stderr.on('data', (chunk) => (text += String(chunk)));
        child.on('close', (code) => done({ status: code, stderr: text }));
      });
      const tookS = (Date.now() - begin) / 1000;
      worstS = Math.max(worstS, Math.round(tookS * 10) / 10);
      // What is left out of a stylesheet is told in lines of its own, beside what comes out.
      const isLine = status !== 2 || /^typikon: [^\n]+\n$/.test(stderr);
      if (status === null || status > 2 || !isLine || /\n\s+at /.test(stderr))
        wrong.push(`${args.join(' ').slice(0, 120)}: ${status} ${stderr.slice(0, 120)}`);
      // Some seconds more for a process that begins on a busy machine.
      if (isTimed && tookS > 14 + (3 * size) / 1e6) wrong.push(`${args.join(' ').slice(0, 120)}: ${tookS} s`);
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
  return { calls: commands, worstS, wrong };
}
