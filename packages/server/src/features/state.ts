import { QueryTypes, type Sequelize } from 'sequelize';

/** Something that is another whenever a text of a profile, or of any where none is named, is stored, comes or goes. */
export async function stateOfTexts(sequelize: Sequelize, profileId: string | null): Promise<unknown> {
  const [state] = await sequelize.query<object>(
    `SELECT COUNT(*) AS texts, SUM(CAST(f.revision AS UNSIGNED) * (1 + CRC32(CONCAT(f.document_id, '/', f.field_key)) % 1000003)) AS revisions, COUNT(t.id) AS indexed, COUNT(f.kept_edition) AS left_as_they_are
     FROM document_fields AS f LEFT JOIN text_index AS t
       ON t.document_id = f.document_id AND t.field_key = f.field_key AND t.revision = f.revision
     WHERE f.profile_id ${profileId === null ? 'IS NOT NULL' : '= ?'}`,
    { replacements: profileId === null ? [] : [profileId], type: QueryTypes.SELECT },
  );
  return state;
}
