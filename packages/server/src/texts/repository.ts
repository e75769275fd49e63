import { QueryTypes, type Sequelize } from 'sequelize';

/** A rich text that stands in a field, without its markup. */
export interface StoredText {
  document: string;
  field: string;
  title: string;
  type: string;
  profileId: string;
  pageKindId: string;
  size: number;
  /** What the rules took of it while it was written, with commas between. */
  taken: string;
}

/** Names a text among all: the id of the document and the key of the field. */
export const textId = ({ document, field }: Pick<StoredText, 'document' | 'field'>): string => `${document}/${field}`;

/**
 * Texts by the title of their document, one more than is asked for.
 *
 * @param of a profile, a kind of page, or what the last one of the page before is called
 */
export async function listTexts(
  sequelize: Sequelize,
  limit: number,
  of: { profile?: string | undefined; pageKind?: string | undefined; after?: string | undefined } = {},
): Promise<StoredText[]> {
  const conditions = ['f.profile_id IS NOT NULL'];
  const values: Record<string, unknown> = { ...of, limit };
  if (of.profile !== undefined) conditions.push('f.profile_id = :profile');
  if (of.pageKind !== undefined) conditions.push('f.page_kind_id = :pageKind');
  if (of.after !== undefined) {
    const [document = '', field = ''] = of.after.split('/');
    const [last] = await sequelize.query<{ title: string }>('SELECT title FROM documents WHERE id = ?', {
      replacements: [document],
      type: QueryTypes.SELECT,
    });
    if (last !== undefined) {
      Object.assign(values, { title: last.title, document, field });
      conditions.push(
        '(d.title > :title OR (d.title = :title AND d.id > :document) OR (d.title = :title AND d.id = :document AND f.field_key > :field))',
      );
    }
  }
  return sequelize.query<StoredText>(
    `SELECT d.id AS document, f.field_key AS field, d.title, d.type_id AS type, f.profile_id AS profileId,
            f.page_kind_id AS pageKindId, f.size, f.taken
     FROM document_fields AS f JOIN documents AS d ON d.id = f.document_id
     WHERE ${conditions.join(' AND ')} ORDER BY d.title, d.id, f.field_key LIMIT :limit`,
    { replacements: values, type: QueryTypes.SELECT },
  );
}

/** How many texts stand in a field of a type with a profile. */
export interface TextCount {
  type: string;
  field: string;
  profileId: string;
  pageKindId: string;
  count: number;
  /** In how many of them the rules took something, by what it is called. */
  taken: Record<string, number>;
}

/** Counts all texts by type, field, profile and kind of page. */
export async function countTexts(sequelize: Sequelize): Promise<TextCount[]> {
  const rows = await sequelize.query<Omit<TextCount, 'taken'> & { names: string }>(
    `SELECT d.type_id AS type, f.field_key AS field, f.profile_id AS profileId, f.page_kind_id AS pageKindId, f.taken AS names, COUNT(*) AS count
     FROM document_fields AS f JOIN documents AS d ON d.id = f.document_id WHERE f.profile_id IS NOT NULL
     GROUP BY d.type_id, f.field_key, f.profile_id, f.page_kind_id, f.taken ORDER BY 1, 2, 3, 4`,
    { type: QueryTypes.SELECT },
  );
  const counts = new Map<string, TextCount>();
  for (const { names, count, ...of } of rows) {
    const key = JSON.stringify(of);
    const known = counts.get(key) ?? { ...of, count: 0, taken: {} };
    counts.set(key, known);
    known.count += Number(count);
    for (const name of names.split(',')) if (name !== '') known.taken[name] = (known.taken[name] ?? 0) + Number(count);
  }
  return [...counts.values()];
}
