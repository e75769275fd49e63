import type { Migration } from './migration';

/**
 * What texts hold, as far as rules ask for it: each thing once, and by it the texts that hold it, so that whom a change of rules
 * can touch is found without reading them. Names and values are told apart to the letter.
 */
export const features: Migration = {
  name: '0011-features',
  async up(shape) {
    await shape.run(
      `CREATE TABLE IF NOT EXISTS features (
         id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
         element VARCHAR(190) NOT NULL,
         attribute VARCHAR(190) NOT NULL DEFAULT '',
         value TEXT NOT NULL DEFAULT '',
         cut VARCHAR(5) NOT NULL DEFAULT '',
         digest BINARY(16) NOT NULL,
         UNIQUE KEY features_digest (digest),
         KEY features_element_attribute (element, attribute)
       ) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin`,
    );
    await shape.run(
      `CREATE TABLE IF NOT EXISTS text_index (
         id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
         document_id VARCHAR(64) NOT NULL,
         field_key VARCHAR(64) NOT NULL,
         revision INT UNSIGNED NOT NULL,
         version INT UNSIGNED NOT NULL,
         nodes INT UNSIGNED NOT NULL,
         length INT UNSIGNED NOT NULL,
         flags TINYINT UNSIGNED NOT NULL,
         UNIQUE KEY text_index_text (document_id, field_key),
         CONSTRAINT text_index_field FOREIGN KEY (document_id, field_key) REFERENCES document_fields (document_id, field_key)
           ON DELETE CASCADE ON UPDATE CASCADE
       )`,
    );
    await shape.run(
      `CREATE TABLE IF NOT EXISTS text_features (
         feature_id INT UNSIGNED NOT NULL,
         text_id INT UNSIGNED NOT NULL,
         PRIMARY KEY (feature_id, text_id),
         KEY text_features_text (text_id),
         CONSTRAINT text_features_text FOREIGN KEY (text_id) REFERENCES text_index (id) ON DELETE CASCADE
       )`,
    );
  },
};
