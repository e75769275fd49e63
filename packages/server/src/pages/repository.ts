import { pageKindSchema, type PageKind, type Stylesheet } from '@typikon/core';
import type { Transaction } from 'sequelize';
import { DocumentModel } from '../db/document-models';
import { PageKindModel, ProfileModel, SettingHistoryModel, SettingModel, StylesheetHistoryModel, StylesheetModel } from '../db/models';
import { ContentTypeModel } from '../db/site-models';
import { placeFields } from '../documents/repository';
import { loadSite } from '../site/repository';

/** The setting whose revision counts the changes of stylesheets and page kinds, and whose history says who made them. */
const PAGES = 'pages';

/** A change that cannot be made, and what is said of it. */
export class Refusal extends Error {
  constructor(
    readonly status: 409 | 412 | 422,
    detail: string,
  ) {
    super(detail);
  }
}

/** All stylesheets and page kinds, and how often they were changed. */
export async function everything(transaction?: Transaction) {
  const options = transaction === undefined ? {} : { transaction };
  const [stylesheets, pageKinds] = [
    await StylesheetModel.findAll({ order: [['id', 'ASC']], ...options }),
    await PageKindModel.findAll({ order: [['id', 'ASC']], ...options }),
  ];
  const saves = await SettingModel.findByPk(PAGES, { attributes: ['revision'], ...options });
  return {
    revision: saves?.revision ?? 0,
    stylesheets: stylesheets.map(({ id, purpose, media, css, revision: now }) => ({ id, purpose, media, css, revision: now })),
    // What was stored before a setting was there gets its default.
    pageKinds: pageKinds.map(({ definition, revision: now }) => ({ ...pageKindSchema.parse(definition), revision: now })),
  };
}

/** What is stored together: all of it or nothing. What is new has no revision. */
export interface StyleChanges {
  note: string;
  stylesheets: readonly (Stylesheet & { revision: number | null })[];
  pageKinds: readonly (PageKind & { revision: number | null })[];
  removed: {
    stylesheets: readonly { id: string; revision: number }[];
    pageKinds: readonly { id: string; revision: number }[];
  };
}

/**
 * Changes stylesheets and page kinds, each where it is as it was when the change was begun.
 *
 * @throws Refusal where something was changed since, or is still used
 */
export async function changePages(
  { note, stylesheets, pageKinds, removed }: StyleChanges,
  savedBy: string,
  transaction: Transaction,
): Promise<void> {
  const lock = transaction.LOCK.UPDATE;
  const expect = (what: string, id: string, seen: number | null, now: number | undefined): void => {
    if (seen === null && now !== undefined) throw new Refusal(409, `There is already a ${what} "${id}". Choose another name.`);
    if (seen !== null && seen !== now)
      throw new Refusal(412, `Somebody else has changed the ${what} "${id}" since you opened it. Nothing was stored.`);
  };
  await lockPages(transaction);
  // Everything that a change may touch is locked first, by its id: of two changes at once the second waits for the first.
  const ids = (...lists: readonly (readonly { id: string }[])[]): string[] => [...new Set(lists.flat().map(({ id }) => id))].sort();
  for (const id of ids(stylesheets, removed.stylesheets)) await StylesheetModel.findByPk(id, { attributes: ['id'], transaction, lock });
  await PageKindModel.findAll({ attributes: ['id'], order: [['id', 'ASC']], transaction, lock });
  for (const { revision: seen, ...sheet } of stylesheets) {
    const stored = await StylesheetModel.findByPk(sheet.id, { transaction, lock });
    expect('stylesheet', sheet.id, seen, stored?.revision);
    // One that was there before goes on with its numbers, so that no version is lost to another.
    const last = await StylesheetHistoryModel.max<number | null, StylesheetHistoryModel>('revision', {
      where: { stylesheetId: sheet.id },
      transaction,
    });
    const number = Math.max(stored?.revision ?? 0, last ?? 0) + 1;
    if (stored === null) await StylesheetModel.create({ ...sheet, revision: number }, { transaction });
    else await stored.update({ ...sheet, revision: number }, { transaction });
    await StylesheetHistoryModel.create({ stylesheetId: sheet.id, revision: number, css: sheet.css, note }, { transaction });
  }
  for (const { revision: seen, ...definition } of pageKinds) {
    const stored = await PageKindModel.findByPk(definition.id, { transaction, lock });
    expect('page kind', definition.id, seen, stored?.revision);
    if (stored === null) await PageKindModel.create({ id: definition.id, definition }, { transaction });
    else await stored.update({ definition, revision: stored.revision + 1 }, { transaction });
  }
  for (const { id, revision: seen } of removed.pageKinds) {
    const stored = await PageKindModel.findByPk(id, { transaction, lock });
    expect('page kind', id, seen, stored?.revision);
    const documents = await DocumentModel.count({ where: { pageKindId: id }, transaction });
    if (documents > 0) throw new Refusal(409, `${documents} stored documents are pages of the kind "${id}". It stays.`);
    const types = await ContentTypeModel.findAll({ include: ['places'], transaction });
    const using = types.find(({ pageKindId, places = [] }) => pageKindId === id || places.some((place) => place.pageKindId === id));
    if (using !== undefined)
      throw new Refusal(409, `Documents of the content type “${using.label}” show on the page kind "${id}". It stays.`);
    const profiles = (await ProfileModel.findAll({ transaction })).filter(
      ({ document }) => (document['surface'] as { pageKind?: unknown } | undefined)?.pageKind === id,
    );
    if (profiles.length > 0) throw new Refusal(409, `The surface of the profile "${profiles[0]!.id}" stands on the page kind "${id}".`);
    await stored?.destroy({ transaction });
  }
  // What a template prints may show somewhere else now.
  if (pageKinds.length > 0) await placeFields((await loadSite(transaction)).site, transaction);
  for (const { id, revision: seen } of removed.stylesheets) {
    const stored = await StylesheetModel.findByPk(id, { transaction, lock });
    expect('stylesheet', id, seen, stored?.revision);
    await stored?.destroy({ transaction });
  }
  await checkLists(transaction);
  await countSave(note, savedBy, transaction);
}

/** Every page kind names stylesheets that are there. */
async function checkLists(transaction: Transaction): Promise<void> {
  const known = new Set((await StylesheetModel.findAll({ attributes: ['id'], transaction })).map(({ id }) => id));
  const kinds = await PageKindModel.findAll({ transaction });
  if (kinds.length === 0) throw new Refusal(409, 'A site needs at least one kind of page.');
  for (const { definition } of kinds as { definition: PageKind }[])
    for (const id of definition.stylesheets)
      if (!known.has(id))
        throw new Refusal(
          409,
          `The page kind "${definition.id}" loads the stylesheet "${id}", which is not there. Take it off there first.`,
        );
}

/** Keeps others from changing stylesheets and page kinds until the transaction ends. */
export async function lockPages(transaction: Transaction): Promise<void> {
  await SettingModel.findByPk(PAGES, { attributes: ['name'], transaction, lock: transaction.LOCK.UPDATE });
}

/** Counts one more change, and keeps who made it. */
async function countSave(note: string, savedBy: string, transaction: Transaction): Promise<void> {
  const setting = await SettingModel.findByPk(PAGES, { transaction, lock: transaction.LOCK.UPDATE });
  const revision = (setting?.revision ?? 0) + 1;
  if (setting === null) await SettingModel.create({ name: PAGES, value: {}, revision }, { transaction });
  else await setting.update({ revision }, { transaction });
  await SettingHistoryModel.create({ name: PAGES, revision, value: { note }, savedBy }, { transaction });
}
