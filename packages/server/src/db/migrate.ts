import { QueryTypes, type Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { MIGRATIONS } from './migrations/index';
import { Shape } from './shape';

/** So long a start waits for another process that makes the same database, in seconds. */
const PATIENCE_S = 120;

/**
 * Brings the database to the newest shape, and then lets the caller fill it. Of several processes that start at once, one
 * does it and the others wait; the lock ends with its connection, so a process that is killed holds nobody up.
 *
 * @param fill is called while nobody else can change the shape; what it does must be whole or not at all
 * @returns the names of the migrations that were run; empty where there was nothing to do
 */
export async function migrate(sequelize: Sequelize, fill: () => Promise<void> = async () => {}): Promise<string[]> {
  return sequelize.transaction(async (transaction) => {
    // A transaction holds one connection, and the lock belongs to that.
    const name = `typikon migrate ${sequelize.config.database}`;
    const [answer] = await sequelize.query<{ held: number | null }>('SELECT GET_LOCK(?, ?) AS held', {
      replacements: [name, PATIENCE_S],
      type: QueryTypes.SELECT,
      transaction,
    });
    if (Number(answer?.held) !== 1) throw new Error('Another process is still preparing the database. Please start again in a moment.');
    try {
      const umzug = new Umzug<Shape>({
        migrations: MIGRATIONS.map((migration) => ({ name: migration.name, up: ({ context }) => migration.up(context) })),
        context: new Shape(sequelize.getQueryInterface()),
        storage: new SequelizeStorage({ sequelize, tableName: 'migrations' }),
        logger: undefined,
      });
      const done = (await umzug.up()).map(({ name: step }) => step);
      await fill();
      return done;
    } finally {
      await sequelize.query('DO RELEASE_LOCK(?)', { replacements: [name], transaction }).catch(() => undefined);
    }
  });
}
