import type { ContentType } from '@typikon/core';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { inTransaction } from '../db/transaction';

/** Which earlier versions are kept; all, where neither a number nor days are given. */
export type Keeping = ContentType['versions'];

/** Whether anything is ever deleted. */
export const isLimited = ({ last, days }: Keeping): boolean => last !== undefined || days !== undefined;

/**
 * The versions of a type's documents that are not to be kept. The last one, the one that readers see, one that waits for approval and one
 * to which a conversion can be put back stay in any case.
 */
function outdated(type: string, { last, days, public: isPublicKept }: Keeping): { sql: string; replacements: unknown[] } {
  const conditions = [
    'v.revision <> d.revision',
    'NOT (v.revision <=> d.public_revision)',
    'NOT (v.revision <=> d.asked_revision)',
    `NOT EXISTS (SELECT 1 FROM conversion_texts AS c JOIN conversions AS n ON n.id = c.conversion_id
       WHERE c.document_id = v.document_id AND c.before_revision = v.revision AND n.state <> 'undone')`,
    ...(last === undefined ? [] : ['v.place > ?']),
    ...(days === undefined ? [] : ['v.saved_at < NOW(3) - INTERVAL ? DAY']),
    ...(isPublicKept ? ['v.was_public = 0'] : []),
  ];
  return {
    sql: `FROM (SELECT v.document_id, v.revision, v.saved_at, v.was_public,
         ROW_NUMBER() OVER (PARTITION BY v.document_id ORDER BY v.revision DESC) AS place
       FROM document_versions AS v JOIN documents AS d ON d.id = v.document_id WHERE d.type_id = ?) AS v
       JOIN documents AS d ON d.id = v.document_id WHERE ${conditions.join(' AND ')}`,
    replacements: [type, ...[last, days].filter((one) => one !== undefined)],
  };
}

/** How many versions, of how many documents, would be deleted. */
export async function countOutdated(
  sequelize: Sequelize,
  type: string,
  keeping: Keeping,
): Promise<{ versions: number; documents: number }> {
  if (!isLimited(keeping)) return { versions: 0, documents: 0 };
  const { sql, replacements } = outdated(type, keeping);
  const [row] = await sequelize.query<{ versions: number; documents: number }>(
    `SELECT COUNT(*) AS versions, COUNT(DISTINCT v.document_id) AS documents ${sql}`,
    { replacements, type: QueryTypes.SELECT },
  );
  return { versions: Number(row?.versions ?? 0), documents: Number(row?.documents ?? 0) };
}

/**
 * Deletes some of the versions that are not to be kept, with what stood in none but them.
 *
 * @param most so many are deleted
 * @returns how many were
 */
export async function deleteOutdated(sequelize: Sequelize, type: string, keeping: Keeping, most: number): Promise<number> {
  if (!isLimited(keeping)) return 0;
  return inTransaction(sequelize, async (transaction) => {
    const { sql, replacements } = outdated(type, keeping);
    const found = await sequelize.query<{ document: string; revision: number }>(
      `SELECT v.document_id AS document, v.revision ${sql} ORDER BY v.document_id, v.revision LIMIT ?`,
      { replacements: [...replacements, most], type: QueryTypes.SELECT, transaction },
    );
    const versions = found.map(({ document, revision }): [string, number] => [document, revision]);
    if (versions.length > 0) await deleteVersions(sequelize, versions, transaction);
    return versions.length;
  });
}

async function deleteVersions(sequelize: Sequelize, versions: readonly [string, number][], transaction: Transaction): Promise<void> {
  const contents = await sequelize.query<{ hash: string }>(
    'SELECT DISTINCT LOWER(HEX(hash)) AS hash FROM version_fields WHERE (document_id, revision) IN (?)',
    { replacements: [versions], type: QueryTypes.SELECT, transaction },
  );
  await sequelize.query('DELETE FROM document_versions WHERE (document_id, revision) IN (?)', {
    replacements: [versions],
    type: QueryTypes.DELETE,
    transaction,
  });
  if (contents.length === 0) return;
  const [those, hashes] = [`hash IN (${contents.map(() => 'UNHEX(?)').join()})`, contents.map(({ hash }) => hash)];
  // Whoever stores a version that has the same holds it meanwhile: what they stored is there once it is held here.
  await sequelize.query(`SELECT 1 FROM contents WHERE ${those} FOR UPDATE`, {
    replacements: hashes,
    type: QueryTypes.SELECT,
    transaction,
  });
  await sequelize.query(
    `DELETE FROM contents WHERE ${those} AND NOT EXISTS (SELECT 1 FROM version_fields AS f WHERE f.hash = contents.hash)`,
    { replacements: hashes, type: QueryTypes.DELETE, transaction },
  );
}
