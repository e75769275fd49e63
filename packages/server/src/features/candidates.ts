import type { ReachQuestion } from '@typikon/core';
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

/** So many things are asked for by one statement. */
const AT_ONCE = 5000;

/**
 * Finds the texts of a profile that a change of its rules can touch, without reading any of them.
 *
 * @param questionFor the change as a question, for texts that were written with a role
 */
export async function candidatesFor(
  sequelize: Sequelize,
  profileId: string,
  questionFor: (role: string) => Promise<ReachQuestion>,
): Promise<Candidates> {
  const select = <Row extends object>(sql: string, replacements: unknown[]): Promise<Row[]> =>
    sequelize.query<Row>(sql, { replacements, type: QueryTypes.SELECT });
  const roles = await select<{ role: string }>('SELECT DISTINCT role FROM document_fields WHERE profile_id = ?', [profileId]);
  const found = new Map<string, TextName>();
  const undecided = new Set<string>();
  let unknown = 0;
  for (const { role } of roles) {
    const question = await questionFor(role);
    for (const reason of question.undecided) undecided.add(reason);
    const texts = await select<TextName & { id: number | null; nodes: number; length: number; flags: number }>(
      `SELECT f.document_id AS document, f.field_key AS field, t.id, t.nodes, t.length, t.flags FROM ${INDEXED}
       WHERE f.profile_id = ? AND f.role = ?`,
      [profileId, role],
    );
    const holding = question.undecided.length > 0 ? null : await textsHolding(select, await askedFeatures(select, question));
    for (const { document, field, id, nodes, length, flags } of texts) {
      const whole = {
        nodes,
        length,
        hasComments: (flags & FLAGS.hasComments) !== 0,
        hasHardSpaces: (flags & FLAGS.hasHardSpaces) !== 0,
        isBeyondAscii: (flags & FLAGS.isBeyondAscii) !== 0,
      };
      if (id === null) unknown++;
      if (holding === null || id === null || holding.has(id) || question.asksWhole(whole))
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

async function textsHolding(select: Select, features: readonly number[]): Promise<ReadonlySet<number>> {
  const texts = new Set<number>();
  for (let at = 0; at < features.length; at += AT_ONCE)
    for (const { id } of await select<{ id: number }>('SELECT DISTINCT text_id AS id FROM text_features WHERE feature_id IN (?)', [
      features.slice(at, at + AT_ONCE),
    ]))
      texts.add(id);
  return texts;
}
