import { DataTypes } from 'sequelize';
import type { Migration } from './migration';

/** What is done with single texts at a release: replacements that run over them, questions to their authors, and leaving them as they are. */
export const conversions: Migration = {
  name: '0013-conversions',
  async up(shape) {
    await shape.run(
      `CREATE TABLE IF NOT EXISTS conversions (
         id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
         profile_id VARCHAR(64) NOT NULL,
         conversion JSON NOT NULL,
         note VARCHAR(1000) NOT NULL DEFAULT '',
         state VARCHAR(10) NOT NULL,
         asked_at DATETIME(3) NOT NULL,
         asked_by VARCHAR(64) NOT NULL DEFAULT '',
         KEY conversions_profile (profile_id, id),
         KEY conversions_state (state)
       )`,
    );
    await shape.run(
      `CREATE TABLE IF NOT EXISTS conversion_texts (
         conversion_id INT UNSIGNED NOT NULL,
         document_id VARCHAR(64) NOT NULL,
         field_key VARCHAR(64) NOT NULL,
         state VARCHAR(10) NOT NULL,
         before_revision INT UNSIGNED NULL,
         after_revision INT UNSIGNED NULL,
         PRIMARY KEY (conversion_id, document_id, field_key),
         KEY conversion_texts_state (conversion_id, state),
         CONSTRAINT conversion_texts_conversion FOREIGN KEY (conversion_id) REFERENCES conversions (id) ON DELETE CASCADE
       )`,
    );
    await shape.run(
      `CREATE TABLE IF NOT EXISTS questions (
         id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
         document_id VARCHAR(64) NOT NULL,
         field_key VARCHAR(64) NOT NULL,
         profile_id VARCHAR(64) NOT NULL,
         edition INT UNSIGNED NOT NULL,
         revision INT UNSIGNED NOT NULL,
         person_id VARCHAR(64) NOT NULL DEFAULT '',
         note VARCHAR(1000) NOT NULL DEFAULT '',
         before_html MEDIUMTEXT NOT NULL,
         after_html MEDIUMTEXT NOT NULL,
         asked_at DATETIME(3) NOT NULL,
         asked_by VARCHAR(64) NOT NULL DEFAULT '',
         answer VARCHAR(10) NOT NULL DEFAULT '',
         answered_at DATETIME(3) NULL,
         answered_by VARCHAR(64) NOT NULL DEFAULT '',
         reply VARCHAR(1000) NOT NULL DEFAULT '',
         KEY questions_person (answer, person_id, id),
         KEY questions_text (document_id, field_key, id),
         CONSTRAINT questions_document FOREIGN KEY (document_id) REFERENCES documents (id) ON DELETE CASCADE ON UPDATE CASCADE
       )`,
    );
    await shape.addColumn('document_fields', 'kept_edition', { type: DataTypes.INTEGER.UNSIGNED, allowNull: true });
  },
};
