import { DataTypes } from 'sequelize';
import type { Migration } from './migration';

const count = { type: DataTypes.INTEGER.UNSIGNED, allowNull: false };
const id = { type: DataTypes.STRING(64), allowNull: false, primaryKey: true };

/** Stylesheets and page kinds that can be edited, with their versions; how alike the editor and the page were over time. */
export const styleFiles: Migration = {
  name: '0005-style-files',
  async up(tables) {
    await tables.addColumn('stylesheets', 'purpose', { type: DataTypes.STRING(300), allowNull: false, defaultValue: '' });
    await tables.addColumn('stylesheets', 'media', { type: DataTypes.STRING(200), allowNull: false, defaultValue: '' });
    await tables.addColumn('stylesheets', 'revision', { ...count, defaultValue: 1 });
    await tables.addColumn('page_kinds', 'revision', { ...count, defaultValue: 1 });
    await tables.createTable('stylesheet_history', {
      stylesheet_id: id,
      revision: { ...count, primaryKey: true },
      css: { type: DataTypes.TEXT('medium'), allowNull: false },
      note: { type: DataTypes.STRING(300), allowNull: false, defaultValue: '' },
      saved_at: { type: DataTypes.DATE(3), allowNull: false },
    });
    await tables.createTable('likeness_figures', {
      id: { type: DataTypes.BIGINT.UNSIGNED, autoIncrement: true, primaryKey: true },
      profile_id: { type: DataTypes.STRING(64), allowNull: false },
      page_kind_id: { type: DataTypes.STRING(64), allowNull: false },
      elements: count,
      alike: count,
      causes: count,
      taken_at: { type: DataTypes.DATE(3), allowNull: false },
    });
    await tables.addIndex('likeness_figures', ['profile_id', 'page_kind_id', 'id']);
  },
};
