import type { Conversion } from '@typikon/core';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import type { TextName } from '../features/candidates';

/** `running` and `undoing` go on by themselves; `stopped` can be gone on with. */
export type ConversionState = 'running' | 'stopped' | 'done' | 'undoing' | 'undone';
/**
 * What became of a text: it waits, was changed, has nothing that fits, is not there or of another profile by now, cannot be cleaned at
 * once; after it was undone: as it was before, or changed by somebody since and left so.
 */
export type ConvertedState = 'waiting' | 'done' | 'same' | 'gone' | 'refused' | 'undone' | 'kept';

/** A conversion that was asked for. */
export interface StoredConversion {
  id: number;
  profile: string;
  conversion: Conversion;
  note: string;
  state: ConversionState;
  askedAt: Date;
  askedBy: string;
  /** How many texts are in which state. */
  texts: Partial<Record<ConvertedState, number>>;
}

/** A text of a conversion. */
export interface ConvertedText extends TextName {
  state: ConvertedState;
  beforeRevision: number | null;
  afterRevision: number | null;
}

/** So many rows are written by one statement. */
const AT_ONCE = 500;

export async function storeConversion(
  sequelize: Sequelize,
  { profile, conversion, note, askedBy }: Pick<StoredConversion, 'profile' | 'conversion' | 'note' | 'askedBy'>,
  texts: readonly TextName[],
  transaction: Transaction,
): Promise<number> {
  const [id] = await sequelize.query(
    "INSERT INTO conversions (profile_id, conversion, note, state, asked_at, asked_by) VALUES (?, ?, ?, 'running', NOW(3), ?)",
    { replacements: [profile, JSON.stringify(conversion), note, askedBy], type: QueryTypes.INSERT, transaction },
  );
  for (let at = 0; at < texts.length; at += AT_ONCE) {
    const part = texts.slice(at, at + AT_ONCE);
    await sequelize.query(
      `INSERT IGNORE INTO conversion_texts (conversion_id, document_id, field_key, state) VALUES ${part.map(() => "(?, ?, ?, 'waiting')").join(', ')}`,
      { replacements: part.flatMap(({ document, field }) => [id, document, field]), type: QueryTypes.INSERT, transaction },
    );
  }
  return id;
}

interface Row extends Omit<StoredConversion, 'conversion' | 'texts'> {
  conversion: unknown;
}

/** Conversions, the latest first: one, those of a profile, or those behind one. */
export async function findConversions(
  sequelize: Sequelize,
  { id, profile, limit = 1, before }: { id?: number; profile?: string; limit?: number; before?: number | undefined },
  transaction?: Transaction,
): Promise<StoredConversion[]> {
  const conditions = [
    ...(id === undefined ? [] : ['id = :id']),
    ...(profile === undefined ? [] : ['profile_id = :profile']),
    ...(before === undefined ? [] : ['id < :before']),
  ];
  const by = transaction === undefined ? {} : { transaction };
  const rows = await sequelize.query<Row>(
    `SELECT id, profile_id AS profile, conversion, note, state, asked_at AS askedAt, asked_by AS askedBy FROM conversions
     ${conditions.length === 0 ? '' : `WHERE ${conditions.join(' AND ')}`} ORDER BY id DESC LIMIT :limit`,
    { replacements: { id, profile, before, limit }, type: QueryTypes.SELECT, ...by },
  );
  if (rows.length === 0) return [];
  const counts = await sequelize.query<{ id: number; state: ConvertedState; n: number }>(
    'SELECT conversion_id AS id, state, COUNT(*) AS n FROM conversion_texts WHERE conversion_id IN (?) GROUP BY conversion_id, state',
    { replacements: [rows.map((row) => row.id)], type: QueryTypes.SELECT, ...by },
  );
  return rows.map(({ conversion, ...row }) => ({
    ...row,
    conversion: (typeof conversion === 'string' ? JSON.parse(conversion) : conversion) as Conversion,
    texts: Object.fromEntries(counts.filter((count) => count.id === row.id).map(({ state, n }) => [state, Number(n)])),
  }));
}

/** Gives a conversion another state, where it has one of some; false where it has not. */
export async function moveOn(
  sequelize: Sequelize,
  id: number,
  from: readonly ConversionState[],
  to: ConversionState,
  transaction?: Transaction,
): Promise<boolean> {
  const [, changed] = await sequelize.query('UPDATE conversions SET state = ? WHERE id = ? AND state IN (?)', {
    replacements: [to, id, from],
    type: QueryTypes.UPDATE,
    ...(transaction === undefined ? {} : { transaction }),
  });
  return Number(changed) > 0;
}

/** Takes a text of a conversion that nobody works on; null where there is none. */
export async function claimText(
  sequelize: Sequelize,
  id: number,
  state: ConvertedState,
  transaction: Transaction,
): Promise<ConvertedText | null> {
  const [text] = await sequelize.query<ConvertedText>(
    `SELECT document_id AS document, field_key AS field, state, before_revision AS beforeRevision, after_revision AS afterRevision
     FROM conversion_texts WHERE conversion_id = ? AND state = ? LIMIT 1 FOR UPDATE SKIP LOCKED`,
    { replacements: [id, state], type: QueryTypes.SELECT, transaction },
  );
  return text ?? null;
}

/** Says what became of a text. */
export async function markText(
  sequelize: Sequelize,
  id: number,
  { document, field, state, beforeRevision, afterRevision }: ConvertedText,
  transaction: Transaction,
): Promise<void> {
  await sequelize.query(
    `UPDATE conversion_texts SET state = ?, before_revision = ?, after_revision = ?
     WHERE conversion_id = ? AND document_id = ? AND field_key = ?`,
    { replacements: [state, beforeRevision, afterRevision, id, document, field], type: QueryTypes.UPDATE, transaction },
  );
}

/** Texts of a conversion that are in a state, by their names. */
export async function textsIn(
  sequelize: Sequelize,
  id: number,
  { state, limit, after }: { state?: ConvertedState | undefined; limit: number; after: TextName | null },
): Promise<(ConvertedText & { title: string | null })[]> {
  return sequelize.query(
    `SELECT t.document_id AS document, t.field_key AS field, t.state, t.before_revision AS beforeRevision, t.after_revision AS afterRevision,
       d.title
     FROM conversion_texts AS t LEFT JOIN documents AS d ON d.id = t.document_id
     WHERE t.conversion_id = :id ${state === undefined ? '' : 'AND t.state = :state'}
       AND (t.document_id > :document OR (t.document_id = :document AND t.field_key > :field))
     ORDER BY t.document_id, t.field_key LIMIT :limit`,
    { replacements: { id, state, limit, document: after?.document ?? '', field: after?.field ?? '' }, type: QueryTypes.SELECT },
  );
}

/** Conversions that should be going on. */
export async function goingOn(sequelize: Sequelize): Promise<number[]> {
  const rows = await sequelize.query<{ id: number }>("SELECT id FROM conversions WHERE state IN ('running', 'undoing')", {
    type: QueryTypes.SELECT,
  });
  return rows.map(({ id }) => id);
}
