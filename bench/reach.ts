// Measures what a change of rules costs to look at on a hundred thousand documents: how long it takes to know whom it can touch, how
// long until the answer is exact, what the index costs at a save and on the disk. A folder can be given to keep the documents in, so
// that they need not be written again.
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { mergePatch, type JsonObject } from '@typikon/core';
import { QueryTypes, type Sequelize } from 'sequelize';
import { pino } from 'pino';
import { createApp } from '../packages/server/src/app';
import { connect } from '../packages/server/src/db/connection';
import { migrate } from '../packages/server/src/db/migrate';
import { ProfileModel } from '../packages/server/src/db/models';
import { loadDocument } from '../packages/server/src/documents/repository';
import { ReachService } from '../packages/server/src/editions/reach';
import { FitService } from '../packages/server/src/fit/service';
import { indexSome, indexTexts } from '../packages/server/src/features/repository';
import { seedDemo } from '../packages/server/src/seed/demo';
import { growDemo } from '../packages/server/src/seed/grow';
import { startDatabase } from '../scripts/lib/database.mjs';
import { at } from '../scripts/lib/paths.mjs';

const COUNT = Number(process.env['TYPIKON_BENCH_DOCUMENTS'] ?? 100_000);
const SAVES = 100;

const markup = (rules: JsonObject): JsonObject => ({ markup: rules });
const elements = (rules: JsonObject): JsonObject => markup({ elements: rules });
const attribute = (element: string, name: string, test: JsonObject | null): JsonObject =>
  elements({ [element]: { attributes: { [name]: test } } });

/** Twenty kinds of change, each as a patch of a profile. */
const CHANGES: readonly [name: string, profile: string, patch: JsonObject][] = [
  ['nothing of the markup', 'story-desk', { purpose: 'Else' }],
  ['an element comes that nobody has', 'story-desk', elements({ ruby: {} })],
  ['an element goes that nobody has', 'story-desk', elements({ sup: null })],
  ['an element goes: hr', 'story-desk', elements({ hr: { outcome: 'drop' } })],
  ['an element goes: blockquote', 'story-desk', elements({ blockquote: { outcome: 'unwrap' } })],
  ['an element goes: figure', 'story-desk', elements({ figure: { outcome: 'unwrap' } })],
  ['an element goes: table', 'notices-desk', elements({ table: { outcome: 'drop' } })],
  ['an element is renamed: h2', 'notices-desk', elements({ h2: { outcome: 'rename', to: 'h3' } })],
  ['an element is let through: font', 'story-desk', elements({ font: { outcome: 'keep' } })],
  ['lists go', 'diary', elements({ ul: { outcome: 'unwrap' } })],
  ['a class goes', 'story-desk', attribute('p', 'class', { test: 'tokens', values: ['lead', 'note'] })],
  [
    'a class comes',
    'story-desk',
    attribute('p', 'class', { test: 'tokens', values: ['lead', 'note', 'fare-note', 'warning', 'MsoNormal'] }),
  ],
  ['an attribute goes: alt', 'story-desk', attribute('img', 'alt', null)],
  ['hosts of links', 'story-desk', attribute('a', 'href', { test: 'url', hosts: ['www.saltmarrow.example'] })],
  ['widths of pictures', 'story-desk', attribute('img', 'width', { test: 'integer', max: 700 })],
  ['targets of links', 'story-desk', attribute('a', 'target', { test: 'list', values: ['_top'] })],
  ['a limit of letters', 'tender-desk', markup({ limits: { letters: 900 } })],
  ['hard spaces', 'notices-desk', markup({ text: { hardSpaces: 'plain' } })],
  ['pictures need words', 'story-desk', elements({ img: { required: { alt: { otherwise: 'drop' } } } })],
  ['how characters are written', 'ferry-note', markup({ output: { characters: 'numeric' } })],
];

const median = (times: readonly number[]): number => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)]!;
const rows = <Row extends object>(sequelize: Sequelize, sql: string): Promise<Row[]> =>
  sequelize.query<Row>(sql, { type: QueryTypes.SELECT });

async function timed<T>(work: () => Promise<T>): Promise<[T, number]> {
  const begin = performance.now();
  return [await work(), performance.now() - begin];
}

async function fill(sequelize: Sequelize): Promise<void> {
  await migrate(sequelize, async () => void (await seedDemo(sequelize, at('demo'))));
  while ((await indexSome(sequelize, 200)) > 0);
  const [written, ms] = await timed(async () => {
    let last = 0;
    for (let now = await growDemo(sequelize, COUNT, 300); now > last; now = await growDemo(sequelize, COUNT, 300)) last = now;
    return last;
  });
  console.log(`${written.toLocaleString('en')} documents; what was missing of them was written in ${(ms / 1000).toFixed(0)} s`);
  await rows(sequelize, 'ANALYZE TABLE documents, document_fields, features, text_index, text_features');
}

async function sizes(sequelize: Sequelize): Promise<void> {
  const tables = await rows<{ name: string; bytes: number }>(
    sequelize,
    'SELECT table_name AS name, data_length + index_length AS bytes FROM information_schema.tables WHERE table_schema = DATABASE()',
  );
  const sum = (names: readonly string[]): number =>
    tables.filter(({ name }) => names.includes(name)).reduce((total, { bytes }) => total + Number(bytes), 0) / 1e6;
  const own = sum(['documents', 'document_fields']);
  const index = sum(['features', 'text_index', 'text_features']);
  console.log(`documents ${own.toFixed(0)} MB, index ${index.toFixed(0)} MB: ${(index / own).toFixed(2)} of the documents' own size`);
}

async function changes(sequelize: Sequelize): Promise<void> {
  const service = new ReachService(sequelize);
  const answers: number[] = [];
  let [asked, told] = [0, 0];
  for (const [name, id, patch] of CHANGES) {
    const document = mergePatch((await ProfileModel.findByPk(id))!.document, patch) as JsonObject;
    const change = { id, document, together: [], shared: [] };
    const [first, known] = await timed(() => service.look(change, '', 1));
    if (first.is !== 'looked') throw new Error(`${name}: ${first.detail}`);
    const [touched, exact] = await timed(async () => {
      let count = 0;
      for (let after = ''; ;) {
        const looking = await service.look(change, after, 1000);
        if (looking.is !== 'looked') throw new Error(looking.detail);
        count += looking.touched.length;
        if (looking.next === null) return count;
        after = looking.next;
      }
    });
    answers.push(known);
    asked += touched;
    told += first.sure;
    console.log(
      `${name.padEnd(34)} of ${String(first.texts).padStart(6)} can touch ${String(first.candidates).padStart(6)}${first.undecided.length > 0 ? '*' : ' '} after ${known.toFixed(0).padStart(5)} ms, ${String(first.sure).padStart(6)} surely; touches ${String(touched).padStart(6)}, ${exact.toFixed(0).padStart(6)} ms more`,
    );
  }
  console.log(`of ${asked} that are touched, ${told} are known before any is cleaned`);
  console.log(`whom it can touch: median ${median(answers).toFixed(0)} ms, at most ${Math.max(...answers).toFixed(0)} ms`);
}

/** What a save costs as the application does it, and how much of that is the index. */
async function saves(sequelize: Sequelize): Promise<void> {
  const found = await rows<{ id: string }>(sequelize, `SELECT id FROM documents WHERE id LIKE 'news-%' ORDER BY RAND(7) LIMIT ${SAVES}`);
  const app = createApp({ sequelize, log: pino({ level: 'silent' }), siteOrigins: [] });
  const ask = (method: string, path: string, headers: Record<string, string> = {}, body?: string) =>
    app.request(`http://127.0.0.1:4710/api/v1${path}`, {
      method,
      headers: { host: '127.0.0.1:4710', 'content-type': 'application/json', 'typikon-person': 'isa-wren', ...headers },
      ...(body === undefined ? {} : { body }),
    });
  const [whole, index, nothing]: [number[], number[], number[]] = [[], [], []];
  for (const { id } of found) {
    const etag = (await ask('GET', `/documents/${id}`)).headers.get('etag') ?? '';
    const before = (await loadDocument(id))!;
    const rich = before.fields.filter(({ profile }) => profile !== null);
    const added = `<p>Changed at ${Date.now()} with <a href="/n/${Date.now()}">more</a>.</p>`;
    const fields = Object.fromEntries(rich.map(({ key, value }) => [key, { value: `${value}${added}` }]));
    const [answer, save] = await timed(() =>
      Promise.resolve(ask('PUT', `/documents/${id}`, { 'if-match': etag }, JSON.stringify({ fields }))),
    );
    if (!answer.ok) throw new Error(await answer.text());
    const texts = (await loadDocument(id))!.fields
      .filter(({ profile }) => profile !== null)
      .map(({ key, value, revision }) => ({ documentId: id, fieldKey: key, revision, html: `${value}<p title="${id}">Again</p>` }));
    const [, indexed] = await timed(() => sequelize.transaction((transaction) => indexTexts(sequelize, texts, transaction)));
    const [, empty] = await timed(() =>
      sequelize.transaction((transaction) => sequelize.query('SELECT 1', { transaction, type: QueryTypes.SELECT })),
    );
    whole.push(save);
    index.push(indexed);
    nothing.push(empty);
  }
  const [save, of] = [median(whole), median(index) - median(nothing)];
  console.log(
    `a save takes ${save.toFixed(1)} ms, of which the index ${of.toFixed(1)} ms: ${(save / (save - of)).toFixed(2)} × one without`,
  );
}

async function fits(sequelize: Sequelize): Promise<void> {
  const service = new FitService(sequelize);
  for (const [name, whose] of [
    ['all texts', {}],
    ['texts of one profile, which stands beside', { profile: 'story-desk' }],
  ] as const) {
    const [fit, ms] = await timed(() => service.look(whose));
    if (fit === null) throw new Error('There is no such profile.');
    console.log(`fit of ${fit.texts.toLocaleString('en')} texts (${name}): ${(ms / 1000).toFixed(1)} s, ${fit.steps.length} steps`);
  }
}

void (async () => {
  const kept = process.argv[2];
  const folder = kept ?? mkdtempSync(join(tmpdir(), 'typikon-bench-'));
  mkdirSync(folder, { recursive: true });
  const database = (await startDatabase(folder)) as { env: Record<string, string>; stop(): Promise<void> };
  const { env } = database;
  const sequelize = connect({
    host: env['TYPIKON_DB_HOST'] ?? '127.0.0.1',
    port: Number(env['TYPIKON_DB_PORT']),
    name: env['TYPIKON_DB_NAME'] ?? 'typikon',
    user: env['TYPIKON_DB_USER'] ?? '',
    password: env['TYPIKON_DB_PASSWORD'] ?? '',
  });
  try {
    await fill(sequelize);
    await sizes(sequelize);
    await fits(sequelize);
    await changes(sequelize);
    await saves(sequelize);
  } finally {
    await sequelize.close();
    await database.stop();
    if (kept === undefined) rmSync(folder, { recursive: true, force: true });
  }
})();
