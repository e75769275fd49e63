import type { JsonObject } from '@typikon/core';
import type { Sequelize, Transaction } from 'sequelize';
import { DraftHistoryModel, ProfileEditionModel, ProfileModel, type SharedEditionModel } from '../db/models';
import type { TextName } from '../features/candidates';
import { leave } from './left';
import { allOrNothing, refusalOf, type Reasons, type Refusal } from './release';
import { chainFrom, inputsOf, isSameChain, lastEdition, resolveChain, type Chain } from './repository';
import { PARTS } from './parts';
import { releaseShared, type LookedAtShared } from './shared-service';

/** A draft that was looked at. */
export interface LookedAt {
  id: string;
  isOf: (revision: number) => boolean;
}

/** What became of a release. */
export type Release = { is: 'released'; editions: ProfileEditionModel[]; shared: SharedEditionModel[] } | Refusal;

/** All that is released at once, all or none. */
export interface Together {
  /** What is meant, by its id: a profile, or something that the whole site has once. Of the others a draft may say what was released. */
  meant: string;
  profiles: readonly LookedAt[];
  shared: readonly LookedAtShared[];
}

/** Releases of profiles and of what the whole site has once, several together or none. */
export class EditionService {
  constructor(
    private readonly sequelize: Sequelize,
    private readonly committing: () => void,
  ) {}

  /**
   * Releases drafts as the next editions.
   *
   * @param by the person who releases them, by id
   * @param left texts of the profile itself that are shown by the edition before until somebody edits them
   */
  async release(
    { meant, profiles: drafts, shared }: Together,
    reasons: Reasons,
    by: string,
    left: readonly TextName[] = [],
  ): Promise<Release> {
    return allOrNothing(this.sequelize, this.committing, async (transaction): Promise<Release> => {
      const profiles = new Map<string, ProfileModel>();
      // In one order, so that two releases do not wait for each other.
      for (const { id, isOf } of [...drafts].sort((one, other) => (one.id < other.id ? -1 : 1))) {
        const profile = await ProfileModel.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
        if (profile === null) return { is: 'missing', detail: `There is no profile "${id}".` };
        if (!isOf(profile.revision))
          return { is: 'outdated', detail: `Somebody else has saved the profile "${id}" since you looked at it. Nothing was released.` };
        profiles.set(id, profile);
      }
      const released: SharedEditionModel[] = [];
      // In one order, too: what there is to write may name a kind of page that is released with it.
      for (const one of [...shared].sort((a, b) => PARTS.indexOf(a.part) - PARTS.indexOf(b.part))) {
        const release = await releaseShared(one, reasons, by, transaction);
        if (release.is === 'released') released.push(release.edition);
        else if (release.is !== 'same' || one.part === meant) return release;
      }
      const editions: ProfileEditionModel[] = [];
      for (const { id } of drafts) {
        const profile = profiles.get(id)!;
        const chain = await chainToRelease(id, (other) => profiles.get(other)?.document, transaction);
        const resolution = resolveChain(chain);
        if (!resolution.ok)
          return {
            is: 'mistaken',
            detail: resolution.problems.map(({ profile: at, pointer, message }) => `${at}${pointer}: ${message}`).join(' '),
          };
        const last = await lastEdition(id, transaction);
        if (last !== null && isSameChain(last.chain, chain)) {
          if (id !== meant) continue;
          return { is: 'same', detail: `The draft of "${id}" says what edition ${last.number} says. There is nothing to release.` };
        }
        const refusal = await refusalOf(id, last?.fromRevision ?? 0, by, transaction);
        if (refusal !== null) return { is: 'forbidden', detail: `${refusal} Nothing was released.` };
        editions.push(await this.store(id, last, chain, profile.revision, null, { ...reasons, by }, transaction));
        if (id === meant && last !== null) await leave(this.sequelize, id, last.number, left, transaction);
      }
      return { is: 'released', editions, shared: released };
    });
  }

  /**
   * Releases an earlier edition again, as a new one. A draft in which nothing was changed since the last release follows.
   *
   * @param isLast whether a number is that of the last edition that was seen
   */
  async takeBack(id: string, number: number, isLast: (number: number) => boolean, note: string, by: string): Promise<Release> {
    return allOrNothing(this.sequelize, this.committing, async (transaction): Promise<Release> => {
      const profile = await ProfileModel.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
      const then = await ProfileEditionModel.findOne({ where: { profileId: id, number }, transaction });
      const last = await lastEdition(id, transaction);
      if (profile === null || then === null || last === null)
        return { is: 'missing', detail: `There is no edition ${number} of the profile "${id}".` };
      if (!isLast(last.number))
        return { is: 'outdated', detail: `Edition ${last.number} was released since you looked. Nothing was taken back.` };
      if (isSameChain(then.chain, last.chain))
        return { is: 'same', detail: `Edition ${number} says what edition ${last.number} says. There is nothing to take back.` };
      const document = then.chain[0]!.document;
      let revision = profile.revision;
      if (isSameChain([last.chain[0]!], [{ id, document: profile.document }])) {
        revision++;
        await profile.update({ document, revision }, { transaction });
        await DraftHistoryModel.create({ profileId: id, revision, document }, { transaction });
      }
      const reasons = { note, accepted: [], reach: null, by };
      return { is: 'released', editions: [await this.store(id, last, then.chain, revision, number, reasons, transaction)], shared: [] };
    });
  }

  private async store(
    profileId: string,
    last: ProfileEditionModel | null,
    chain: Chain,
    fromRevision: number,
    backTo: number | null,
    { by, ...reasons }: Reasons & { by: string },
    transaction: Transaction,
  ): Promise<ProfileEditionModel> {
    const made = {
      profileId,
      number: (last?.number ?? 0) + 1,
      chain: [...chain],
      fromRevision,
      backTo,
      ...reasons,
      inputs: await inputsOf(chain, transaction),
      releasedBy: by,
    };
    return ProfileEditionModel.create(made, { transaction });
  }
}

/**
 * What would be released of a profile: what it extends stands as it was released last, unless its draft is released as well.
 *
 * @param draftOf the drafts that are released; that of the profile is among them
 */
export async function chainToRelease(
  id: string,
  draftOf: (id: string) => JsonObject | undefined,
  transaction?: Transaction,
): Promise<Chain> {
  const drafts = chainFrom(id, draftOf);
  const parent = drafts[drafts.length - 1]?.document['extends'];
  if (typeof parent !== 'string' || drafts.some((link) => link.id === parent)) return drafts;
  return [...drafts, ...((await lastEdition(parent, transaction))?.chain ?? [])];
}
