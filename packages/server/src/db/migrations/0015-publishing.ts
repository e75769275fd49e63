import { DataTypes } from 'sequelize';
import { column } from '../shape';
import type { Migration } from './migration';

const { text } = column;

/**
 * Readers see one version of a document, which need not be the last: some content types have what is saved approved first. What was
 * there is seen by readers as it is.
 */
export const publishing: Migration = {
  name: '0015-publishing',
  async up(shape) {
    await shape.addColumn('content_types', 'publishing', { ...text(12), defaultValue: 'at-once' });
    await shape.addColumn('content_types', 'approvers', { type: DataTypes.JSON, allowNull: false, defaultValue: '[]' });
    await shape.addColumn('documents', 'asked_revision', { type: DataTypes.INTEGER.UNSIGNED, allowNull: true });
    await shape.run(
      `CREATE TABLE IF NOT EXISTS publications (
         id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
         document_id VARCHAR(64) NOT NULL,
         revision INT UNSIGNED NOT NULL,
         step VARCHAR(10) NOT NULL,
         note VARCHAR(1000) NOT NULL DEFAULT '',
         done_at DATETIME(3) NOT NULL,
         done_by VARCHAR(64) NOT NULL DEFAULT '',
         KEY publications_document (document_id, id),
         CONSTRAINT publications_document FOREIGN KEY (document_id) REFERENCES documents (id) ON DELETE CASCADE ON UPDATE CASCADE
       )`,
    );
    await shape.addColumn('documents', 'public_revision', { type: DataTypes.INTEGER.UNSIGNED, allowNull: true });
    // Nothing is written before all of this is done: whatever is there is public.
    await shape.run('UPDATE documents SET public_revision = revision WHERE public_revision IS NULL');
    await shape.addIndex('documents', 'documents_asked_revision', ['asked_revision']);
  },
};
