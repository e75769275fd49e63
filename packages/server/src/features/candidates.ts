import type { ReachQuestion, WholeQuestion } from '@typikon/core';
import { QueryTypes, type Sequelize } from 'sequelize';
import { FLAGS, INDEXED } from './repository';

/** A text, by its document and its field. */
export interface TextName {
  document: string;
  field: string;
}

/** Whom a change of rules can touch. */
export interface Candidates {
  /** In the order of their names. */
  texts: TextName[];
  /** Why all had to be taken, where what texts hold cannot decide it; empty where it could. */
  undecided: readonly string[];
  /** How many are among them because they are not indexed yet. */
  unknown: number;
}

/**
 * Finds the texts of a profile that a change of its rules can touch, without reading any of them.
 *
 * @param kept the earlier edition by which they are shown, for those that a release left as they were; null for those that follow
 * @param questionFor the change as a question, for texts that were written with a role
 */
export async function candidatesFor(
  sequelize: Sequelize,
  profileId: string,
  kept: number | null,
  questionFor: (role: string) => ReachQuestion,
): Promise<Candidates> {
  const select = <Row extends object>(sql: string, replacements: unknown[]): Promise<Row[]> =>
    sequelize.query<Row>(sql, { replacements, type: QueryTypes.SELECT });
  const roles = await select<{ role: string }>('SELECT DISTINCT role FROM document_fields WHERE profile_id = ? AND kept_edition <=> ?', [
    profileId,
    kept,
  ]);
  const found = new Map<string, TextName>();
  const undecided = new Set<string>();
  let unknown = 0;
  for (const { role } of roles) {
    const question = questionFor(role);
    for (const reason of question.undecided) undecided.add(reason);
    const holding = question.undecided.length > 0 ? null : await askedFeatures(select, question);
    const texts = await select<TextName & { isUnknown: number }>(
      `SELECT f.document_id AS document, f.field_key AS field, t.id IS NULL AS isUnknown FROM ${INDEXED}
       WHERE f.profile_id = ? AND f.kept_edition <=> ? AND f.role = ?${holding === null ? '' : ` AND (t.id IS NULL OR ${asksOf(question.whole, holding)})`}`,
      [profileId, kept, role],
    );
    for (const { document, field, isUnknown } of texts) {
      if (Number(isUnknown) !== 0) unknown++;
      found.set(`${document}/${field}`, { document, field });
    }
  }
  return { texts: [...found.values()].sort(byName), undecided: [...undecided], unknown };
}

type Select = <Row extends object>(sql: string, replacements: unknown[]) => Promise<Row[]>;

/** Texts in the order in which they are named. */
export function byName(one: TextName, other: TextName): number {
  if (one.document !== other.document) return one.document < other.document ? -1 : 1;
  return one.field === other.field ? 0 : one.field < other.field ? -1 : 1;
}

/** The things that a question asks for, by their numbers. */
async function askedFeatures(select: Select, question: ReachQuestion): Promise<number[]> {
  const asked: number[] = [];
  const elements = await select<{ id: number; element: string; cut: string }>(
    "SELECT id, element, cut FROM features WHERE attribute = ''",
    [],
  );
  for (const { id, element, cut } of elements) if (cut === 'name' || question.asksElement(element)) asked.push(id);
  const attributes = await select<{ element: string; attribute: string; cut: number }>(
    "SELECT element, attribute, MAX(cut = 'name') AS cut FROM features WHERE attribute <> '' GROUP BY element, attribute",
    [],
  );
  for (const { element, attribute, cut } of attributes) {
    if (Number(cut) === 0 && !question.mayAskAttribute(element, attribute)) continue;
    const values = await select<{ id: number; value: string; cut: string }>(
      'SELECT id, value, cut FROM features WHERE element = ? AND attribute = ?',
      [element, attribute],
    );
    for (const { id, value, cut: part } of values) if (part !== '' || question.asksValue({ element, attribute, value })) asked.push(id);
  }
  return asked;
}

/** Of an indexed text `t` the condition that it holds what is asked for. */
function asksOf(whole: WholeQuestion, features: readonly number[]): string {
  const mask = FLAGGED.reduce((sum, flag) => sum + (whole[flag] ? FLAGS[flag] : 0), 0);
  const conditions = [
    ...(mask === 0 ? [] : [`(t.flags & ${mask}) <> 0`]),
    ...(whole.length === Infinity ? [] : [`t.length >= ${whole.length}`]),
    ...(whole.nodes === Infinity ? [] : [`t.nodes >= ${whole.nodes}`]),
    ...(features.length === 0 ? [] : [`t.id IN (SELECT h.text_id FROM text_features AS h WHERE h.feature_id IN (${features.join()}))`]),
  ];
  return conditions.length === 0 ? 'FALSE' : conditions.join(' OR ');
}

const FLAGGED = ['hasComments', 'hasHardSpaces', 'isBeyondAscii'] as const;
