import { DataTypes } from 'sequelize';
import type { Migration } from './migration';

/** Names and folders for the pictures of the library; documents that can be changed. */
export const libraryAndWriting: Migration = {
  name: '0004-library-and-writing',
  async up(tables) {
    await tables.addColumn('assets', 'title', { type: DataTypes.STRING(200), allowNull: false, defaultValue: '' });
    await tables.addColumn('assets', 'folder', { type: DataTypes.STRING(60), allowNull: false, defaultValue: '' });
    await tables.addIndex('assets', ['folder', 'title']);
    await tables.addColumn('documents', 'revision', { type: DataTypes.INTEGER.UNSIGNED, allowNull: false, defaultValue: 1 });
  },
};
