import type { QueryInterface } from 'sequelize';

/** One step of the database's shape. Steps are only ever added; a released one is never changed. */
export interface Migration {
  name: string;
  up(tables: QueryInterface): Promise<void>;
}
