import { DataTypes, QueryTypes } from 'sequelize';
import type { Migration } from './migration';

/** Specimens that are whole clipboard payloads with expectations; the asset library. */
export const payloadsAndAssets: Migration = {
  name: '0003-payloads-and-assets',
  async up(tables) {
    await tables.addColumn('specimens', 'arrives', { type: DataTypes.STRING(10), allowNull: false, defaultValue: 'paste' });
    await tables.addColumn('specimens', 'payload', { type: DataTypes.JSON, allowNull: true });
    await tables.addColumn('specimens', 'expectations', { type: DataTypes.JSON, allowNull: true });
    await tables.addColumn('specimens', 'revision', { type: DataTypes.INTEGER.UNSIGNED, allowNull: false, defaultValue: 1 });
    const specimens = await tables.sequelize.query<{ id: string; html: string }>('SELECT id, html FROM specimens', {
      type: QueryTypes.SELECT,
    });
    for (const { id, html } of specimens)
      await tables.sequelize.query('UPDATE specimens SET payload = ?, expectations = ? WHERE id = ?', {
        replacements: [JSON.stringify({ types: { 'text/html': html } }), '[]', id],
      });
    await tables.changeColumn('specimens', 'payload', { type: DataTypes.JSON, allowNull: false });
    await tables.changeColumn('specimens', 'expectations', { type: DataTypes.JSON, allowNull: false });
    await tables.sequelize.query('ALTER TABLE specimens DROP COLUMN html');
    await tables.createTable('assets', {
      name: { type: DataTypes.STRING(64), allowNull: false, primaryKey: true },
      type: { type: DataTypes.STRING(40), allowNull: false },
      alt: { type: DataTypes.STRING(300), allowNull: false },
      width_px: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      height_px: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      bytes: { type: DataTypes.BLOB('medium'), allowNull: false },
      created_at: { type: DataTypes.DATE(3), allowNull: false },
    });
  },
};
