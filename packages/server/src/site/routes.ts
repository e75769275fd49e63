import { contract, PERSON_HEADER } from '@typikon/api';
import type { Json } from '@typikon/core';
import type { Context } from 'hono';
import { actingAs, actingPerson, idOfActing, type Acting } from '../auth/acting';
import { problem } from '../problem';
import { etagOf, matches } from '../routes/entity-tags';
import { router } from '../routes/shared';
import type { SiteSave, SiteService } from './service';

/** Content types, fields and help, roles and people, and who writes where with what. */
export function site(service: SiteService) {
  return router()
    .openapi(contract.readSite, async (context) => {
      const stored = await service.read();
      context.header('ETag', etagOf(stored.revision));
      return context.json(stored.site, 200);
    })
    .openapi(contract.saveSite, async (context) => {
      const ifMatch = context.req.header('if-match');
      if (ifMatch === undefined) return problem(context, 428, 'Send If-Match with the entity tag of the site that was edited.');
      const by = idOfActing((await service.current()).site, context);
      return answered(context, await service.save(context.req.valid('json') as Json, (revision) => matches(ifMatch, revision), by));
    })
    .openapi(contract.readSiteDraft, async (context) => {
      const stored = await service.readDraft();
      context.header('ETag', etagOf(stored.revision));
      return context.json(stored.site, 200);
    })
    .openapi(contract.saveSiteDraft, async (context) => {
      const ifMatch = context.req.header('if-match');
      if (ifMatch === undefined) return problem(context, 428, 'Send If-Match with the entity tag of the site that was edited.');
      const by = idOfActing((await service.current()).site, context);
      return answered(context, await service.saveDraft(context.req.valid('json') as Json, (revision) => matches(ifMatch, revision), by));
    })
    .openapi(contract.whyThisProfile, async (context) => {
      const question = context.req.valid('query');
      const answer = await service.why(question);
      if (answer === null) return problem(context, 404, `There is no field "${question.field}" of a content type "${question.type}".`);
      return context.json({ ...answer, choices: [...answer.choices], beaten: [...answer.beaten] }, 200);
    })
    .openapi(contract.whoActs, async (context) => {
      const { site: now } = await service.current();
      const told = ({ id, label, roles, rights }: Acting) => ({
        id,
        label,
        roles: now.roles.filter((role) => roles.includes(role.id)).map((role) => ({ id: role.id, label: role.label })),
        rights: [...rights],
      });
      const acting = actingPerson(now, context.req.header(PERSON_HEADER));
      return context.json(
        { acting: acting == null ? null : told(acting), people: now.people.map((person) => told(actingAs(now, person))) },
        200,
      );
    });
}

/** What became of a save, as it is answered. */
function answered(context: Context, result: SiteSave) {
  switch (result.is) {
    case 'saved':
      context.header('ETag', etagOf(result.stored.revision));
      return context.json(result.stored.site, 200);
    case 'mistaken':
      return problem(context, 422, result.problems.map(({ pointer, message }) => `${pointer}: ${message}`).join('; '), {
        problems: result.problems,
      });
    case 'outdated':
      return problem(context, 412, 'Somebody else has changed the site since you opened it. Nothing of yours was saved.', {
        current: result.current,
      });
    case 'in-use':
      return problem(context, 409, `${result.detail} Nothing was saved.`);
  }
}
