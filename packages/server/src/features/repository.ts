import { createHash } from 'node:crypto';
import { featuresOf, FEATURES_VERSION, type Features, parseFragment } from '@typikon/core';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';

/** A text that is indexed. */
export interface IndexedText {
  documentId: string;
  fieldKey: string;
  /** Of the field, as it is stored: an index of another one is worthless. */
  revision: number;
}

/** Names are kept as long as this, values as long as that; of longer ones only the begin is known. */
const LONGEST_NAME = 190;
const LONGEST_VALUE = 2000;
/** So many rows are written by one statement. */
const AT_ONCE = 500;

/** What holds for a text as a whole, in one number. */
export const FLAGS = { hasComments: 1, hasHardSpaces: 2, isBeyondAscii: 4 } as const;

/** One thing as it is kept. */
interface Row {
  element: string;
  attribute: string;
  value: string;
  /** What of it was too long: `name` or `value`; empty for neither. */
  cut: '' | 'name' | 'value';
  digest: string;
}

/** Writes what a text holds into the index, in the transaction that stores the text. */
export async function indexText(sequelize: Sequelize, text: IndexedText, html: string, transaction: Transaction): Promise<void> {
  const features = featuresOf(parseFragment(html).root, html);
  const textId = await textRow(sequelize, text, features, transaction);
  await sequelize.query('DELETE FROM text_features WHERE text_id = ?', { replacements: [textId], type: QueryTypes.DELETE, transaction });
  const ids = await featureIds(sequelize, rowsOf(features), transaction);
  for (let at = 0; at < ids.length; at += AT_ONCE) {
    const part = ids.slice(at, at + AT_ONCE);
    await sequelize.query(`INSERT IGNORE INTO text_features (feature_id, text_id) VALUES ${part.map(() => '(?, ?)').join(', ')}`, {
      replacements: part.flatMap((id) => [id, textId]),
      type: QueryTypes.INSERT,
      transaction,
    });
  }
}

async function textRow(sequelize: Sequelize, text: IndexedText, features: Features, transaction: Transaction): Promise<number> {
  const { documentId, fieldKey, revision } = text;
  const flags = (Object.keys(FLAGS) as (keyof typeof FLAGS)[]).reduce((sum, flag) => sum + (features[flag] ? FLAGS[flag] : 0), 0);
  await sequelize.query(
    `INSERT INTO text_index (document_id, field_key, revision, version, nodes, length, flags) VALUES (?, ?, ?, ?, ?, ?, ?)
     ON DUPLICATE KEY UPDATE revision = VALUES(revision), version = VALUES(version), nodes = VALUES(nodes), length = VALUES(length),
       flags = VALUES(flags)`,
    {
      replacements: [documentId, fieldKey, revision, FEATURES_VERSION, features.nodes, features.length, flags],
      type: QueryTypes.INSERT,
      transaction,
    },
  );
  const [row] = await sequelize.query<{ id: number }>('SELECT id FROM text_index WHERE document_id = ? AND field_key = ?', {
    replacements: [documentId, fieldKey],
    type: QueryTypes.SELECT,
    transaction,
  });
  return row!.id;
}

/** The things of a text as they are kept, in one order for all, so that two that are stored at once do not wait for each other. */
function rowsOf({ elements, attributes }: Features): Row[] {
  const rows = new Map<string, Row>();
  const add = (element: string, attribute: string, value: string): void => {
    const digest = createHash('md5').update(`${element}\n${attribute}\n${value}`).digest('hex');
    const isLongName = element.length > LONGEST_NAME || attribute.length > LONGEST_NAME;
    rows.set(digest, {
      element: element.slice(0, LONGEST_NAME),
      attribute: attribute.slice(0, LONGEST_NAME),
      value: value.slice(0, LONGEST_VALUE),
      cut: isLongName ? 'name' : value.length > LONGEST_VALUE ? 'value' : '',
      digest,
    });
  };
  for (const element of elements) add(element, '', '');
  for (const { element, attribute, value } of attributes) add(element, attribute, value);
  return [...rows.values()].sort((one, other) => (one.digest < other.digest ? -1 : 1));
}

async function featureIds(sequelize: Sequelize, rows: readonly Row[], transaction: Transaction): Promise<number[]> {
  const known = await readIds(sequelize, rows, '', transaction);
  const missing = rows.filter(({ digest }) => !known.has(digest));
  for (let at = 0; at < missing.length; at += AT_ONCE) {
    const part = missing.slice(at, at + AT_ONCE);
    await sequelize.query(
      `INSERT IGNORE INTO features (element, attribute, value, cut, digest) VALUES ${part.map(() => '(?, ?, ?, ?, UNHEX(?))').join(', ')}`,
      {
        replacements: part.flatMap(({ element, attribute, value, cut, digest }) => [element, attribute, value, cut, digest]),
        type: QueryTypes.INSERT,
        transaction,
      },
    );
  }
  // Another transaction may have written one of them since this one began to read.
  const made = await readIds(sequelize, missing, 'LOCK IN SHARE MODE', transaction);
  return [...known.values(), ...made.values()];
}

async function readIds(
  sequelize: Sequelize,
  rows: readonly Row[],
  lock: '' | 'LOCK IN SHARE MODE',
  transaction: Transaction,
): Promise<Map<string, number>> {
  const ids = new Map<string, number>();
  for (let at = 0; at < rows.length; at += AT_ONCE) {
    const part = rows.slice(at, at + AT_ONCE);
    const found = await sequelize.query<{ id: number; digest: string }>(
      `SELECT id, LOWER(HEX(digest)) AS digest FROM features WHERE digest IN (${part.map(() => 'UNHEX(?)').join(', ')}) ${lock}`,
      { replacements: part.map(({ digest }) => digest), type: QueryTypes.SELECT, transaction },
    );
    for (const { id, digest } of found) ids.set(digest, id);
  }
  return ids;
}

/** What joins texts with their index, where that is of the text as it is now. */
export const INDEXED = `document_fields AS f LEFT JOIN text_index AS t
       ON t.document_id = f.document_id AND t.field_key = f.field_key AND t.revision = f.revision AND t.version = ${FEATURES_VERSION}`;

/**
 * Indexes some texts that are not, or are no more: one after the other, each in a transaction of its own.
 *
 * @returns how many were indexed; none where all are
 */
export async function indexSome(sequelize: Sequelize, most: number): Promise<number> {
  const rows = await sequelize.query<IndexedText>(
    `SELECT f.document_id AS documentId, f.field_key AS fieldKey, f.revision FROM ${INDEXED}
     WHERE f.profile_id IS NOT NULL AND t.id IS NULL LIMIT ?`,
    { replacements: [most], type: QueryTypes.SELECT },
  );
  for (const text of rows)
    await sequelize.transaction(async (transaction) => {
      // Read and held: what is indexed is what stands there.
      const [field] = await sequelize.query<{ value: string; revision: number }>(
        'SELECT value, revision FROM document_fields WHERE document_id = ? AND field_key = ? FOR UPDATE',
        { replacements: [text.documentId, text.fieldKey], type: QueryTypes.SELECT, transaction },
      );
      if (field !== undefined) await indexText(sequelize, { ...text, revision: field.revision }, field.value, transaction);
    });
  return rows.length;
}
