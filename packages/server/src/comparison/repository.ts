import { QueryTypes, type Sequelize } from 'sequelize';
import { fitting } from '../routes/pages';

/** So much markup is read at once, in bytes, but always that of one document. */
const MOST_BYTES = 2_000_000;

/** The ids of documents behind one, with how much rich text they hold, one more than asked for. */
async function documentsBehind(sequelize: Sequelize, after: string, limit: number): Promise<{ id: string; size: number }[]> {
  const rows = await sequelize.query<{ id: string; size: string | number | null }>(
    `SELECT d.id, (SELECT SUM(f.size) FROM document_fields AS f WHERE f.document_id = d.id AND f.profile_id IS NOT NULL) AS size
     FROM documents AS d WHERE d.id > :after ORDER BY d.id LIMIT :limit`,
    { replacements: { after, limit: limit + 1 }, type: QueryTypes.SELECT },
  );
  return rows.map(({ id, size }) => ({ id, size: Number(size ?? 0) }));
}

/**
 * The rich texts of some documents, by id.
 *
 * @param after the id of the last document of the page before
 * @returns the texts of each document, one document at least, and whether there are more documents
 */
export async function textsBehind(
  sequelize: Sequelize,
  after: string,
  limit: number,
): Promise<{ documents: { id: string; texts: string[] }[]; hasMore: boolean }> {
  const rows = await documentsBehind(sequelize, after, limit);
  const page = rows.slice(0, limit);
  const ids = page.slice(0, fitting(page, MOST_BYTES)).map(({ id }) => id);
  const texts =
    ids.length === 0
      ? []
      : await sequelize.query<{ id: string; value: string }>(
          'SELECT document_id AS id, value FROM document_fields WHERE document_id IN (:ids) AND profile_id IS NOT NULL',
          { replacements: { ids }, type: QueryTypes.SELECT },
        );
  const of = new Map(ids.map((id): [string, string[]] => [id, []]));
  for (const { id, value } of texts) of.get(id)?.push(value);
  return { documents: [...of].map(([id, held]) => ({ id, texts: held })), hasMore: rows.length > ids.length };
}
