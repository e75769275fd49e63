import { readHouseLimits, type JsonObject } from '@typikon/core';
import { Op, type Transaction } from 'sequelize';
import { SettingHistoryModel, SettingModel, SharedEditionModel } from '../db/models';

/** What the whole site has once, and releases as it releases profiles. */
export type Part = 'house-limits';
export const PARTS: readonly Part[] = ['house-limits'];

/** What is said of each of them. */
const NAMES: Readonly<Record<Part, string>> = { 'house-limits': 'the house limits' };
export const partName = (part: Part): string => NAMES[part];

const by = (transaction: Transaction | undefined) => (transaction === undefined ? {} : { transaction });

/** What is worked on. */
export interface SharedDraft {
  document: JsonObject;
  /** Counts the saves. */
  revision: number;
}

/** The draft of a part; null where nothing was ever saved. */
export async function draftOf(part: Part, transaction?: Transaction, isLocked = false): Promise<SharedDraft | null> {
  const setting = await SettingModel.findByPk(part, {
    ...by(transaction),
    ...(transaction === undefined || !isLocked ? {} : { lock: transaction.LOCK.UPDATE }),
  });
  return setting === null ? null : { document: setting.value as JsonObject, revision: setting.revision };
}

/** Saves a draft over the one that is there. */
export async function saveDraft(
  part: Part,
  { document, revision }: SharedDraft,
  savedBy: string,
  isFirst: boolean,
  transaction: Transaction,
): Promise<void> {
  if (isFirst) await SettingModel.create({ name: part, value: document, revision }, { transaction });
  else await SettingModel.update({ value: document, revision }, { where: { name: part }, transaction });
  await SettingHistoryModel.create({ name: part, revision, value: document, savedBy }, { transaction });
}

/** Why a draft cannot be released; empty where it can. */
export function mistakesIn(part: Part, document: JsonObject): string {
  const read = readHouseLimits(document, part);
  return read.ok ? '' : read.problems.map(({ pointer, message }) => `${pointer}: ${message}`).join(' ');
}

/** How often somebody saved a draft since a state of it. */
export function savesBy(part: Part, since: number, savedBy: string, transaction?: Transaction): Promise<number> {
  return SettingHistoryModel.count({ where: { name: part, savedBy, revision: { [Op.gt]: since } }, ...by(transaction) });
}

/** What holds of a part; null where nothing was released yet. */
export function lastShared(part: Part, transaction?: Transaction): Promise<SharedEditionModel | null> {
  return SharedEditionModel.findOne({ where: { part }, order: [['number', 'DESC']], ...by(transaction) });
}

export function sharedAt(part: Part, number: number, transaction?: Transaction): Promise<SharedEditionModel | null> {
  return SharedEditionModel.findOne({ where: { part, number }, ...by(transaction) });
}

/** The number of the last edition; 0 where there is none. */
export async function stateOfShared(part: Part): Promise<number> {
  return (await SharedEditionModel.max<number | null, SharedEditionModel>('number', { where: { part } })) ?? 0;
}

/** Makes the first edition of what was just made. */
export async function storeFirstShared(part: Part, document: JsonObject, transaction: Transaction): Promise<void> {
  await SharedEditionModel.create({ part, number: 1, document, fromRevision: 1, backTo: null, reach: null }, { transaction });
}
