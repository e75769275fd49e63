import { Sequelize, Transaction } from 'sequelize';
import type { Config } from '../config';
import { defineDocumentModels } from './document-models';
import { defineModels } from './models';
import { defineSiteModels } from './site-models';

/** So long a change waits for another one of the same rows, in seconds. */
const LOCK_WAIT_S = 5;

/**
 * Opens a pool of connections to MariaDB and ties the models to it. Nothing is asked of the database yet.
 *
 * @param options.connections the most at once
 */
export function connect({ host, port, name, user, password }: Config['database'], { connections = 8 } = {}): Sequelize {
  const sequelize = new Sequelize(name, user, password, {
    dialect: 'mariadb',
    host,
    port,
    logging: false,
    // Each statement sees what is committed: rows that a change needs as they were are locked by it.
    isolationLevel: Transaction.ISOLATION_LEVELS.READ_COMMITTED,
    define: { charset: 'utf8mb4', collate: 'utf8mb4_unicode_ci' },
    dialectOptions: { connectTimeout: 5000, initSql: [`SET SESSION innodb_lock_wait_timeout=${LOCK_WAIT_S}`] },
    pool: { max: connections, min: 0, acquire: 8000, idle: 10_000 },
  });
  defineModels(sequelize);
  defineSiteModels(sequelize);
  defineDocumentModels(sequelize);
  return sequelize;
}
