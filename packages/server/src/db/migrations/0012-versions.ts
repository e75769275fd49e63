import { createHash } from 'node:crypto';
import { DataTypes } from 'sequelize';
import { column, type Shape } from '../shape';
import type { Migration } from './migration';

const { text } = column;

/**
 * What stood in fields is kept once for all states that have it, by what it is; and everything that was ever taken of a text is
 * kept with the step that took it.
 */
export const versions: Migration = {
  name: '0012-versions',
  async up(shape) {
    await shape.run(
      `CREATE TABLE IF NOT EXISTS contents (
         hash BINARY(32) NOT NULL PRIMARY KEY,
         value MEDIUMTEXT NOT NULL
       ) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin`,
    );
    await shape.run(
      `CREATE TABLE IF NOT EXISTS version_fields (
         document_id VARCHAR(64) NOT NULL,
         revision INT UNSIGNED NOT NULL,
         field_key VARCHAR(64) NOT NULL,
         hash BINARY(32) NOT NULL,
         profile_id VARCHAR(64) NULL,
         role VARCHAR(64) NOT NULL DEFAULT '',
         edition INT UNSIGNED NULL,
         PRIMARY KEY (document_id, revision, field_key),
         KEY version_fields_hash (hash),
         CONSTRAINT version_fields_version FOREIGN KEY (document_id, revision) REFERENCES document_versions (document_id, revision)
           ON DELETE CASCADE ON UPDATE CASCADE
       )`,
    );
    await shape.run(
      `CREATE TABLE IF NOT EXISTS taken (
         id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
         document_id VARCHAR(64) NOT NULL,
         field_key VARCHAR(64) NOT NULL,
         revision INT UNSIGNED NOT NULL,
         step VARCHAR(12) NOT NULL,
         profile_id VARCHAR(64) NULL,
         edition INT UNSIGNED NULL,
         taken_at DATETIME(3) NOT NULL,
         taken_by VARCHAR(64) NOT NULL DEFAULT '',
         severity VARCHAR(8) NOT NULL,
         line JSON NULL,
         words MEDIUMTEXT NOT NULL,
         sample VARCHAR(320) NOT NULL DEFAULT '',
         KEY taken_document (document_id, taken_at, id),
         KEY taken_at (taken_at, id),
         FULLTEXT KEY taken_words (words, sample),
         CONSTRAINT taken_document FOREIGN KEY (document_id) REFERENCES documents (id) ON DELETE CASCADE ON UPDATE CASCADE
       )`,
    );
    await shape.addColumn('document_versions', 'how', { ...text(12), defaultValue: 'written' });
    await shape.addColumn('document_fields', 'edition', { type: DataTypes.INTEGER.UNSIGNED, allowNull: true });
    if (await shape.hasColumn('document_versions', 'fields')) {
      await moveContents(shape);
      await shape.dropColumn('document_versions', 'fields');
    }
  },
};

interface Version {
  documentId: string;
  revision: number;
  fields: unknown;
}

const AT_ONCE = 200;

async function moveContents(shape: Shape): Promise<void> {
  let [document, revision] = ['', 0];
  for (;;) {
    const rows = await shape.select<Version>(
      `SELECT document_id AS documentId, revision, fields FROM document_versions
       WHERE document_id > ? OR (document_id = ? AND revision > ?) ORDER BY document_id, revision LIMIT ${AT_ONCE}`,
      [document, document, revision],
    );
    if (rows.length === 0) return;
    await shape.inTransaction(async (run) => {
      for (const row of rows) {
        const fields = (typeof row.fields === 'string' ? JSON.parse(row.fields) : row.fields) as Record<string, Field>;
        for (const [key, { value, profile = null, role = '' }] of Object.entries(fields)) {
          const hash = createHash('sha256').update(value).digest('hex');
          await run('INSERT IGNORE INTO contents (hash, value) VALUES (UNHEX(?), ?)', [hash, value]);
          await run(
            `INSERT IGNORE INTO version_fields (document_id, revision, field_key, hash, profile_id, role)
             VALUES (?, ?, ?, UNHEX(?), ?, ?)`,
            [row.documentId, row.revision, key, hash, profile, role],
          );
        }
      }
    });
    ({ documentId: document, revision } = rows[rows.length - 1]!);
  }
}

interface Field {
  value: string;
  profile?: string | null;
  role?: string;
}
