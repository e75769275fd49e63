import { firstPlace, parseFragment, renderedText, takeCensus, titleField, type ContentType, type PageKind, type Site } from '@typikon/core';
import { Op, QueryTypes, type Sequelize, type Transaction, type WhereOptions } from 'sequelize';
import { DocumentFieldModel, DocumentModel } from '../db/document-models';
import { PageKindModel } from '../db/models';
import { indexTexts, type TextToIndex } from '../features/repository';
import type { StoredDocument } from './document';
import { keepTaken, type TakenStep } from './taken';
import { isHidden } from '../publishing/repository';
import { keepVersion, type How } from './versions';
import { searchFor } from './words';

/** What documents are looked for by. */
export interface DocumentQuery {
  type?: string | undefined;
  words?: string | undefined;
  by?: string | undefined;
  profile?: string | undefined;
  ids?: readonly string[] | undefined;
  /** Only documents of which a version waits for approval, or of which readers do not see the last one. */
  public?: 'asked' | 'not' | undefined;
  sort: 'changed' | 'title';
  order?: 'asc' | 'desc' | undefined;
  limit: number;
  after?: string | undefined;
}

export interface DocumentSummary {
  id: string;
  title: string;
  type: string;
  changedAt: Date;
  changedBy: string;
  profiles: string[];
  revision: number;
  publicRevision: number | null;
  askedRevision: number | null;
}

/** Fewer documents than this are put in order by themselves. */
const FEW = 5000;
/**
 * Documents that fit, one more than the page holds, and how many fit in all.
 *
 * @returns no documents behind one that is not there
 */
export async function findDocuments(sequelize: Sequelize, query: DocumentQuery): Promise<{ documents: DocumentSummary[]; count: number }> {
  const conditions: string[] = [];
  const values: Record<string, unknown> = { ...query, most: query.limit + 1 };
  if (query.type !== undefined) conditions.push('d.type_id = :type');
  if (query.by !== undefined) conditions.push('d.changed_by = :by');
  if (query.public === 'asked') conditions.push('d.asked_revision IS NOT NULL');
  if (query.public === 'not') conditions.push('NOT (d.public_revision <=> d.revision)');
  if (query.ids !== undefined) conditions.push(query.ids.length === 0 ? 'FALSE' : 'd.id IN (:ids)');
  if (query.profile !== undefined) conditions.push(await savedBy(sequelize, query.profile, values));
  const search = searchFor(query.words ?? '', 'd.words', { beside: 'd.words', alone: 'd.title' }, values);
  conditions.push(...search.conditions);
  const fits = conditions.length === 0 ? '' : `WHERE ${conditions.join(' AND ')}`;
  const column = query.sort === 'title' ? 'd.title' : 'd.changed_at';
  const isUp = (query.order ?? (query.sort === 'title' ? 'asc' : 'desc')) === 'asc';
  const [sign, direction] = isUp ? ['>', 'ASC'] : ['<', 'DESC'];
  let behind = fits;
  if (query.after !== undefined) {
    const last = await DocumentModel.findByPk(query.after, { attributes: ['title', 'changedAt'], raw: true });
    if (last === null) return { documents: [], count: await countOf(sequelize, fits, values) };
    values['last'] = query.sort === 'title' ? last.title : last.changedAt;
    behind = `${fits === '' ? 'WHERE' : `${fits} AND`} (${column} ${sign} :last OR (${column} = :last AND d.id ${sign} :after))`;
  }
  // To look for words takes its time: the first page is found and counted at once.
  const isOneLook = search.isIndexed && query.after === undefined;
  const counted = isOneLook ? null : await countOf(sequelize, fits, values);
  // Where few fit, all are looked at and those put in order: to go through the order until enough are found takes longer.
  const index = counted === null || counted < FEW ? 'IGNORE INDEX FOR ORDER BY (documents_changed_at, documents_title_id)' : '';
  // Only what puts them in order is carried through the sorting.
  const found = `SELECT d.id, ${column} AS place${isOneLook ? ', COUNT(*) OVER () AS n' : ''}
     FROM documents AS d ${index} ${behind} ORDER BY ${column} ${direction}, d.id ${direction} LIMIT :most`;
  const rows = await sequelize.query<Omit<DocumentSummary, 'profiles'> & { profiles: string; n?: number }>(
    `SELECT d.id, d.title, d.type_id AS type, d.changed_at AS changedAt, d.changed_by AS changedBy, d.profiles, d.revision,
       d.public_revision AS publicRevision, d.asked_revision AS askedRevision${isOneLook ? ', found.n' : ''}
     FROM (${found}) AS found JOIN documents AS d ON d.id = found.id ORDER BY found.place ${direction}, d.id ${direction}`,
    { replacements: values, type: QueryTypes.SELECT },
  );
  const count = counted ?? Number(rows[0]?.n ?? 0);
  return { documents: await Promise.all(rows.map(async ({ n: _n, ...row }) => ({ ...row, profiles: await profilesIn(row) }))), count };
}

async function profilesIn({ id, profiles }: { id: string; profiles: string }): Promise<string[]> {
  if (profiles !== MANY_PROFILES) return profiles.split(',').filter((one) => one !== '');
  const fields = await DocumentFieldModel.findAll({ where: { documentId: id }, attributes: ['profileId'], raw: true });
  return [...new Set(fields.flatMap(({ profileId }) => profileId ?? []))].sort();
}

async function countOf(sequelize: Sequelize, fits: string, replacements: Record<string, unknown>): Promise<number> {
  const [row] = await sequelize.query<{ n: number }>(`SELECT COUNT(*) AS n FROM documents AS d ${fits}`, {
    replacements,
    type: QueryTypes.SELECT,
  });
  return Number(row?.n ?? 0);
}

/** A document with its fields; null where there is none. */
export async function loadDocument(id: string, transaction?: Transaction, isLocked = false): Promise<StoredDocument | null> {
  const by = transaction === undefined ? {} : { transaction };
  const lock = isLocked && transaction !== undefined ? { lock: transaction.LOCK.UPDATE } : {};
  const document = await DocumentModel.findByPk(id, { ...by, ...lock, attributes: { exclude: ['words', 'profiles'] } });
  if (document === null) return null;
  const fields = await DocumentFieldModel.findAll({
    where: { documentId: id },
    attributes: { exclude: ['census'] },
    order: [['fieldKey', 'ASC']],
    ...by,
  });
  const { title, typeId, pageKindId, createdAt, changedAt, changedBy, revision, publicRevision, askedRevision } = document;
  return {
    id,
    title,
    type: typeId,
    pageKind: pageKindId,
    createdAt,
    changedAt,
    changedBy,
    revision,
    publicRevision,
    askedRevision,
    fields: fields.map(({ fieldKey, value, profileId, role, revision: of, taken, edition, keptEdition }) => ({
      key: fieldKey,
      value,
      profile: profileId,
      role,
      revision: of,
      taken: taken.split(',').filter((name) => name !== ''),
      edition,
      keptEdition,
    })),
  };
}

/** Every kind of page, by id. */
export async function pageKinds(transaction?: Transaction): Promise<Map<string, PageKind>> {
  const all = await PageKindModel.findAll(transaction === undefined ? {} : { transaction });
  return new Map(all.map(({ id, definition }) => [id, definition]));
}

/** What a document is found by: its title and all that a reader sees in its fields. */
export function wordsOf(title: string, fields: readonly { value: string; profile: string | null }[]): string {
  return [title, ...fields.map(({ value, profile }) => (profile === null ? value : renderedText(parseFragment(value).root)))].join('\n');
}

/** More profiles than are kept beside a document: its fields are asked for them. */
const MANY_PROFILES = ',*,';
/** So many letters of ids are kept beside a document. */
const MOST_PROFILE_LETTERS = 1000;

/** The profiles of a document's texts, as they are kept beside it: each once, with commas around it. */
export function profilesOf(fields: readonly { profile: string | null }[]): string {
  const ids = [...new Set(fields.flatMap(({ profile }) => profile ?? []))].sort();
  const kept = ids.length === 0 ? '' : `,${ids.join(',')},`;
  return kept.length > MOST_PROFILE_LETTERS ? MANY_PROFILES : kept;
}

/** The condition that a text of the document was last saved by a profile. There are few different lists of profiles beside documents. */
async function savedBy(sequelize: Sequelize, profile: string, values: Record<string, unknown>): Promise<string> {
  const all = await sequelize.query<{ profiles: string }>('SELECT DISTINCT profiles FROM documents', { type: QueryTypes.SELECT });
  const lists = all.map(({ profiles }) => profiles).filter((list) => list.split(',').includes(profile));
  values['lists'] = lists.length === 0 ? [''] : lists;
  const listed = lists.length === 0 ? 'FALSE' : 'd.profiles IN (:lists)';
  if (!all.some(({ profiles }) => profiles === MANY_PROFILES)) return listed;
  const asked = 'EXISTS (SELECT 1 FROM document_fields AS f WHERE f.document_id = d.id AND f.profile_id = :profile)';
  return `(${listed} OR (d.profiles = '${MANY_PROFILES}' AND ${asked}))`;
}

/**
 * Stores a document as it is now in the place of what was there, and keeps this state as a version. The row must be locked.
 *
 * @param before what was there; null for a document that is new
 * @param by how it came about, what the rules took meanwhile, and who had it stored where that is not its author
 */
export async function storeDocument(
  {
    id,
    title,
    type,
    pageKind,
    changedBy,
    revision,
    fields,
  }: Omit<StoredDocument, 'createdAt' | 'changedAt' | 'publicRevision' | 'askedRevision'>,
  before: StoredDocument | null,
  ofType: ContentType,
  { how, steps = [], savedBy = changedBy }: { how: How; steps?: readonly TakenStep[]; savedBy?: string },
  transaction: Transaction,
): Promise<void> {
  const sequelize = DocumentFieldModel.sequelize!;
  const changedAt = new Date();
  // What somebody took from readers stays away until somebody shows it again.
  const stays = before !== null && before.publicRevision === null && (await isHidden(sequelize, id, transaction));
  const row = {
    title,
    typeId: type,
    pageKindId: pageKind,
    changedAt,
    changedBy,
    revision,
    publicRevision: stays ? null : publicAfter(revision, before, ofType, how),
    askedRevision: ofType.publishing === 'at-once' ? null : (before?.askedRevision ?? null),
    words: wordsOf(title, fields),
    profiles: profilesOf(fields),
  };
  if (before === null) await DocumentModel.create({ id, ...row, createdAt: changedAt }, { transaction });
  else {
    await DocumentModel.update(row, { where: { id }, transaction });
    // What was stored before versions were kept is one, too.
    await keepVersion(sequelize, before, 'written', transaction);
  }
  const kinds = await pageKinds(transaction);
  const known = new Map(before?.fields.map((field) => [field.key, field]));
  const texts: TextToIndex[] = [];
  for (const { key, value, profile, role, revision: of, taken = [], edition = null } of fields) {
    const was = known.get(key);
    if (was !== undefined && was.value === value && was.profile === profile && was.role === role) continue;
    const census = profile === null ? null : takeCensus(parseFragment(value).root);
    const pageKindId = firstPlace({ ...ofType, pageKind }, key, kinds);
    const field = { value, profileId: profile, role, census, revision: of, pageKindId, taken: taken.join(','), edition, keptEdition: null };
    if (was === undefined) await DocumentFieldModel.create({ documentId: id, fieldKey: key, ...field }, { transaction });
    else
      await DocumentFieldModel.update(
        { ...field, size: Buffer.byteLength(value) },
        { where: { documentId: id, fieldKey: key }, transaction },
      );
    if (profile !== null) texts.push({ documentId: id, fieldKey: key, revision: of, html: value });
  }
  if (texts.length > 0) await indexTexts(sequelize, texts, transaction);
  const gone = [...known.keys()].filter((key) => !fields.some((field) => field.key === key));
  if (gone.length > 0) await DocumentFieldModel.destroy({ where: { documentId: id, fieldKey: gone }, transaction });
  const { publicRevision, askedRevision } = row;
  const now = { id, title, type, pageKind, changedBy: savedBy, revision, publicRevision, askedRevision, fields, changedAt };
  await keepVersion(sequelize, now, how, transaction);
  await keepTaken(sequelize, now, before, how, steps, transaction);
}

/** The version that readers see after a save. What the house converts or moves is shown where what it was made of was. */
function publicAfter(revision: number, before: StoredDocument | null, { publishing }: ContentType, how: How): number | null {
  if (publishing === 'at-once') return revision;
  const isHouses = how === 'converted' || how === 'retyped';
  return isHouses && before?.publicRevision === before?.revision ? revision : (before?.publicRevision ?? null);
}

/** Ids that begin with one, or are it. */
export async function idsLike(id: string, transaction: Transaction): Promise<Set<string>> {
  const where: WhereOptions = { id: { [Op.startsWith]: id } };
  return new Set((await DocumentModel.findAll({ where, attributes: ['id'], raw: true, transaction })).map((row) => row.id));
}

/** Works out again on which kind of page each field shows first, after templates or types were changed. */
export async function placeFields({ types }: Pick<Site, 'types'>, transaction: Transaction): Promise<void> {
  const kinds = await pageKinds(transaction);
  const used = await DocumentModel.findAll({
    attributes: ['typeId', 'pageKindId'],
    group: ['typeId', 'pageKindId'],
    raw: true,
    transaction,
  });
  const { sequelize } = DocumentFieldModel;
  for (const { typeId, pageKindId } of used) {
    const type = types.find(({ id }) => id === typeId);
    if (type === undefined) continue;
    for (const { key } of type.fields) {
      const place = firstPlace({ ...type, pageKind: pageKindId }, key, kinds);
      await sequelize!.query(
        `UPDATE document_fields AS f JOIN documents AS d ON d.id = f.document_id SET f.page_kind_id = ?
         WHERE d.type_id = ? AND d.page_kind_id = ? AND f.field_key = ? AND f.page_kind_id <> ?`,
        { replacements: [place, typeId, pageKindId, key, place], type: QueryTypes.UPDATE, transaction },
      );
    }
  }
}

/** Works out on which kind of page each field of some documents of one type shows first, after they were given that type. */
export async function placeFieldsOf(ids: readonly string[], type: ContentType, transaction: Transaction): Promise<void> {
  if (ids.length === 0) return;
  const kinds = await pageKinds(transaction);
  for (const { key } of type.fields)
    await DocumentFieldModel.update(
      { pageKindId: firstPlace(type, key, kinds) },
      { where: { documentId: [...ids], fieldKey: key }, transaction },
    );
}

/** The field whose value is the document's title as well; null where the title stands alone. */
export const titleKey = (type: ContentType): string | null => titleField(type)?.key ?? null;
