// Measures how long the list of documents takes to answer, for each thing it can be asked, beside a plain scan of all words.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { QueryTypes } from 'sequelize';
import { connect } from '../packages/server/src/db/connection';
import { migrate } from '../packages/server/src/db/migrate';
import { findDocuments, type DocumentQuery } from '../packages/server/src/documents/repository';
import { seedDemo } from '../packages/server/src/seed/demo';
import { startDatabase } from '../scripts/lib/database.mjs';
import { at } from '../scripts/lib/paths.mjs';

const COUNT = 100_000;
const TIMES = 15;
const WORDS = 'harbour pier notice ferry light buoy depth chart tide fog works berth steps quay slip beacon dredging painting survey'.split(
  ' ',
);

const median = (times: number[]): number => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)]!;

void (async () => {
  const folder = mkdtempSync(join(tmpdir(), 'typikon-bench-'));
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
    await migrate(sequelize, async () => void (await seedDemo(sequelize, at('demo'), 0)));
    const word = (n: number): string => `ELT(1 + MOD(seq * ${n}, ${WORDS.length}), ${WORDS.map((one) => `'${one}'`).join(', ')})`;
    await sequelize.query(
      `INSERT INTO documents (id, title, type_id, page_kind_id, created_at, changed_at, changed_by, words, profiles, revision)
       SELECT CONCAT('made-', seq), CONCAT(${word(7)}, ' ', ${word(11)}, ' ', seq), IF(MOD(seq, 3) = 0, 'notice', 'story'), 'news',
              NOW(3) - INTERVAL seq MINUTE, NOW(3) - INTERVAL seq MINUTE, IF(MOD(seq, 5) = 0, 'ned-orr', 'tom-hallow'),
              CONCAT_WS(' ', seq, REPEAT(CONCAT(${word(7)}, ' ', ${word(13)}, ' ', ${word(17)}, ' '), 20), IF(MOD(seq, 997) = 0, 'capsized', '')), IF(MOD(seq, 400) = 0, ',diary,', IF(MOD(seq, 2) = 0, ',story-desk,', ',notices-desk,')), 1
       FROM seq_1_to_${COUNT}`,
    );
    await sequelize.query('ANALYZE TABLE documents', { type: QueryTypes.SELECT });
    const questions: Record<string, Partial<DocumentQuery>> = {
      'the latest': {},
      'of a type': { type: 'notice' },
      'by a person': { by: 'ned-orr' },
      'with a profile': { profile: 'notices-desk' },
      'with a rare profile': { profile: 'diary' },
      'of a type and profile': { type: 'story', profile: 'story-desk' },
      'a rare word': { words: 'capsized' },
      'a usual word': { words: 'harbour' },
      'two usual words': { words: 'harbour pier' },
      'a word that begins so': { words: 'capsi' },
      'everything at once': { words: 'harbour', type: 'notice', by: 'ned-orr', profile: 'notices-desk' },
      'by title': { sort: 'title' },
      'of a type, by title': { type: 'story', sort: 'title' },
    };
    const scan: number[] = [];
    for (let time = 0; time < 3; time++) {
      const begin = performance.now();
      await sequelize.query("SELECT id FROM documents WHERE words LIKE '%capsized%'", { type: QueryTypes.SELECT });
      scan.push(performance.now() - begin);
    }
    console.log(`${COUNT.toLocaleString('en')} documents; a scan of all words takes ${median(scan).toFixed(0)} ms`);
    for (const [name, question] of Object.entries(questions)) {
      const times: number[] = [];
      let count = 0;
      for (let time = 0; time < TIMES; time++) {
        const begin = performance.now();
        ({ count } = await findDocuments(sequelize, { sort: 'changed', limit: 50, ...question }));
        times.push(performance.now() - begin);
      }
      console.log(`${name.padEnd(24)} ${String(count).padStart(7)} found  ${median(times).toFixed(1).padStart(7)} ms`);
    }
  } finally {
    await sequelize.close();
    await database.stop();
    rmSync(folder, { recursive: true, force: true });
  }
})();
