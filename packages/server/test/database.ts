import { createConnection } from 'mariadb';
import { QueryTypes, type Sequelize } from 'sequelize';
import { readConfig, type Config } from '../src/config';
import { connect } from '../src/db/connection';

/** What of a pool of connections is looked at. */
interface Pool {
  _availableObjects: { resource: { destroy(): void } }[];
  _inUseObjects: { destroy(): void }[];
  _removeIdleTimer: NodeJS.Timeout;
}

/** A database of its own for one file of tests, empty, in the server that runs the tests. */
export async function freshDatabase(
  name: string,
): Promise<{ sequelize: Sequelize; config: Config['database']; drop: () => Promise<void>; kill: () => void }> {
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
