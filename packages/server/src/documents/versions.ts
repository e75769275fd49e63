import { createHash } from 'node:crypto';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { DocumentVersionModel } from '../db/document-models';
import type { StoredDocument } from './document';

/** By what a version of a document came about. */
export type How = 'made' | 'written' | 'restored' | 'retyped' | 'converted';

/** What stood in a field at a time. */
export interface VersionedField {
  key: string;
  value: string;
  profile: string | null;
  role: string;
  edition: number | null;
}

/** A version of a document without what stood in it: of each field, who wrote it and whether it is another than the version before had. */
export interface ToldVersion {
  revision: number;
  title: string;
  how: How;
  savedAt: Date;
  savedBy: string;
  fields: { key: string; profile: string | null; edition: number | null; isChanged: boolean; bytes: number }[];
}

/** A version of a document with what stood in its fields. */
export interface Version {
  title: string;
  how: How;
  savedAt: Date;
  savedBy: string;
  fields: VersionedField[];
}

/** A document that was stored before versions were kept, or all at once with others, is a version, too. */
export function toldNow({ revision, title, changedAt, changedBy, fields }: StoredDocument): ToldVersion {
  const told = fields.map(({ key, value, profile, edition = null }) => ({
    key,
    profile,
    edition,
    isChanged: true,
    bytes: Buffer.byteLength(value),
  }));
  return { revision, title, how: 'written', savedAt: changedAt, savedBy: changedBy, fields: told };
}

/** The same with what stands in its fields. */
export function versionNow({ title, changedAt, changedBy, fields }: StoredDocument): Version {
  const kept = fields.map(({ key, value, profile, role, edition = null }) => ({ key, value, profile, role, edition }));
  return { title, how: 'written', savedAt: changedAt, savedBy: changedBy, fields: kept };
}

const digestOf = (value: string): string => createHash('sha256').update(value).digest('hex');

/** Keeps a version of a document; what stands in its fields is kept once, however many versions have it. Does nothing where it is kept. */
export async function keepVersion(
  sequelize: Sequelize,
  { id, revision, title, changedAt, changedBy, publicRevision, fields }: Omit<StoredDocument, 'createdAt' | 'type' | 'pageKind'>,
  how: How,
  transaction: Transaction,
): Promise<void> {
  const [, isNew] = await DocumentVersionModel.findOrCreate({
    where: { documentId: id, revision },
    defaults: {
      documentId: id,
      revision,
      title,
      how,
      savedAt: changedAt,
      savedBy: changedBy,
      wasPublic: publicRevision === revision,
    },
    transaction,
  });
  if (!isNew) return;
  // In one order for all, so that two that are stored at once do not wait for each other.
  const kept = fields.map((field) => ({ ...field, hash: digestOf(field.value) })).sort((one, other) => (one.hash < other.hash ? -1 : 1));
  const known = await knownContents(
    sequelize,
    kept.map(({ hash }) => hash),
    transaction,
  );
  for (const { key, value, profile, role, edition, hash } of kept) {
    if (!known.has(hash))
      await sequelize.query('INSERT IGNORE INTO contents (hash, value) VALUES (UNHEX(?), ?)', {
        replacements: [hash, value],
        type: QueryTypes.INSERT,
        transaction,
      });
    await sequelize.query(
      `INSERT INTO version_fields (document_id, revision, field_key, hash, profile_id, role, edition)
       VALUES (?, ?, ?, UNHEX(?), ?, ?, ?)`,
      { replacements: [id, revision, key, hash, profile, role, edition ?? null], type: QueryTypes.INSERT, transaction },
    );
  }
}

/** Which contents are there; they stay there as long as the transaction goes on. */
async function knownContents(sequelize: Sequelize, hashes: readonly string[], transaction: Transaction): Promise<Set<string>> {
  if (hashes.length === 0) return new Set();
  const rows = await sequelize.query<{ hash: string }>(
    `SELECT LOWER(HEX(hash)) AS hash FROM contents WHERE hash IN (${hashes.map(() => 'UNHEX(?)').join(', ')})
     LOCK IN SHARE MODE`,
    { replacements: [...hashes], type: QueryTypes.SELECT, transaction },
  );
  return new Set(rows.map(({ hash }) => hash));
}

/**
 * The versions of a document that were ever stored, the latest first.
 *
 * @param before only those before this one; all where it is not given
 */
export async function versionsOf(sequelize: Sequelize, documentId: string, limit: number, before?: number): Promise<ToldVersion[]> {
  const rows = await sequelize.query<Omit<ToldVersion, 'fields'>>(
    `SELECT revision, title, how, saved_at AS savedAt, saved_by AS savedBy FROM document_versions
     WHERE document_id = ? AND revision < ? ORDER BY revision DESC LIMIT ?`,
    { replacements: [documentId, before ?? 2 ** 32, limit], type: QueryTypes.SELECT },
  );
  if (rows.length === 0) return [];
  const oldest = rows[rows.length - 1]!.revision;
  const fields = await sequelize.query<Omit<ToldVersion['fields'][number], 'isChanged'> & { revision: number; isChanged: number }>(
    `SELECT f.revision, f.field_key AS \`key\`, f.profile_id AS profile, f.edition, LENGTH(c.value) AS bytes,
       NOT (f.hash <=> (SELECT p.hash FROM version_fields AS p WHERE p.document_id = f.document_id AND p.field_key = f.field_key
         AND p.revision = (SELECT MAX(v.revision) FROM document_versions AS v WHERE v.document_id = f.document_id AND v.revision < f.revision)))
         AS isChanged
     FROM version_fields AS f JOIN contents AS c ON c.hash = f.hash
     WHERE f.document_id = ? AND f.revision BETWEEN ? AND ? ORDER BY f.field_key`,
    { replacements: [documentId, oldest, rows[0]!.revision], type: QueryTypes.SELECT },
  );
  const byRevision = new Map<number, ToldVersion['fields']>();
  for (const { revision, isChanged, bytes, ...field } of fields) {
    const list = byRevision.get(revision) ?? [];
    list.push({ ...field, isChanged: Number(isChanged) !== 0, bytes: Number(bytes) });
    byRevision.set(revision, list);
  }
  return rows.map((row) => ({ ...row, fields: byRevision.get(row.revision) ?? [] }));
}

/** A version of a document with what stood in its fields; null where there is none. */
export async function versionAt(
  sequelize: Sequelize,
  documentId: string,
  revision: number,
  transaction?: Transaction,
): Promise<Version | null> {
  const by = transaction === undefined ? {} : { transaction };
  const attributes = ['title', 'how', 'savedAt', 'savedBy'];
  const version = await DocumentVersionModel.findOne({ where: { documentId, revision }, attributes, ...by });
  if (version === null) return null;
  const fields = await sequelize.query<VersionedField>(
    `SELECT f.field_key AS \`key\`, c.value, f.profile_id AS profile, f.role, f.edition
     FROM version_fields AS f JOIN contents AS c ON c.hash = f.hash WHERE f.document_id = ? AND f.revision = ? ORDER BY f.field_key`,
    { replacements: [documentId, revision], type: QueryTypes.SELECT, ...by },
  );
  const { title, how, savedAt, savedBy } = version;
  return { title, how: how as How, savedAt, savedBy, fields };
}
