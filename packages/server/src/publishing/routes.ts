import { contract, PERSON_HEADER } from '@typikon/api';
import type { Context } from 'hono';
import type { Sequelize } from 'sequelize';
import { actingPerson } from '../auth/acting';
import { problem } from '../problem';
import { router } from '../routes/shared';
import type { SiteService } from '../site/service';
import { PublishingService, type PublishingState } from './service';

const STATUS = { missing: 404, forbidden: 403, nothing: 409, outdated: 412, unexplained: 422 } as const;

const told = ({ steps, ...state }: PublishingState) => ({ ...state, steps: steps.map((step) => ({ ...step, at: step.at.toISOString() })) });

/** Which version of a document readers see, and how one comes to be seen. */
export function publishing(sequelize: Sequelize, site: SiteService, siteOrigin: string, committing: () => void) {
  const service = new PublishingService(sequelize, site, committing);
  const actorOf = async (context: Context) => actingPerson((await site.current()).site, context.req.header(PERSON_HEADER)) ?? null;
  const noDocument = (context: Context, id: string) => problem(context, 404, `There is no document "${id}".`);
  return router()
    .openapi(contract.readPublishing, async (context) => {
      const { id } = context.req.valid('param');
      const state = await service.read(id, await actorOf(context));
      return state === null ? noDocument(context, id) : context.json(told(state), 200);
    })
    .openapi(contract.movePublishing, async (context) => {
      const { id } = context.req.valid('param');
      const { step, revision, note } = context.req.valid('json');
      const actor = await actorOf(context);
      const moved = await service.move(id, step, revision, note, actor);
      if (moved.is !== 'moved') return problem(context, STATUS[moved.is], moved.detail);
      const state = await service.read(id, actor);
      return state === null ? noDocument(context, id) : context.json(told(state), 200);
    })
    .openapi(contract.makePreview, async (context) => {
      const { id } = context.req.valid('param');
      const { revision, hours } = context.req.valid('json');
      const preview = await service.preview(id, revision, hours);
      if (preview === null) return problem(context, 404, `There is no version ${revision} of a document "${id}".`);
      return context.json({ address: siteOrigin + preview.path, until: preview.until.toISOString() }, 201);
    });
}
