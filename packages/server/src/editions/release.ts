import { Op, type Sequelize, type Transaction } from 'sequelize';
import { DraftHistoryModel, type ProfileEditionModel } from '../db/models';
import { inTransaction } from '../db/transaction';
import { houseLimits } from '../rules';

/** What is kept of a release beside what was released. */
export interface Reasons {
  note: string;
  accepted: { what: string; why: string }[];
  reach: ProfileEditionModel['reach'];
}

/** Why nothing was released. */
export interface Refusal {
  is: 'missing' | 'outdated' | 'same' | 'forbidden' | 'mistaken';
  detail: string;
}

/** Carries a refusal out of a transaction, so that nothing of it stays. */
class Refused extends Error {
  constructor(readonly refusal: Refusal) {
    super(refusal.detail);
  }
}

/** Releases in one transaction: all of it, or nothing where it is refused at any point. */
export async function allOrNothing<Released extends { is: 'released' }>(
  sequelize: Sequelize,
  committing: () => void,
  act: (transaction: Transaction) => Promise<Released | Refusal>,
): Promise<Released | Refusal> {
  try {
    return await inTransaction(
      sequelize,
      async (transaction) => {
        const made = await act(transaction);
        if (made.is !== 'released') throw new Refused(made);
        return made;
      },
      { committing },
    );
  } catch (error) {
    if (error instanceof Refused) return error.refusal;
    throw error;
  }
}

/** Whether the house has nobody release what they changed. */
export async function wantsSecondPerson(transaction?: Transaction): Promise<boolean> {
  return (await houseLimits(transaction))?.release?.secondPerson === true;
}

/** Why somebody may not release a draft: because they changed it, where the house wants another person; null where they may. */
export async function refusalOf(profileId: string, since: number, by: string, transaction?: Transaction): Promise<string | null> {
  if (by === '' || !(await wantsSecondPerson(transaction))) return null;
  const own = await DraftHistoryModel.count({
    where: { profileId, savedBy: by, revision: { [Op.gt]: since } },
    ...(transaction === undefined ? {} : { transaction }),
  });
  return own === 0
    ? null
    : `You changed the draft of "${profileId}" since its last edition: the house limits have somebody else release it.`;
}
