import { isSameJson } from '@typikon/core';
import type { Sequelize, Transaction } from 'sequelize';
import { SharedEditionModel } from '../db/models';
import { allOrNothing, wantsSecondPerson, type Reasons, type Refusal } from './release';
import { apply, draftOf, mistakesIn, partName, putBack, savesBy, type Part, type SharedDraft } from './parts';
import { lastShared, sharedAt } from './shared';

/** A draft of something that the whole site has once, as it was looked at. */
export interface LookedAtShared {
  part: Part;
  isOf: (revision: number) => boolean;
}

export type SharedRelease = { is: 'released'; edition: SharedEditionModel } | Refusal;

const atBegin = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

/**
 * Looks whether a draft of something that the whole site has once can be released; it stays as it is until the transaction ends.
 *
 * @param nothing what did not happen where it cannot, as a sentence
 */
export async function readyToRelease(
  { part, isOf }: LookedAtShared,
  by: string,
  transaction: Transaction,
  nothing: string,
): Promise<{ is: 'ready'; draft: SharedDraft; last: SharedEditionModel | null } | Refusal> {
  const name = atBegin(partName(part));
  const draft = await draftOf(part, transaction, true);
  if (draft === null) return { is: 'missing', detail: `${name} were never saved. There is nothing to release.` };
  if (!isOf(draft.revision))
    return { is: 'outdated', detail: `Somebody else has saved ${partName(part)} since you looked at them. ${nothing}` };
  const mistakes = mistakesIn(part, draft.document);
  if (mistakes !== '') return { is: 'mistaken', detail: `${name} have mistakes: ${mistakes} ${nothing}` };
  const last = await lastShared(part, transaction);
  if (last !== null && isSameJson(last.document, draft.document))
    return { is: 'same', detail: `${name} say what edition ${last.number} says. There is nothing to release.` };
  if (by !== '' && (await wantsSecondPerson(transaction)) && (await savesBy(part, last?.fromRevision ?? 0, by, transaction)) > 0)
    return {
      is: 'forbidden',
      detail: `You changed ${partName(part)} since their last edition: the house limits have somebody else release them. ${nothing}`,
    };
  return { is: 'ready', draft, last };
}

/** Releases a draft of something that the whole site has once as its next edition. */
export async function releaseShared(
  looked: LookedAtShared,
  reasons: Reasons,
  releasedBy: string,
  transaction: Transaction,
): Promise<SharedRelease> {
  const ready = await readyToRelease(looked, releasedBy, transaction, 'Nothing was released.');
  if (ready.is !== 'ready') return ready;
  const [{ part }, { draft, last }] = [looked, ready];
  const refusal = await apply(part, draft.document, transaction);
  if (refusal !== '') return { is: 'mistaken', detail: `${refusal} Nothing was released.` };
  const edition = { part, number: (last?.number ?? 0) + 1, document: draft.document, fromRevision: draft.revision, backTo: null };
  return { is: 'released', edition: await SharedEditionModel.create({ ...edition, ...reasons, releasedBy }, { transaction }) };
}

/**
 * Releases an earlier edition again, as a new one. A draft in which nothing was changed since the last release follows.
 *
 * @param isLast whether a number is that of the last edition that was seen
 */
export function takeBackShared(
  sequelize: Sequelize,
  committing: () => void,
  { part, number, isLast, note, by }: { part: Part; number: number; isLast: (number: number) => boolean; note: string; by: string },
): Promise<SharedRelease> {
  return allOrNothing(sequelize, committing, async (transaction): Promise<SharedRelease> => {
    const draft = await draftOf(part, transaction, true);
    const then = await sharedAt(part, number, transaction);
    const last = await lastShared(part, transaction);
    if (draft === null || then === null || last === null)
      return { is: 'missing', detail: `There is no edition ${number} of ${partName(part)}.` };
    if (!isLast(last.number))
      return { is: 'outdated', detail: `Edition ${last.number} was released since you looked. Nothing was taken back.` };
    const { document } = then;
    if (isSameJson(document, last.document))
      return { is: 'same', detail: `Edition ${number} says what edition ${last.number} says. There is nothing to take back.` };
    let { revision } = draft;
    if (isSameJson(last.document, draft.document)) {
      const follows = await putBack(part, document, `Back to edition ${number}`, by, transaction);
      if (typeof follows === 'string') return { is: 'mistaken', detail: `${follows} Nothing was taken back.` };
      revision = follows;
    }
    const refusal = await apply(part, document, transaction);
    if (refusal !== '') return { is: 'mistaken', detail: `${refusal} Nothing was taken back.` };
    const made = { part, number: last.number + 1, document, fromRevision: revision, backTo: number, note, reach: null, releasedBy: by };
    return { is: 'released', edition: await SharedEditionModel.create({ ...made, accepted: [] }, { transaction }) };
  });
}

/**
 * Puts the last edition into the draft.
 *
 * @param isOf whether the draft is as it was when it was looked at
 */
export async function resetShared(
  sequelize: Sequelize,
  committing: () => void,
  { part, isOf, by }: LookedAtShared & { by: string },
): Promise<{ is: 'released'; revision: number } | Refusal> {
  return allOrNothing(sequelize, committing, async (transaction): Promise<{ is: 'released'; revision: number } | Refusal> => {
    const draft = await draftOf(part, transaction, true);
    const last = await lastShared(part, transaction);
    if (draft === null || last === null) return { is: 'missing', detail: `${atBegin(partName(part))} were never released.` };
    if (!isOf(draft.revision))
      return { is: 'outdated', detail: `Somebody else has saved ${partName(part)} since you looked at them. Nothing was taken back.` };
    if (isSameJson(draft.document, last.document)) return { is: 'released', revision: draft.revision };
    const revision = await putBack(part, last.document, `Back to edition ${last.number}`, by, transaction);
    return typeof revision === 'string' ? { is: 'mistaken', detail: `${revision} Nothing was taken back.` } : { is: 'released', revision };
  });
}
