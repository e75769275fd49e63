import { createRoute, z } from '@hono/zod-openapi';
import { needs } from '@typikon/api';
import { readHouseLimits, type JsonObject } from '@typikon/core';
import { Op, type Sequelize, type Transaction } from 'sequelize';
import { idOfActing } from '../auth/acting';
import { SettingHistoryModel } from '../db/models';
import { SiteRoleModel } from '../db/site-models';
import { inTransaction } from '../db/transaction';
import { draftOf, saveHouse } from '../editions/parts';
import { firstEdition } from '../editions/shared';
import { problem } from '../problem';
import type { SiteService } from '../site/service';
import { etagHeader, etagOf, matches } from './entity-tags';
import { latestChange, newestFirst, pointerQuery, ruleChange } from './rule-history';
import { failure, json, router } from './shared';

const NAME = 'house-limits' as const;
/** What holds before anybody has set limits. */
const NONE_SET = { format: 'typikon-house/1' };
const houseSchema = z.record(z.string(), z.unknown()).openapi('HouseLimits', { description: 'House limits, typikon-house/1.' });
const roleSchema = z.object({ id: z.string(), name: z.string() }).openapi('Role');

const readRoute = createRoute({
  method: 'get',
  path: '/house-limits',
  ...needs('read'),
  summary: 'The site-wide ceiling on markup, as it is worked on',
  description: 'What holds is its last edition. Where none were set yet, the widest that can be set, with the entity tag "0".',
  responses: { 200: { ...json(houseSchema, 'The house limits'), headers: etagHeader } },
});

const saveRoute = createRoute({
  method: 'put',
  path: '/house-limits',
  ...needs('design'),
  summary: 'Saves the draft of the site-wide ceiling on markup',
  description: 'Needs If-Match with the entity tag of the limits that were edited. They hold once they are released.',
  request: {
    headers: z.object({ 'if-match': z.string().optional() }),
    body: { required: true, ...json(houseSchema, 'The whole document') },
  },
  responses: {
    200: { ...json(houseSchema, 'It is saved'), headers: etagHeader },
    412: failure('Somebody else has changed them since'),
    422: failure('The document has mistakes; `problems` lists them with their places'),
    428: failure('If-Match is missing'),
  },
});

const historyRoute = createRoute({
  method: 'get',
  path: '/house-limits/rule-history',
  ...needs('read'),
  summary: 'When a rule of the house limits was last changed',
  request: { query: pointerQuery },
  responses: { 200: json(ruleChange, 'The latest change, or null where it has been as it is from the begin') },
});

const rolesRoute = createRoute({
  method: 'get',
  path: '/roles',
  ...needs('read'),
  summary: 'The roles that house limits can except',
  responses: { 200: json(z.array(roleSchema), 'The roles') },
});

/** The limits that no profile exceeds, and the roles that can be excepted from them. */
export function house(sequelize: Sequelize, site: SiteService, committing: () => void) {
  return router()
    .openapi(readRoute, async (context) => {
      const draft = await draftOf(NAME);
      context.header('ETag', etagOf(draft?.revision ?? 0));
      return context.json((draft?.document ?? NONE_SET) as Record<string, unknown>, 200);
    })
    .openapi(saveRoute, async (context) => {
      const value = context.req.valid('json') as JsonObject;
      const ifMatch = context.req.header('if-match');
      if (ifMatch === undefined) return problem(context, 428, 'Send If-Match with the entity tag of the house limits that were edited.');
      const read = readHouseLimits(value);
      if (!read.ok)
        return problem(context, 422, read.problems.map(({ pointer, message }) => `${pointer}: ${message}`).join(' '), {
          problems: read.problems,
        });
      const savedBy = idOfActing((await site.current()).site, context);
      const save = async (transaction: Transaction) => {
        const draft = await draftOf(NAME, transaction, true);
        if (!matches(ifMatch, draft?.revision ?? 0))
          return problem(context, 412, 'Somebody else has changed the house limits since you opened them. Nothing of yours was saved.');
        const revision = (draft?.revision ?? 0) + 1;
        await saveHouse({ document: value, revision }, savedBy, transaction);
        await firstEdition(NAME, savedBy, transaction);
        context.header('ETag', etagOf(revision));
        return context.json(value as Record<string, unknown>, 200);
      };
      return await inTransaction(sequelize, save, { committing });
    })
    .openapi(historyRoute, async (context) => {
      const { pointer } = context.req.valid('query');
      const versions = newestFirst(async (below, limit) =>
        (
          await SettingHistoryModel.findAll({
            where: { name: NAME, revision: { [Op.lt]: below } },
            order: [['revision', 'DESC']],
            limit,
          })
        ).map(({ revision, savedAt, value }) => ({ revision, savedAt, document: value as JsonObject })),
      );
      return context.json(await latestChange(versions, pointer), 200);
    })
    .openapi(rolesRoute, async (context) => {
      const roles = await SiteRoleModel.findAll({ order: [['position', 'ASC']] });
      return context.json(
        roles.map(({ id, label }) => ({ id, name: label })),
        200,
      );
    });
}
