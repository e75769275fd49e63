import { DataTypes } from 'sequelize';
import type { Migration } from './migration';

/**
 * How deep elements stand in each other is kept of every text, beside how many there are; and the texts of a profile are found, with
 * what tells whether they are indexed, without reading what stands in them.
 */
export const depthOfTexts: Migration = {
  name: '0014-depth-of-texts',
  async up(shape) {
    await shape.addColumn('text_index', 'depth', { type: DataTypes.INTEGER.UNSIGNED, allowNull: false, defaultValue: 0 });
    await shape.run('CREATE INDEX IF NOT EXISTS document_fields_of_profile ON document_fields (profile_id, role, kept_edition, revision)');
    await shape.run('CREATE INDEX IF NOT EXISTS text_index_of_text ON text_index (document_id, field_key, version, revision, flags)');
  },
};
