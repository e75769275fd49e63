import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { QueryTypes, type Sequelize } from 'sequelize';
import { connect } from '../src/db/connection';
import { migrate } from '../src/db/migrate';
import { MIGRATIONS } from '../src/db/migrations/index';
import { Shape } from '../src/db/shape';
import { versionAt } from '../src/documents/versions';
import { freshDatabase, shapeOf } from './database';

jest.setTimeout(600_000);

/**
 * A kill behind every statement takes minutes; usually some are tried, others for each way to the newest shape.
 * `TYPIKON_EVERY_KILL=1` tries all.
 */
function* kills(begin: number, step: number): Generator<number> {
  const isEvery = process.env['TYPIKON_EVERY_KILL'] === '1';
  for (let statements = isEvery ? 1 : begin; ; statements += isEvery ? 1 : step) yield statements;
}

/** What a release left behind: its tables with a few rows in each. */
const DUMPS = join(__dirname, 'dumps');

class Killed extends Error {}

/** Lets so many changing statements through and then answers none, as a process that is killed asks no more. */
function killedAfter(sequelize: Sequelize, statements: number): { done: () => number } {
  const query = sequelize.query.bind(sequelize) as (...args: unknown[]) => Promise<unknown>;
  let done = 0;
  let isDead = false;
  sequelize.query = (async (...args: unknown[]) => {
    const sql = typeof args[0] === 'string' ? args[0] : (args[0] as { query: string }).query;
    if (isDead) throw new Killed();
    const result = await query(...args);
    if (/^\s*(CREATE|ALTER|INSERT|UPDATE|DELETE)/i.test(sql) && ++done === statements) {
      isDead = true;
      throw new Killed();
    }
    return result;
  }) as never;
  return { done: () => done };
}

async function load(sequelize: Sequelize, dump: string): Promise<void> {
  for (const statement of readFileSync(join(DUMPS, dump), 'utf8').split(/;\n/))
    if (statement.replace(/^--.*$/gm, '').trim() !== '') await sequelize.query(statement);
}

/** Everything that a person could miss, by table. */
async function rowsOf(sequelize: Sequelize): Promise<Record<string, unknown>> {
  const rows: Record<string, unknown> = {};
  for (const [table, columns, order] of [
    ['profiles', 'id, document, revision', 'id'],
    ['draft_history', 'profile_id, revision, document', 'profile_id, revision'],
    ['specimens', 'id, name, payload, expectations, size', 'position'],
    ['documents', 'id, title, words', 'id'],
    ['document_fields', 'document_id, field_key, profile_id, value, census, size', 'document_id'],
    ['settings', 'name, value, revision', 'name'],
    ['setting_history', 'name, revision, value', 'name, revision'],
    ['stylesheets', 'id, css, purpose, revision', 'id'],
    ['page_kinds', 'id, definition, revision', 'id'],
    ['assets', 'folder, title, size', 'folder, title'],
  ])
    rows[table!] = await sequelize.query(`SELECT ${columns} FROM ${table} ORDER BY ${order}`, { type: QueryTypes.SELECT });
  return rows;
}

// A connection that is lost on the way back is told on the console.
beforeAll(() => void jest.spyOn(console, 'warn').mockImplementation());

describe('the first start', () => {
  test('can be taken up after a kill behind any statement', async () => {
    const database = await freshDatabase('first');
    await migrate(database.sequelize);
    const whole = await shapeOf(database.sequelize);
    await database.drop();
    for (const statements of kills(1, 27)) {
      const { sequelize, config, drop, kill } = await freshDatabase('first');
      const killed = killedAfter(sequelize, statements);
      const ended = await migrate(sequelize).then(
        () => 'whole',
        (error: Error) => error,
      );
      if (ended === 'whole') {
        expect(statements).toBeGreaterThan(30);
        expect(killed.done()).toBeLessThan(statements);
        await drop();
        break;
      }
      expect([ended, (ended as Error).cause]).toContainEqual(expect.any(Killed));
      kill();
      const again = connect(config);
      await migrate(again);
      expect({ statements, shape: await shapeOf(again) }).toEqual({ statements, shape: whole });
      expect(await migrate(again)).toEqual([]);
      await again.close();
      await drop();
    }
  });

  test('of several processes at once makes one database, and each of them goes on', async () => {
    const { config, drop } = await freshDatabase('several');
    const processes = [1, 2, 3, 4].map(() => connect(config));
    let filled = 0;
    const done = await Promise.all(
      processes.map((one) =>
        migrate(one, async () => {
          const [row] = await one.query<{ n: number }>("SELECT COUNT(*) AS n FROM settings WHERE name = 'filled'", {
            type: QueryTypes.SELECT,
          });
          if (Number(row!.n) > 0) return;
          filled++;
          await one.query("INSERT INTO settings (name, value) VALUES ('filled', '1')");
        }),
      ),
    );
    expect(done.map(({ length }) => length).sort()).toEqual([0, 0, 0, MIGRATIONS.length]);
    expect(filled).toBe(1);
    await Promise.all(processes.map((one) => one.close()));
    await drop();
  });
});

test('states of documents that hold their fields themselves are kept once for each content, also after a kill', async () => {
  const { sequelize, config, drop, kill } = await freshDatabase('contents');
  const shape = new Shape(sequelize.getQueryInterface());
  const at = MIGRATIONS.findIndex(({ name }) => name === '0012-versions');
  for (const migration of MIGRATIONS.slice(0, at)) await migration.up(shape);
  const insert = (sql: string, replacements: unknown[] = []) => sequelize.query(sql, { replacements, type: QueryTypes.INSERT });
  // Of which type it is, and on which page, is nothing to it here.
  await sequelize.transaction(async (transaction) => {
    await sequelize.query('SET SESSION foreign_key_checks = 0', { transaction });
    const sql = `INSERT INTO documents (id, title, type_id, page_kind_id, created_at, changed_at, words)
      VALUES ('one', 'One', 'note', 'page', NOW(3), NOW(3), '')`;
    await sequelize.query(sql, { transaction });
    await sequelize.query('SET SESSION foreign_key_checks = 1', { transaction });
  });
  const body = { value: '<p>É 🌊</p>', profile: 'notes', role: 'crew' };
  for (let revision = 1; revision <= 450; revision++)
    await insert("INSERT INTO document_versions (document_id, revision, title, fields, saved_at) VALUES ('one', ?, 'One', ?, NOW(3))", [
      revision,
      JSON.stringify({ body, title: { value: revision % 2 === 1 ? 'One' : 'Two', profile: null, role: '' } }),
    ]);
  killedAfter(sequelize, 600);
  await expect(MIGRATIONS[at]!.up(shape)).rejects.toThrow(Killed);
  kill();
  const again = connect(config);
  for (let time = 0; time < 2; time++) await MIGRATIONS[at]!.up(new Shape(again.getQueryInterface()));
  const counts = await Promise.all(
    ['contents', 'version_fields', 'document_versions'].map(async (table) => {
      const [row] = await again.query<{ n: number }>(`SELECT COUNT(*) AS n FROM ${table}`, { type: QueryTypes.SELECT });
      return Number(row!.n);
    }),
  );
  expect(counts).toEqual([3, 900, 450]);
  const edition = null;
  expect(await versionAt(again, 'one', 450)).toMatchObject({
    title: 'One',
    how: 'written',
    fields: [
      { key: 'body', ...body, edition },
      { key: 'title', value: 'Two', profile: null, role: '', edition },
    ],
  });
  await again.close();
  await drop();
});

describe.each(readdirSync(DUMPS).filter((name) => name.endsWith('.sql')))('what %s left', (dump) => {
  test('is brought to the newest shape with all that it held, and taken up after a kill behind any statement', async () => {
    const fresh = await freshDatabase('upgrade');
    await migrate(fresh.sequelize);
    const newest = Object.keys(await shapeOf(fresh.sequelize)).sort();
    await fresh.drop();

    const first = await freshDatabase('upgrade');
    await load(first.sequelize, dump);
    const before = await first.sequelize.query('SELECT id, document FROM profiles ORDER BY id', { type: QueryTypes.SELECT });
    await migrate(first.sequelize);
    const whole = { shape: await shapeOf(first.sequelize), rows: await rowsOf(first.sequelize) };
    await first.drop();
    expect(Object.keys(whole.shape).sort()).toEqual(newest);
    expect(before).not.toHaveLength(0);
    expect((whole.rows['profiles'] as { id: string; document: string }[]).map(({ id, document }) => ({ id, document }))).toEqual(before);
    for (const table of ['documents', 'specimens', 'stylesheets', 'page_kinds', 'settings']) expect(whole.rows[table]).not.toHaveLength(0);

    const version = Number(dump.split('.')[1]);
    for (const statements of kills(version, version === 5 ? 15 : 60)) {
      const { sequelize, config, drop, kill } = await freshDatabase('upgrade');
      await load(sequelize, dump);
      killedAfter(sequelize, statements);
      const ended = await migrate(sequelize).catch((error: Error) => error);
      if (!(ended instanceof Error)) {
        await drop();
        break;
      }
      expect([ended, ended.cause]).toContainEqual(expect.any(Killed));
      kill();
      const again = connect(config);
      await migrate(again);
      expect({ statements, shape: await shapeOf(again), rows: await rowsOf(again) }).toEqual({ statements, ...whole });
      await again.close();
      await drop();
    }
  });
});
