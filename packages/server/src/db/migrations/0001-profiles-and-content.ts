import { DataTypes } from 'sequelize';
import type { Migration } from './migration';

const id = { type: DataTypes.STRING(64), allowNull: false, primaryKey: true };
const longText = { type: DataTypes.TEXT('medium'), allowNull: false };
const json = { type: DataTypes.JSON, allowNull: false };
const moment = { type: DataTypes.DATE(3), allowNull: false };
const count = { type: DataTypes.INTEGER.UNSIGNED, allowNull: false };
const text = (length: number) => ({ type: DataTypes.STRING(length), allowNull: false });

/** Profiles with their drafts, specimens, documents, page kinds, stylesheets, settings. */
export const profilesAndContent: Migration = {
  name: '0001-profiles-and-content',
  async up(tables) {
    await tables.createTable('profiles', {
      id,
      document: json,
      revision: { ...count, defaultValue: 1 },
      created_at: moment,
      updated_at: moment,
    });
    await tables.createTable('draft_history', {
      profile_id: id,
      revision: { ...count, primaryKey: true },
      document: json,
      saved_at: moment,
    });
    await tables.createTable('specimens', {
      id,
      name: text(200),
      kind: text(60),
      notes: text(1000),
      profile_id: text(64),
      html: longText,
      position: { type: DataTypes.INTEGER, allowNull: false },
    });
    await tables.createTable('stylesheets', { id, css: longText });
    await tables.createTable('page_kinds', { id, definition: json });
    await tables.createTable('documents', {
      id,
      title: text(200),
      content_type: text(60),
      profile_id: text(64),
      page_kind_id: text(64),
      html: longText,
    });
    await tables.createTable('settings', { name: id, value: json });
  },
};
