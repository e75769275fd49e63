import { DataTypes } from 'sequelize';
import { column } from '../shape';
import type { Migration } from './migration';

const { id, longText, json, moment, count, text } = column;

/** Profiles with their drafts, specimens, documents, page kinds, stylesheets, settings. */
export const profilesAndContent: Migration = {
  name: '0001-profiles-and-content',
  async up(shape) {
    await shape.createTable('profiles', {
      id,
      document: json,
      revision: { ...count, defaultValue: 1 },
      created_at: moment,
      updated_at: moment,
    });
    await shape.createTable('draft_history', {
      profile_id: id,
      revision: { ...count, primaryKey: true },
      document: json,
      saved_at: moment,
    });
    await shape.createTable('specimens', {
      id,
      name: text(200),
      kind: text(60),
      notes: text(1000),
      profile_id: text(64),
      html: longText,
      position: { type: DataTypes.INTEGER, allowNull: false },
    });
    await shape.createTable('stylesheets', { id, css: longText });
    await shape.createTable('page_kinds', { id, definition: json });
    await shape.createTable('documents', {
      id,
      title: text(200),
      content_type: text(60),
      profile_id: text(64),
      page_kind_id: text(64),
      html: longText,
    });
    await shape.createTable('settings', { name: id, value: json });
  },
};
