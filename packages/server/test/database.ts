import { createConnection } from 'mariadb';
import type { Sequelize } from 'sequelize';
import { readConfig, type Config } from '../src/config';
import { connect } from '../src/db/connection';

/** A database of its own for one file of tests, empty, in the server that runs the tests. */
export async function freshDatabase(name: string): Promise<{ sequelize: Sequelize; config: Config['database']; drop(): Promise<void> }> {
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
  return {
    sequelize,
    config,
    async drop() {
      // A pool whose connections were killed never drains.
      await Promise.race([sequelize.close(), new Promise((done) => setTimeout(done, 500))]);
      await run(`DROP DATABASE IF EXISTS \`${config.name}\``);
    },
  };
}

/** The whole shape of a database, as the statements that would make it. */
export async function shapeOf(sequelize: Sequelize): Promise<Record<string, string>> {
  const [tables] = (await sequelize.query('SHOW TABLES')) as [Record<string, string>[], unknown];
  const shape: Record<string, string> = {};
  for (const row of tables) {
    const table = Object.values(row)[0]!;
    const [[made]] = (await sequelize.query(`SHOW CREATE TABLE \`${table}\``)) as [Record<string, string>[], unknown];
    shape[table] = made!['Create Table']!.replace(/ AUTO_INCREMENT=\d+/, '');
  }
  return shape;
}
