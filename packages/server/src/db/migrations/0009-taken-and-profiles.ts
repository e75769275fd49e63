import { column } from '../shape';
import type { Migration } from './migration';

/**
 * What the rules took of a text while it was written stands beside it, so that help can be held against it. The profiles of a
 * document's texts are short enough for an index, by which documents are counted; where they are too many for that, a star says so.
 */
export const takenAndProfiles: Migration = {
  name: '0009-taken-and-profiles',
  async up(shape) {
    await shape.addColumn('document_fields', 'taken', { ...column.text(300), defaultValue: '' });
    await shape.run("UPDATE documents SET profiles = ',*,' WHERE CHAR_LENGTH(profiles) > 1000");
    await shape.run("ALTER TABLE documents MODIFY profiles VARCHAR(1000) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT ''");
    await shape.addIndex('documents', 'documents_profiles', ['profiles', 'type_id', 'changed_by', 'changed_at']);
  },
};
