import { contract } from '@typikon/api';
import type { Sequelize } from 'sequelize';
import { problem } from '../problem';
import { router } from '../routes/shared';
import { FitService } from './service';

/** The least rules that keep stored texts whole. */
export function fit(sequelize: Sequelize) {
  const service = new FitService(sequelize);
  return router()
    .openapi(contract.fitOfTexts, async (context) => {
      const whose = context.req.valid('query');
      const found = await service.look(whose);
      if (found === null) return problem(context, 404, `There is no profile "${whose.profile ?? whose.beside}".`);
      return context.json(found, 200);
    })
    .openapi(contract.profileOfFit, async (context) => {
      const { step, name, ...whose } = context.req.valid('query');
      const profile = await service.profileAt(whose, step, name);
      if (profile === null) return problem(context, 404, `The way has no step ${step}.`);
      return context.json(profile, 200);
    });
}
