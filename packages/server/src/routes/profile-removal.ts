import { contract } from '@typikon/api';
import type { Sequelize, Transaction } from 'sequelize';
import { DocumentFieldModel } from '../db/document-models';
import { DraftHistoryModel, LikenessCountModel, LikenessFigureModel, ProfileModel, SpecimenModel } from '../db/models';
import { FallbackProfileModel, StatementProfileModel } from '../db/site-models';
import { inTransaction } from '../db/transaction';
import { problem } from '../problem';
import { matches } from './entity-tags';
import { router } from './shared';

/** Profiles that are no longer wanted: what would miss one, and taking it away. */
export function profileRemoval(sequelize: Sequelize, committing: () => void) {
  return router()
    .openapi(contract.useOfProfile, async (context) => {
      const { id } = context.req.valid('param');
      if ((await ProfileModel.count({ where: { id } })) === 0) return problem(context, 404, `There is no profile "${id}".`);
      return context.json(await useOf(id), 200);
    })
    .openapi(contract.removeProfile, async (context) => {
      const { id } = context.req.valid('param');
      const ifMatch = context.req.header('if-match');
      if (ifMatch === undefined) return problem(context, 428, 'Send If-Match with the entity tag of the profile that was seen.');
      const remove = async (transaction: Transaction) => {
        const profile = await ProfileModel.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
        if (profile === null) return problem(context, 404, `There is no profile "${id}".`);
        if (!matches(ifMatch, profile.revision))
          return problem(context, 412, 'Somebody else has saved this profile since you opened it. It is still there.');
        const { extendedBy, statements, isFallback } = await useOf(id, transaction);
        const users = [
          ...(extendedBy.length > 0 ? [`${extendedBy.join(', ')} ${extendedBy.length === 1 ? 'extends' : 'extend'} it`] : []),
          ...(statements > 0
            ? [`${statements === 1 ? 'a statement says' : `${statements} statements say`} that somebody writes with it`]
            : []),
          ...(isFallback ? ['it is for what no statement fits'] : []),
        ];
        if (users.length > 0) return problem(context, 409, `The profile "${id}" is still in use: ${users.join('; ')}. It is still there.`);
        for (const model of [DraftHistoryModel, LikenessFigureModel, LikenessCountModel])
          await (model as typeof DraftHistoryModel).destroy({ where: { profileId: id }, transaction });
        await profile.destroy({ transaction });
        return context.body(null, 204);
      };
      return await inTransaction(sequelize, remove, { committing });
    });
}

async function useOf(profileId: string, transaction?: Transaction) {
  const at = transaction === undefined ? {} : { transaction };
  const others = await ProfileModel.findAll({ order: ['id'], ...at });
  return {
    extendedBy: others.filter(({ document }) => document['extends'] === profileId).map(({ id }) => id),
    statements: await StatementProfileModel.count({ where: { profileId }, ...at }),
    isFallback: (await FallbackProfileModel.count({ where: { profileId }, ...at })) > 0,
    documents: await DocumentFieldModel.count({ where: { profileId }, distinct: true, col: 'documentId', ...at }),
    specimens: await SpecimenModel.count({ where: { profileId }, ...at }),
  };
}
