import { QueryTypes, type Sequelize } from 'sequelize';
import type { StoredDocument } from '../documents/document';
import { loadDocument } from '../documents/repository';
import { versionAt } from '../documents/versions';

/** A document as one of its versions has it; null where there is none. */
export async function documentAt(sequelize: Sequelize, id: string, revision: number): Promise<StoredDocument | null> {
  const document = await loadDocument(id);
  if (document === null || document.revision === revision) return document;
  const version = await versionAt(sequelize, id, revision);
  if (version === null) return null;
  const fields = version.fields.map((field) => ({ ...field, revision }));
  return { ...document, title: version.title, revision, changedAt: version.savedAt, changedBy: version.savedBy, fields };
}

/** A document as readers see it; null where they do not. */
export async function publicDocument(sequelize: Sequelize, id: string): Promise<StoredDocument | null> {
  const document = await loadDocument(id);
  if (document === null || document.publicRevision === null) return null;
  return document.publicRevision === document.revision ? document : documentAt(sequelize, id, document.publicRevision);
}

/** What readers can look at, by its type and its title. */
export function publicDocuments(sequelize: Sequelize, most: number): Promise<{ id: string; title: string; typeId: string }[]> {
  return sequelize.query(
    `SELECT d.id, COALESCE(v.title, d.title) AS title, d.type_id AS typeId FROM documents AS d
     LEFT JOIN document_versions AS v ON v.document_id = d.id AND v.revision = d.public_revision AND d.public_revision <> d.revision
     WHERE d.public_revision IS NOT NULL ORDER BY d.type_id, COALESCE(v.title, d.title) LIMIT ?`,
    { replacements: [most], type: QueryTypes.SELECT },
  );
}
