import { contract, PERSON_HEADER } from '@typikon/api';
import type { Sequelize } from 'sequelize';
import { actingPerson } from '../auth/acting';
import { countOutdated } from '../documents/retention';
import { problem } from '../problem';
import { router } from '../routes/shared';
import type { SiteService } from '../site/service';
import { TypeService } from './service';

/** How content types are used, and documents that become another's. */
export function types(sequelize: Sequelize, site: SiteService, committing: () => void) {
  const service = new TypeService(sequelize, site, committing);
  return router()
    .openapi(contract.useOfType, async (context) => context.json(await service.use(context.req.valid('param').type), 200))
    .openapi(contract.outdatedVersions, async (context) => {
      const { type } = context.req.valid('param');
      const { last, days, public: isPublicKept } = context.req.valid('query');
      const keeping = { ...(last === undefined ? {} : { last }), ...(days === undefined ? {} : { days }), public: isPublicKept === 'true' };
      return context.json(await countOutdated(sequelize, type, keeping), 200);
    })
    .openapi(contract.giveDocuments, async (context) => {
      const { type } = context.req.valid('param');
      const { to, places } = context.req.valid('json');
      const actor = actingPerson((await site.current()).site, context.req.header(PERSON_HEADER)) ?? null;
      const result = await service.give(type, to, places, actor);
      switch (result.is) {
        case 'given':
          return context.json({ given: result.given, left: result.left }, 200);
        case 'missing':
          return problem(context, 404, result.detail);
        case 'mistaken':
          return problem(context, 422, `${result.detail} Nothing was changed.`);
      }
    });
}
