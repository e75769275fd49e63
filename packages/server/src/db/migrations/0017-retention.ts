import { DataTypes } from 'sequelize';
import type { Migration } from './migration';

/** Which versions of documents are kept, by their content type; and which of them readers ever saw. Of what was there, all were seen. */
export const retention: Migration = {
  name: '0017-retention',
  async up(shape) {
    await shape.addColumn('content_types', 'versions', { type: DataTypes.JSON, allowNull: false, defaultValue: '{}' });
    await shape.addColumn('document_versions', 'was_public', { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: true });
    await shape.addIndex('conversion_texts', 'conversion_texts_text', ['document_id', 'before_revision']);
  },
};
