import type { JsonObject } from '@typikon/core';
import type { Transaction } from 'sequelize';
import { SharedEditionModel } from '../db/models';
import { draftOf, type Part } from './parts';

const by = (transaction: Transaction | undefined) => (transaction === undefined ? {} : { transaction });

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

/** Makes the next edition of something that holds already, without a word about it. */
export async function nextEdition(
  part: Part,
  made: { document: JsonObject; fromRevision: number; releasedBy: string },
  transaction: Transaction,
): Promise<void> {
  const number = ((await lastShared(part, transaction))?.number ?? 0) + 1;
  await SharedEditionModel.create({ part, number, ...made, backTo: null, reach: null }, { transaction });
}

/** Makes the first edition of what was saved for the first time: nothing held before. */
export async function firstEdition(part: Part, releasedBy: string, transaction: Transaction): Promise<void> {
  if ((await SharedEditionModel.count({ where: { part }, transaction })) > 0) return;
  const draft = await draftOf(part, transaction);
  if (draft !== null) await nextEdition(part, { document: draft.document, fromRevision: draft.revision, releasedBy }, transaction);
}
