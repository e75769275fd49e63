import { Sequelize } from 'sequelize';
import type { Config } from '../config';
import { defineModels } from './models';

/** Opens a pool of connections to MariaDB and ties the models to it. Nothing is asked of the database yet. */
export function connect({ host, port, name, user, password }: Config['database']): Sequelize {
  const sequelize = new Sequelize(name, user, password, {
    dialect: 'mariadb',
    host,
    port,
    logging: false,
    define: { charset: 'utf8mb4', collate: 'utf8mb4_unicode_ci' },
    dialectOptions: { connectTimeout: 5000 },
    pool: { max: 8, min: 0, acquire: 8000, idle: 10_000 },
  });
  defineModels(sequelize);
  return sequelize;
}
