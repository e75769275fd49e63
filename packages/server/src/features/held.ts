import type { AttributeFeature, WholeFeatures } from '@typikon/core';
import { QueryTypes, type Sequelize } from 'sequelize';
import type { TextName } from './candidates';
import { FLAGS, INDEXED } from './repository';

/** Which texts are meant. */
export interface Whose {
  profile?: string | undefined;
  /** The profile that stands beside the way where the texts are not those of one. */
  beside?: string | undefined;
  type?: string | undefined;
  field?: string | undefined;
  role?: string | undefined;
}

/** A text by what it holds. */
export interface HeldText extends WholeFeatures {
  document: string;
  field: string;
  role: string;
  /** By their numbers. */
  features: Uint32Array;
  /** Whether the index knows all that it holds. */
  isKnown: boolean;
  isWholeByItself: boolean;
  isSameByItself: boolean;
}

/** Something that texts hold. */
export interface HeldFeature extends AttributeFeature {
  /** Whether only its begin is known. */
  isCut: boolean;
}

/** So many texts are read by one statement. */
const TEXTS_AT_ONCE = 20_000;
const FEATURES_AT_ONCE = 20_000;
const NAMES_AT_ONCE = 2000;
const MARKUP_AT_ONCE = 500;

const NONE = new Uint32Array();

type Row = Omit<HeldText, 'features' | 'isKnown' | 'hasHardSpaces' | 'hasBlanks' | 'isWholeByItself' | 'isSameByItself'> & {
  flags: number | null;
  features: string | null;
};

const HELD = `SELECT f.document_id AS document, f.field_key AS field, f.role, t.nodes, t.depth, t.length, t.flags,
    (SELECT GROUP_CONCAT(h.feature_id) FROM text_features AS h WHERE h.text_id = t.id) AS features
  FROM ${INDEXED}`;

const heldOf = ({ flags, features, ...row }: Row): HeldText => ({
  ...row,
  features: features === null ? NONE : Uint32Array.from(features.split(','), Number),
  isKnown: flags !== null,
  hasHardSpaces: has(flags, 'hasHardSpaces'),
  hasBlanks: has(flags, 'hasBlanks'),
  isWholeByItself: has(flags, 'isWholeByItself'),
  isSameByItself: has(flags, 'isSameByItself'),
});

/** The condition for the texts that are meant. */
function conditionFor({ profile, type, field, role }: Whose, values: unknown[]): string {
  const conditions = ['f.profile_id IS NOT NULL'];
  const add = (condition: string, value: unknown): void => {
    conditions.push(condition);
    values.push(value);
  };
  if (profile !== undefined) add('f.profile_id = ?', profile);
  if (type !== undefined) add('f.document_id IN (SELECT d.id FROM documents AS d WHERE d.type_id = ?)', type);
  if (field !== undefined) add('f.field_key = ?', field);
  if (role !== undefined) add('f.role = ?', role);
  return conditions.join(' AND ');
}

/** The texts that are meant, by what they hold: none of them is read. */
export async function heldTexts(sequelize: Sequelize, whose: Whose): Promise<HeldText[]> {
  const texts: HeldText[] = [];
  let last: { document: string; field: string } | null = { document: '', field: '' };
  while (last !== null) {
    const values: unknown[] = [];
    const condition = conditionFor(whose, values);
    const rows: Row[] = await sequelize.query<Row>(
      `${HELD} WHERE ${condition} AND (f.document_id > ? OR (f.document_id = ? AND f.field_key > ?))
       ORDER BY f.document_id, f.field_key LIMIT ${TEXTS_AT_ONCE}`,
      { replacements: [...values, last.document, last.document, last.field], type: QueryTypes.SELECT },
    );
    for (const row of rows) texts.push(heldOf(row));
    last = rows.length < TEXTS_AT_ONCE ? null : rows[rows.length - 1]!;
  }
  return texts;
}

const has = (flags: number | null, flag: keyof typeof FLAGS): boolean => ((flags ?? 0) & FLAGS[flag]) !== 0;

/** Some texts by what they hold, some at a time, in the order of their names; one that was taken away meanwhile is left out. */
export async function* heldByName(sequelize: Sequelize, names: readonly TextName[]): AsyncGenerator<HeldText[]> {
  for (let at = 0; at < names.length; at += NAMES_AT_ONCE) {
    const wanted = names.slice(at, at + NAMES_AT_ONCE).map(({ document, field }) => [document, field]);
    const rows = await sequelize.query<Row>(`${HELD} WHERE (f.document_id, f.field_key) IN (?) ORDER BY f.document_id, f.field_key`, {
      replacements: [wanted],
      type: QueryTypes.SELECT,
    });
    yield rows.map(heldOf);
  }
}

/**
 * What texts hold, by its number.
 *
 * @param held what is known already; what is found is put into it
 */
export async function heldFeatures(
  sequelize: Sequelize,
  texts: readonly HeldText[],
  held = new Map<number, HeldFeature>(),
): Promise<Map<number, HeldFeature>> {
  const unknown = new Set<number>();
  for (const { features } of texts) for (const id of features) if (!held.has(id)) unknown.add(id);
  const numbers = [...unknown];
  for (let at = 0; at < numbers.length; at += FEATURES_AT_ONCE)
    for (const { id, cut, ...feature } of await sequelize.query<AttributeFeature & { id: number; cut: string }>(
      `SELECT id, element, attribute, value, cut FROM features WHERE id IN (${numbers.slice(at, at + FEATURES_AT_ONCE).join()})`,
      { type: QueryTypes.SELECT },
    ))
      held.set(id, { ...feature, isCut: cut !== '' });
  return held;
}

/** Reads what stands in some texts, some at a time; one that was taken away meanwhile is empty. */
export async function* markupOf<Text extends { document: string; field: string }>(
  sequelize: Sequelize,
  texts: readonly Text[],
): AsyncGenerator<readonly [Text, string]> {
  for (let at = 0; at < texts.length; at += MARKUP_AT_ONCE) {
    const part = texts.slice(at, at + MARKUP_AT_ONCE);
    const rows = await sequelize.query<{ document: string; field: string; value: string }>(
      'SELECT document_id AS document, field_key AS field, value FROM document_fields WHERE (document_id, field_key) IN (?)',
      { replacements: [part.map(({ document, field }) => [document, field])], type: QueryTypes.SELECT },
    );
    const values = new Map(rows.map((row) => [`${row.document}/${row.field}`, row.value]));
    for (const text of part) yield [text, values.get(`${text.document}/${text.field}`) ?? ''];
  }
}
