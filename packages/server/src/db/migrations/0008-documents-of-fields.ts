import { idFrom, mainField, parseFragment, renderedText, type Field } from '@typikon/core';
import { DataTypes } from 'sequelize';
import { column, type Shape } from '../shape';
import type { Migration } from './migration';

const { id, longText, json, moment, count, text } = column;
const now = { ...moment, defaultValue: DataTypes.NOW } as const;
const ofDocument = {
  ...id,
  references: { model: 'documents', key: 'id' },
  onDelete: 'CASCADE',
  onUpdate: 'CASCADE',
} as const;
/** So many documents are read at once. */
const BATCH = 200;

/**
 * Documents have fields: what was the one markup of a document becomes the main field of its content type. Beside that, who
 * changed it when, its words to find it by, every version of it, and the kinds of page on which parts of it show.
 */
export const documentsOfFields: Migration = {
  name: '0008-documents-of-fields',
  async up(shape) {
    await shape.createTable('type_places', {
      type_id: { ...id, references: { model: 'content_types', key: 'id' }, onDelete: 'CASCADE', onUpdate: 'CASCADE' },
      page_kind_id: { ...id, references: { model: 'page_kinds', key: 'id' }, onDelete: 'RESTRICT', onUpdate: 'CASCADE' },
      position: count,
    });
    await shape.createTable('document_fields', {
      document_id: ofDocument,
      field_key: id,
      /** The profile by which rich text was last saved; absent for what is no rich text. It may be gone since. */
      profile_id: { ...text(64), allowNull: true },
      role: { ...text(64), defaultValue: '' },
      /** The kind of page on which it shows first. */
      page_kind_id: text(64),
      value: longText,
      census: { ...json, allowNull: true },
      size: { ...count, defaultValue: 0 },
      revision: { ...count, defaultValue: 1 },
    });
    await shape.addIndex('document_fields', 'document_fields_profile_id_page_kind_id', ['profile_id', 'page_kind_id', 'size']);
    await shape.createTable('document_versions', {
      document_id: ofDocument,
      revision: { ...count, primaryKey: true },
      title: text(200),
      fields: json,
      saved_at: now,
      saved_by: { ...text(64), defaultValue: '' },
    });
    await shape.addColumn('documents', 'type_id', { ...text(64), allowNull: true });
    await shape.addColumn('documents', 'created_at', now);
    await shape.addColumn('documents', 'changed_at', now);
    await shape.addColumn('documents', 'changed_by', { ...text(64), defaultValue: '' });
    await shape.addColumn('documents', 'words', { ...longText, allowNull: true });
    /** The profiles of its texts, each with commas around it, so that documents are found by them without a join. */
    await shape.addColumn('documents', 'profiles', { ...text(4000), defaultValue: '' });
    if (await shape.hasColumn('documents', 'html')) {
      await giveTypes(shape);
      await fillFields(shape);
      await findByWords(shape);
    }
    // The markup goes first: while it is there, nothing else is gone.
    for (const gone of ['html', 'census', 'size', 'profile_id', 'role', 'content_type']) await shape.dropColumn('documents', gone);
    await shape.run('UPDATE documents SET words = title WHERE words IS NULL');
    await shape.run(
      `UPDATE documents AS d SET profiles = COALESCE(
         (SELECT CONCAT(',', GROUP_CONCAT(DISTINCT f.profile_id ORDER BY f.field_key), ',') FROM document_fields AS f
          WHERE f.document_id = d.id AND f.profile_id IS NOT NULL), '') WHERE profiles = ''`,
    );
    await shape.changeColumn('documents', 'words', longText);
    await shape.changeColumn('documents', 'type_id', text(64));
    await shape.run(
      'ALTER TABLE documents ADD CONSTRAINT documents_type FOREIGN KEY IF NOT EXISTS documents_type (type_id) REFERENCES content_types (id) ON DELETE RESTRICT ON UPDATE CASCADE',
    );
    await shape.addIndex('documents', 'documents_type_id_changed_at', ['type_id', 'changed_at', 'id']);
    await shape.addIndex('documents', 'documents_changed_at', ['changed_at', 'id']);
    await shape.run('CREATE FULLTEXT INDEX IF NOT EXISTS documents_words ON documents (words)');
    // Counts follow from what is stored; they are made again by themselves.
    if (!(await shape.hasColumn('likeness_counts', 'field_key'))) await shape.run('DROP TABLE IF EXISTS likeness_counts');
    await shape.createTable('likeness_counts', {
      document_id: ofDocument,
      field_key: id,
      profile_id: text(64),
      page_kind_id: text(64),
      revision: count,
      inputs: text(64),
      elements: count,
      alike: count,
      causes: json,
      failure: { ...text(300), defaultValue: '' },
    });
    await shape.addIndex('likeness_counts', 'likeness_counts_profile_id_page_kind_id', ['profile_id', 'page_kind_id']);
  },
};

/** Every document gets a content type: the one that is called as the document's was, or a new one. */
async function giveTypes(shape: Shape): Promise<void> {
  const kinds = await shape.select<{ content_type: string; page_kind_id: string }>(
    `SELECT content_type, page_kind_id FROM (
       SELECT content_type, page_kind_id, ROW_NUMBER() OVER (PARTITION BY content_type ORDER BY COUNT(*) DESC, page_kind_id) AS place
       FROM documents WHERE type_id IS NULL GROUP BY content_type, page_kind_id
     ) AS counted WHERE place = 1 ORDER BY content_type`,
  );
  for (const { content_type: name, page_kind_id: page } of kinds) {
    const types = await shape.select<{ id: string; label: string }>('SELECT id, label FROM content_types ORDER BY position');
    const known = types.find(({ id: key, label }) => key === idFrom(name) || label.toLowerCase() === name.toLowerCase());
    const typeId = known?.id ?? freeId(idFrom(name) || 'content', new Set(types.map(({ id: key }) => key)));
    await shape.inTransaction(async (run) => {
      if (known === undefined) {
        await run('INSERT IGNORE INTO page_kinds (id, definition) VALUES (?, ?)', [page, JSON.stringify(bare(page))]);
        const label = (name === '' ? 'Content' : `${name.charAt(0).toUpperCase()}${name.slice(1)}`).slice(0, 120);
        await run(
          `INSERT INTO content_types (id, label, icon, colour, description, page_kind_id, position)
           SELECT ?, ?, 'file', 'ink', '', ?, COALESCE(MAX(position) + 1, 0) FROM content_types`,
          [typeId, label, page],
        );
      }
      await run('UPDATE documents SET type_id = ? WHERE content_type = ? AND type_id IS NULL', [typeId, name]);
    });
  }
}

const bare = (id: string) => ({ id, name: id, wrapper: [{ element: 'main' }], stylesheets: [], contentWidthPx: 720, widthsPx: [1280] });

function freeId(wanted: string, taken: ReadonlySet<string>): string {
  let free = wanted;
  for (let n = 2; taken.has(free); n++) free = `${wanted}-${n}`;
  return free;
}

/** The markup of each document becomes the main field of its type, which gets one where it has none. */
async function fillFields(shape: Shape): Promise<void> {
  const types = await shape.select<{ type_id: string }>('SELECT DISTINCT type_id FROM documents');
  for (const { type_id: type } of types) {
    const rows = await shape.select<{ key: string; definition: unknown }>(
      'SELECT `key`, definition FROM fields WHERE type_id = ? ORDER BY position',
      [type],
    );
    const fields = rows.map(({ key, definition }) => ({ key, ...(read(definition) as Omit<Field, 'key'>) }));
    const main = mainField({ fields });
    const key = main?.key ?? freeId('text', new Set(fields.map((field) => field.key)));
    await shape.inTransaction(async (run) => {
      if (main === null) {
        const definition = { title: 'Text', kind: 'rich' };
        await run(
          'INSERT INTO fields (type_id, `key`, position, definition) SELECT ?, ?, COALESCE(MAX(position) + 1, 0), ? FROM fields WHERE type_id = ?',
          [type, key, JSON.stringify(definition), type],
        );
        // Whoever wrote it goes on with what they wrote it with, the most used first.
        const profiles = await shape.select<{ profile_id: string }>(
          `SELECT d.profile_id FROM documents AS d JOIN profiles AS p ON p.id = d.profile_id WHERE d.type_id = ?
           GROUP BY d.profile_id ORDER BY COUNT(*) DESC, d.profile_id LIMIT 50`,
          [type],
        );
        const [place] = await shape.select<{ n: number }>('SELECT COALESCE(MAX(position) + 1, 0) AS n FROM statements');
        if (profiles.length > 0) {
          await run('INSERT INTO statements (position, all_roles, all_types, all_fields) VALUES (?, 1, 0, 1)', [place!.n]);
          await run('INSERT INTO statement_types (statement, type_id, position) VALUES (?, ?, 0)', [place!.n, type]);
          for (const [position, { profile_id: profile }] of profiles.entries())
            await run('INSERT INTO statement_profiles (statement, profile_id, position) VALUES (?, ?, ?)', [place!.n, profile, position]);
        }
      }
      await run(
        `INSERT IGNORE INTO document_fields (document_id, field_key, profile_id, role, page_kind_id, value, census, size, revision)
         SELECT id, ?, profile_id, role, page_kind_id, html, census, size, revision FROM documents WHERE type_id = ?`,
        [key, type],
      );
    });
  }
}

/** The words by which documents are found. */
async function findByWords(shape: Shape): Promise<void> {
  for (;;) {
    const rows = await shape.select<{ id: string; title: string; html: string }>(
      `SELECT id, title, html FROM documents WHERE words IS NULL LIMIT ${BATCH}`,
    );
    if (rows.length === 0) return;
    await shape.inTransaction(async (run) => {
      for (const { id: key, title, html } of rows)
        await run('UPDATE documents SET words = ? WHERE id = ?', [`${title}\n${renderedText(parseFragment(html).root)}`, key]);
    });
  }
}

const read = (value: unknown): unknown => (typeof value === 'string' ? JSON.parse(value) : value);
