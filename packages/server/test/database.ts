import { createConnection } from 'mariadb';
import { join } from 'node:path';
import { QueryTypes, type Sequelize } from 'sequelize';
import { readConfig, type Config } from '../src/config';
import { connect } from '../src/db/connection';
import { migrate } from '../src/db/migrate';
import { seedDemo } from '../src/seed/demo';

/** The folder of the demo's data. */
export const DEMO = join(__dirname, '..', '..', '..', 'demo');

/** What of a pool of connections is looked at. */
interface Pool {
  _availableObjects: { resource: { destroy(): void } }[];
  _inUseObjects: { destroy(): void }[];
  _removeIdleTimer: NodeJS.Timeout;
}

interface TestDatabase {
  sequelize: Sequelize;
  config: Config['database'];
  drop: () => Promise<void>;
  kill: () => void;
}

/** A database of its own for one file of tests, empty, in the server that runs the tests. */
export async function freshDatabase(name: string): Promise<TestDatabase> {
  const given = readConfig(process.env).database;
  const config = { ...given, name: `typikon_${name}` };
  const run = async (sql: string): Promise<void> => {
    const connection = await createConnection({ host: given.host, port: given.port, user: given.user, password: given.password });
    await connection.query(sql);
    await connection.end();
  };
  await run(`DROP DATABASE IF EXISTS \`${config.name}\``);
  await run(`CREATE DATABASE \`${config.name}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
  const sequelize = connect(config);
  let isKilled = false;
  return {
    sequelize,
    config,
    /** Ends all connections as they end with a process that is killed. */
    kill() {
      const { pool } = sequelize.connectionManager as unknown as { pool: Pool };
      for (const connection of [...pool._availableObjects.map(({ resource }) => resource), ...pool._inUseObjects]) connection.destroy();
      pool._availableObjects.length = 0;
      pool._inUseObjects.length = 0;
      clearTimeout(pool._removeIdleTimer);
      isKilled = true;
    },
    async drop() {
      if (!isKilled) await sequelize.close();
      await run(`DROP DATABASE IF EXISTS \`${config.name}\``);
    },
  };
}

/**
 * A database of its own for one file of tests, with the demo's data: a copy of one that was filled once for the whole run.
 *
 * @param composed how many documents there are beside those of the demo's folder
 */
export async function demoDatabase(name: string, composed: number): Promise<TestDatabase> {
  // All files of one run have the same parent.
  const model = `filled_${process.ppid}_${composed}`;
  const from = `typikon_${model}`;
  const { host, port, user, password } = readConfig(process.env).database;
  const connection = await createConnection({ host, port, user, password });
  try {
    // Whoever comes first fills it, and the others wait.
    await connection.query('SELECT GET_LOCK(?, 120)', [model]);
    const isThere = await connection.query('SELECT 1 FROM information_schema.tables WHERE table_schema = ? AND table_name = ?', [
      from,
      FILLED,
    ]);
    if (isThere.length === 0) {
      const { sequelize } = await freshDatabase(model);
      await migrate(sequelize);
      await seedDemo(sequelize, DEMO, composed);
      await sequelize.query(`CREATE TABLE ${FILLED} (id INT)`);
      await sequelize.close();
    }
    await connection.query('SELECT RELEASE_LOCK(?)', [model]);
    // The models belong to what was opened last.
    const database = await freshDatabase(name);
    await connection.query('SET SESSION foreign_key_checks = 0');
    await connection.query(`USE \`${database.config.name}\``);
    // What is worked out of other columns comes by itself.
    const tables = await connection.query<{ name: string; columns: string }[]>(
      `SELECT table_name AS name, GROUP_CONCAT(CONCAT('\`', column_name, '\`')) AS columns FROM information_schema.columns
       WHERE table_schema = ? AND table_name <> ? AND generation_expression IS NULL GROUP BY table_name`,
      [from, FILLED],
    );
    for (const { name: table, columns } of tables) {
      const [made] = await connection.query<Record<string, string>[]>(`SHOW CREATE TABLE \`${from}\`.\`${table}\``);
      await connection.query(made!['Create Table']!);
      await connection.query(`INSERT INTO \`${table}\` (${columns}) SELECT ${columns} FROM \`${from}\`.\`${table}\``);
    }
    return database;
  } finally {
    await connection.end();
  }
}

/** A table that stands in a model once all of it is there. */
const FILLED = 'is_filled';

/** The whole shape of a database, as the statements that would make it. */
export async function shapeOf(sequelize: Sequelize): Promise<Record<string, string>> {
  const select = <Row extends object>(sql: string): Promise<Row[]> => sequelize.query<Row>(sql, { type: QueryTypes.SELECT });
  const shape: Record<string, string> = {};
  for (const row of await select<Record<string, string>>('SHOW TABLES')) {
    const table = Object.values(row)[0]!;
    const [made] = await select<Record<string, string>>(`SHOW CREATE TABLE \`${table}\``);
    shape[table] = made!['Create Table']!.replace(/ AUTO_INCREMENT=\d+/, '');
  }
  return shape;
}
