import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import type { TextName } from '../features/candidates';

/** A text that a release left as it was. */
export interface LeftText extends TextName {
  title: string;
  /** The edition by which it is shown. */
  edition: number;
}

/** So many texts are named by one statement. */
const AT_ONCE = 500;

/** Leaves texts as they are: they are shown by an edition until somebody edits them. One that was left before keeps its own. */
export async function leave(
  sequelize: Sequelize,
  profile: string,
  edition: number,
  texts: readonly TextName[],
  transaction: Transaction,
): Promise<void> {
  for (let at = 0; at < texts.length; at += AT_ONCE)
    await sequelize.query(
      `UPDATE document_fields SET kept_edition = COALESCE(kept_edition, ?)
       WHERE profile_id = ? AND (document_id, field_key) IN (?)`,
      {
        replacements: [edition, profile, texts.slice(at, at + AT_ONCE).map(({ document, field }) => [document, field])],
        type: QueryTypes.UPDATE,
        transaction,
      },
    );
}

/** Texts of a profile that releases left as they were, by their names. */
export function leftTexts(sequelize: Sequelize, profile: string, limit: number, after: TextName | null): Promise<LeftText[]> {
  return sequelize.query<LeftText>(
    `SELECT f.document_id AS document, f.field_key AS field, d.title, f.kept_edition AS edition
     FROM document_fields AS f JOIN documents AS d ON d.id = f.document_id
     WHERE f.profile_id = :profile AND f.kept_edition IS NOT NULL
       AND (f.document_id > :document OR (f.document_id = :document AND f.field_key > :field))
     ORDER BY f.document_id, f.field_key LIMIT :limit`,
    { replacements: { profile, limit, document: after?.document ?? '', field: after?.field ?? '' }, type: QueryTypes.SELECT },
  );
}

/** Lets texts follow the last edition again; says how many did not. */
export async function follow(sequelize: Sequelize, profile: string, texts: readonly TextName[]): Promise<number> {
  const [, changed] = await sequelize.query(
    'UPDATE document_fields SET kept_edition = NULL WHERE profile_id = ? AND kept_edition IS NOT NULL AND (document_id, field_key) IN (?)',
    { replacements: [profile, texts.map(({ document, field }) => [document, field])], type: QueryTypes.UPDATE },
  );
  return texts.length - Number(changed);
}
