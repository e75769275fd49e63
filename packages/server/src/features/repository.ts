import { createHash } from 'node:crypto';
import { byItself, everyFeature, featuresOf, FEATURES_VERSION, type Features, parseFragment } from '@typikon/core';
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
/** Pairs of numbers are short. */
const PAIRS_AT_ONCE = 5000;

/** What holds for a text as a whole, in one number. */
export const FLAGS = {
  hasComments: 1,
  hasHardSpaces: 2,
  isBeyondAscii: 4,
  hasBlanks: 8,
  /** Whether rules that allow what it needs keep it whole. */
  isWholeByItself: 16,
  /** Whether they leave it to the letter as it is. */
  isSameByItself: 32,
} as const;

/** One thing as it is kept. */
interface Row {
  element: string;
  attribute: string;
  value: string;
  /** What of it was too long: `name` or `value`; empty for neither. */
  cut: '' | 'name' | 'value';
  digest: string;
}

/** A text that is indexed, with what stands in it. */
export interface TextToIndex extends IndexedText {
  html: string;
}

/** Writes what texts hold into the index, in the transaction that stores them. */
export async function indexTexts(sequelize: Sequelize, texts: readonly TextToIndex[], transaction: Transaction): Promise<void> {
  const held = texts.map((text) => {
    const features = featuresOf(parseFragment(text.html).root, text.html);
    return { text, features, rows: rowsOf(features) };
  });
  const textIds = await textRows(sequelize, held, transaction);
  // In one order for all, so that two that are stored at once do not wait for each other.
  const every = new Map(held.flatMap(({ rows }) => rows.map((row): [string, Row] => [row.digest, row])));
  const ids = await featureIds(
    sequelize,
    [...every.values()].sort((one, other) => (one.digest < other.digest ? -1 : 1)),
    transaction,
  );
  const known = await heldNow(sequelize, [...textIds.values()], transaction);
  const added: string[] = [];
  for (const { text, rows } of held) {
    const textId = textIds.get(nameOf(text))!;
    const before = known.get(textId) ?? new Set();
    for (const { digest } of rows) {
      const id = ids.get(digest)!;
      if (!before.delete(id)) added.push(`(${id},${textId})`);
    }
    // What is left of them the text has no more.
    if (before.size > 0)
      await sequelize.query('DELETE FROM text_features WHERE text_id = ? AND feature_id IN (?)', {
        replacements: [textId, [...before]],
        type: QueryTypes.DELETE,
        transaction,
      });
  }
  for (let at = 0; at < added.length; at += PAIRS_AT_ONCE)
    await sequelize.query(`INSERT IGNORE INTO text_features (feature_id, text_id) VALUES ${added.slice(at, at + PAIRS_AT_ONCE).join()}`, {
      type: QueryTypes.INSERT,
      transaction,
    });
}

/** What texts held by the index, by their numbers. */
async function heldNow(sequelize: Sequelize, textIds: readonly number[], transaction: Transaction): Promise<Map<number, Set<number>>> {
  const held = new Map<number, Set<number>>();
  const rows = await sequelize.query<{ textId: number; featureId: number }>(
    'SELECT text_id AS textId, feature_id AS featureId FROM text_features WHERE text_id IN (?)',
    { replacements: [textIds], type: QueryTypes.SELECT, transaction },
  );
  for (const { textId, featureId } of rows) {
    const of = held.get(textId);
    if (of === undefined) held.set(textId, new Set([featureId]));
    else of.add(featureId);
  }
  return held;
}

const nameOf = ({ documentId, fieldKey }: Omit<IndexedText, 'revision'>): string => `${documentId}/${fieldKey}`;

async function textRows(
  sequelize: Sequelize,
  held: readonly { text: TextToIndex; features: Features }[],
  transaction: Transaction,
): Promise<Map<string, number>> {
  const rows = held.map(({ text, features }) => {
    const { isWhole, isSame } = byItself(text.html);
    const flags = flagsOf({ ...features, isWholeByItself: isWhole, isSameByItself: isSame });
    return [text.documentId, text.fieldKey, text.revision, FEATURES_VERSION, features.nodes, features.depth, features.length, flags];
  });
  const found = await sequelize.query<{ id: number; documentId: string; fieldKey: string }>(
    `INSERT INTO text_index (document_id, field_key, revision, version, nodes, depth, length, flags)
     VALUES ${rows.map(() => '(?)').join()}
     ON DUPLICATE KEY UPDATE revision = VALUES(revision), version = VALUES(version), nodes = VALUES(nodes), depth = VALUES(depth),
       length = VALUES(length), flags = VALUES(flags)
     RETURNING id, document_id AS documentId, field_key AS fieldKey`,
    { replacements: rows, type: QueryTypes.SELECT, transaction },
  );
  return new Map(found.map((row) => [nameOf(row), row.id]));
}

function flagsOf(holds: Readonly<Record<keyof typeof FLAGS, boolean>>): number {
  return (Object.keys(FLAGS) as (keyof typeof FLAGS)[]).reduce((sum, flag) => sum + (holds[flag] ? FLAGS[flag] : 0), 0);
}

/** The things of a text as they are kept. */
function rowsOf(features: Features): Row[] {
  const rows = new Map<string, Row>();
  for (const { element, attribute, value } of everyFeature(features)) {
    const digest = createHash('md5').update(`${element}\n${attribute}\n${value}`).digest('hex');
    const isLongName = element.length > LONGEST_NAME || attribute.length > LONGEST_NAME;
    rows.set(digest, {
      element: element.slice(0, LONGEST_NAME),
      attribute: attribute.slice(0, LONGEST_NAME),
      value: value.slice(0, LONGEST_VALUE),
      cut: isLongName ? 'name' : value.length > LONGEST_VALUE ? 'value' : '',
      digest,
    });
  }
  return [...rows.values()];
}

/** The numbers of things, by their digests. */
async function featureIds(sequelize: Sequelize, rows: readonly Row[], transaction: Transaction): Promise<Map<string, number>> {
  const ids = await readIds(sequelize, rows, '', transaction);
  const missing = rows.filter(({ digest }) => !ids.has(digest));
  for (let at = 0; at < missing.length; at += AT_ONCE) {
    const part = missing.slice(at, at + AT_ONCE);
    const made = await sequelize.query<{ id: number; digest: string }>(
      `INSERT IGNORE INTO features (element, attribute, value, cut, digest) VALUES ${part.map(() => '(?, ?, ?, ?, UNHEX(?))').join(', ')}
       RETURNING id, LOWER(HEX(digest)) AS digest`,
      {
        replacements: part.flatMap(({ element, attribute, value, cut, digest }) => [element, attribute, value, cut, digest]),
        type: QueryTypes.SELECT,
        transaction,
      },
    );
    for (const { id, digest } of made) ids.set(digest, id);
  }
  // Another transaction may have written one of them since this one began to read.
  const others = missing.filter(({ digest }) => !ids.has(digest));
  for (const [digest, id] of await readIds(sequelize, others, 'LOCK IN SHARE MODE', transaction)) ids.set(digest, id);
  return ids;
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
      if (field !== undefined) await indexTexts(sequelize, [{ ...text, revision: field.revision, html: field.value }], transaction);
    });
  return rows.length;
}
