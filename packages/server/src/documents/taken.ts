import { phrasesGone, sentenceOfBrief, type Severity, type TakenLine } from '@typikon/core';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import type { StoredDocument, StoredField } from './document';
import { searchFor } from './words';
import type { How } from './versions';

/** What took something of a text: the passes of a paste, the rules at a save or at a move to another profile, or a hand. */
export type Step = 'paste' | 'save' | 'move' | How;

/** What one step took of the text of one field. */
export interface TakenStep {
  field: string;
  step: Step;
  profile: string | null;
  edition: number | null;
  lines: readonly TakenLine[];
}

/** Something that was taken, as it is kept. */
export interface Taken {
  id: number;
  document: string;
  title: string;
  field: string;
  revision: number;
  step: Step;
  profile: string | null;
  edition: number | null;
  at: Date;
  by: string;
  severity: Severity;
  /** What the rule did; null where somebody took words out by hand. */
  line: Omit<TakenLine, 'words' | 'sample'> | null;
  words: string;
  sample: string;
}

export interface TakenQuery {
  document?: string | undefined;
  field?: string | undefined;
  words?: string | undefined;
  severity?: Severity | undefined;
  limit: number;
  after?: string | undefined;
}

/** Of words that somebody takes out by hand, fewer than this are a correction. */
const FEWEST_MISSED = 4;
/** Words of one step that are kept. */
const LONGEST_WORDS = 100_000;

/** Keeps what a save took of a document: what rules did, and what is gone besides. */
export async function keepTaken(
  sequelize: Sequelize,
  now: Omit<StoredDocument, 'createdAt'>,
  before: StoredDocument | null,
  how: How,
  steps: readonly TakenStep[],
  transaction: Transaction,
): Promise<void> {
  const rows: unknown[][] = [];
  const add = (step: Omit<TakenStep, 'lines'>, severity: Severity, line: object | null, words: string, sample: string): void => {
    const { field, step: kind, profile, edition } = step;
    const kept = line === null ? null : JSON.stringify(line);
    rows.push([now.id, field, now.revision, kind, profile, edition, now.changedAt, now.changedBy, severity, kept, words, sample]);
  };
  for (const { lines, ...step } of steps) for (const { words, sample, ...line } of lines) add(step, line.severity, line, words, sample);
  for (const was of before?.fields ?? []) {
    const is = now.fields.find(({ key }) => key === was.key);
    if (is?.value === was.value) continue;
    // A paste takes what was never stored.
    const known = steps.filter(({ field, step }) => field === was.key && step !== 'paste');
    const explained = known.flatMap(({ lines }) => lines.flatMap(({ words }) => words.split(/\s+/)));
    const phrases = phrasesGone(asMarkup(was), is === undefined ? '' : asMarkup(is), explained);
    if (phrases.length === 0) continue;
    const { profile, edition } = is ?? was;
    const words = phrases.join('\n');
    // A word that is written otherwise is no loss; a sentence is.
    const severity = words.split(/\s+/).length < FEWEST_MISSED ? 'change' : 'loss';
    add({ field: was.key, step: how, profile, edition: edition ?? null }, severity, null, words.slice(0, LONGEST_WORDS), '');
  }
  for (const row of rows)
    await sequelize.query(
      `INSERT INTO taken (document_id, field_key, revision, step, profile_id, edition, taken_at, taken_by, severity, line, words, sample)
       VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
      { replacements: row, type: QueryTypes.INSERT, transaction },
    );
}

const asMarkup = ({ value, profile }: StoredField): string =>
  profile === null ? value.replaceAll('&', '&amp;').replaceAll('<', '&lt;') : value;

/** What was taken, by its numbers, the latest first: of one document or of all, with words or without; and how long each is, in bytes. */
export async function findTaken(sequelize: Sequelize, query: TakenQuery): Promise<{ id: number; size: number }[]> {
  const values: Record<string, unknown> = { ...query, most: query.limit };
  const conditions = searchFor(query.words ?? '', 't.words, t.sample', { beside: 't.words', alone: 't.words' }, values).conditions;
  if (query.document !== undefined) conditions.push('t.document_id = :document');
  if (query.field !== undefined) conditions.push('t.field_key = :field');
  if (query.severity !== undefined) conditions.push('t.severity = :severity');
  if (query.after !== undefined) {
    const [last] = await sequelize.query<{ at: Date }>('SELECT taken_at AS at FROM taken WHERE id = ?', {
      replacements: [Number(query.after) || 0],
      type: QueryTypes.SELECT,
    });
    if (last === undefined) return [];
    values['last'] = last.at;
    conditions.push('(t.taken_at < :last OR (t.taken_at = :last AND t.id < :after))');
  }
  const rows = await sequelize.query<{ id: number; size: number }>(
    `SELECT t.id, LENGTH(t.words) + LENGTH(COALESCE(t.line, '')) AS size FROM taken AS t
     ${conditions.length === 0 ? '' : `WHERE ${conditions.join(' AND ')}`} ORDER BY t.taken_at DESC, t.id DESC LIMIT :most`,
    { replacements: values, type: QueryTypes.SELECT },
  );
  return rows.map(({ id, size }) => ({ id: Number(id), size: Number(size) }));
}

/** Some of what was taken, the latest first. */
export async function readTaken(sequelize: Sequelize, ids: readonly number[]): Promise<Taken[]> {
  if (ids.length === 0) return [];
  const rows = await sequelize.query<Omit<Taken, 'line'> & { line: unknown }>(
    `SELECT t.id, t.document_id AS document, d.title, t.field_key AS field, t.revision, t.step, t.profile_id AS profile, t.edition,
       t.taken_at AS at, t.taken_by AS \`by\`, t.severity, t.line, t.words, t.sample
     FROM taken AS t JOIN documents AS d ON d.id = t.document_id WHERE t.id IN (?) ORDER BY t.taken_at DESC, t.id DESC`,
    { replacements: [ids], type: QueryTypes.SELECT },
  );
  return rows.map(({ line, ...row }) => ({
    ...row,
    id: Number(row.id),
    line: (typeof line === 'string' ? JSON.parse(line) : line) as Taken['line'],
  }));
}

const BY_HAND: Readonly<Record<How, string>> = {
  made: 'Words went',
  written: 'Words were taken out by hand',
  restored: 'Words went, because an earlier version was taken back to',
  retyped: 'Words went with a field that the other content type does not have',
  converted: 'Words went with a conversion',
};

/** What was done, in a sentence without a full stop. */
export function sentenceOfTaken({ line, step }: Pick<Taken, 'line' | 'step'>): string {
  if (line !== null) return sentenceOfBrief(line);
  return step in BY_HAND ? BY_HAND[step as How] : 'Words went';
}
