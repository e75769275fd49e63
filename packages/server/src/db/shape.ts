import { DataTypes, QueryTypes, type ModelAttributeColumnOptions, type QueryInterface, type Transaction } from 'sequelize';

/** The columns of a table by their names. */
export type Columns = Readonly<Record<string, ModelAttributeColumnOptions>>;

/**
 * Changes of the database's shape, each of which can be made again: what is there already is left as it is. MariaDB commits
 * every such statement at once, so a start that was killed between two of them is taken up by making all of them again.
 */
export class Shape {
  constructor(private readonly tables: QueryInterface) {}

  /** Makes a table where there is none of this name. */
  async createTable(name: string, columns: Columns): Promise<void> {
    // Sequelize writes into what describes a column; the same description may stand in several tables.
    await this.tables.createTable(name, Object.fromEntries(Object.entries(columns).map(([column, options]) => [column, { ...options }])));
  }

  async hasColumn(table: string, column: string): Promise<boolean> {
    const [found] = await this.select<{ n: number }>(
      'SELECT COUNT(*) AS n FROM information_schema.columns WHERE table_schema = DATABASE() AND table_name = ? AND column_name = ?',
      [table, column],
    );
    return Number(found?.n) > 0;
  }

  async addColumn(table: string, column: string, options: ModelAttributeColumnOptions): Promise<void> {
    if (!(await this.hasColumn(table, column))) await this.tables.addColumn(table, column, { ...options });
  }

  /** Gives a column another type; to give it the type that it has does nothing. */
  async changeColumn(table: string, column: string, options: ModelAttributeColumnOptions): Promise<void> {
    await this.tables.changeColumn(table, column, { ...options });
  }

  async dropColumn(table: string, column: string): Promise<void> {
    await this.run(`ALTER TABLE \`${table}\` DROP COLUMN IF EXISTS \`${column}\``);
  }

  async hasIndex(table: string, name: string): Promise<boolean> {
    const [found] = await this.select<{ n: number }>(
      'SELECT COUNT(*) AS n FROM information_schema.statistics WHERE table_schema = DATABASE() AND table_name = ? AND index_name = ?',
      [table, name],
    );
    return Number(found?.n) > 0;
  }

  async addIndex(table: string, name: string, columns: readonly string[], { unique = false } = {}): Promise<void> {
    const list = columns.map((column) => `\`${column}\``).join(', ');
    await this.run(`CREATE ${unique ? 'UNIQUE ' : ''}INDEX IF NOT EXISTS \`${name}\` ON \`${table}\` (${list})`);
  }

  /** One statement that changes rows or the shape. It must do nothing where it was done already. */
  async run(sql: string, replacements: unknown[] = []): Promise<void> {
    await this.tables.sequelize.query(sql, { replacements, type: QueryTypes.RAW });
  }

  async select<Row extends object>(sql: string, replacements: unknown[] = []): Promise<Row[]> {
    return this.tables.sequelize.query<Row>(sql, { replacements, type: QueryTypes.SELECT });
  }

  /** Several changes of rows, all of them or none. */
  async inTransaction(act: (run: (sql: string, replacements?: unknown[]) => Promise<void>) => Promise<void>): Promise<void> {
    await this.tables.sequelize.transaction(async (transaction: Transaction) => {
      await act(async (sql, replacements = []) => {
        await this.tables.sequelize.query(sql, { replacements, type: QueryTypes.RAW, transaction });
      });
    });
  }
}

/** Kinds of column that tables of several migrations have. */
export const column = {
  id: { type: DataTypes.STRING(64), allowNull: false, primaryKey: true },
  longText: { type: DataTypes.TEXT('medium'), allowNull: false },
  json: { type: DataTypes.JSON, allowNull: false },
  moment: { type: DataTypes.DATE(3), allowNull: false },
  count: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
  serial: { type: DataTypes.BIGINT.UNSIGNED, allowNull: false, autoIncrement: true, primaryKey: true },
  text: (length: number) => ({ type: DataTypes.STRING(length), allowNull: false }),
} as const;
