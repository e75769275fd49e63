import { parseFragment, takeCensus } from '@typikon/core';
import { DataTypes, QueryTypes } from 'sequelize';
import type { Migration } from './migration';

/** House limits that are edited with a history of their own; what each document holds, counted once when it is stored; who stored it. */
export const houseHistoryAndCensus: Migration = {
  name: '0002-house-history-and-census',
  async up(tables) {
    await tables.addColumn('settings', 'revision', { type: DataTypes.INTEGER.UNSIGNED, allowNull: false, defaultValue: 1 });
    await tables.createTable('setting_history', {
      name: { type: DataTypes.STRING(64), allowNull: false, primaryKey: true },
      revision: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false, primaryKey: true },
      value: { type: DataTypes.JSON, allowNull: false },
      saved_at: { type: DataTypes.DATE(3), allowNull: false },
    });
    await tables.sequelize.query(
      'INSERT INTO setting_history (name, revision, value, saved_at) SELECT name, revision, value, NOW(3) FROM settings',
    );
    await tables.addColumn('documents', 'role', { type: DataTypes.STRING(64), allowNull: false, defaultValue: '' });
    await tables.addColumn('documents', 'census', { type: DataTypes.JSON, allowNull: true });
    const documents = await tables.sequelize.query<{ id: string; html: string }>('SELECT id, html FROM documents', {
      type: QueryTypes.SELECT,
    });
    for (const { id, html } of documents)
      await tables.sequelize.query('UPDATE documents SET census = ? WHERE id = ?', {
        replacements: [JSON.stringify(takeCensus(parseFragment(html).root)), id],
      });
    await tables.changeColumn('documents', 'census', { type: DataTypes.JSON, allowNull: false });
  },
};
