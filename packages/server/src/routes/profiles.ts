import { createRoute, z } from '@hono/zod-openapi';
import { contract, needs } from '@typikon/api';
import { idSchema, resolveProfile, type JsonObject, type Problem } from '@typikon/core';
import type { Context } from 'hono';
import { Op, UniqueConstraintError, type Sequelize, type Transaction } from 'sequelize';
import { idOfActing } from '../auth/acting';
import { DraftHistoryModel, ProfileModel } from '../db/models';
import { inTransaction } from '../db/transaction';
import { storeFirst } from '../editions/repository';
import { chainToRelease } from '../editions/service';
import { problem } from '../problem';
import type { SiteService } from '../site/service';
import { etagHeader, etagOf, matches } from './entity-tags';
import { linkHeader, pageOf, pageQuery } from './pages';
import { latestChange, newestFirst, pointerQuery, ruleChange } from './rule-history';
import { failure, json, router } from './shared';

const documentSchema = z
  .record(z.string(), z.unknown())
  .openapi('ProfileDocument', { description: 'A profile document, typikon-profile/1 (docs/profile.schema.json).' });
const storedProfile = z
  .object({ id: z.string(), document: documentSchema, revision: z.int(), createdAt: z.iso.datetime(), updatedAt: z.iso.datetime() })
  .openapi('StoredProfile');
const parameters = z.object({ id: idSchema });

const MOST_PROFILES = 50;

const listRoute = createRoute({
  method: 'get',
  path: '/profiles',
  ...needs('read'),
  summary: 'Every profile with its draft',
  request: { query: z.object(pageQuery(MOST_PROFILES)) },
  responses: { 200: { ...json(z.array(storedProfile), 'The profiles, by id'), headers: linkHeader } },
});

const readRoute = createRoute({
  method: 'get',
  path: '/profiles/{id}',
  ...needs('read'),
  summary: 'One profile with its draft',
  request: { params: parameters },
  responses: { 200: { ...json(storedProfile, 'The profile'), headers: etagHeader }, 404: failure('There is no such profile') },
});

const createProfileRoute = createRoute({
  method: 'post',
  path: '/profiles',
  ...needs('design'),
  summary: 'Makes a new profile',
  request: { body: { required: true, ...json(z.object({ id: idSchema, document: documentSchema }), 'The new profile') } },
  responses: {
    201: { ...json(storedProfile, 'The profile was made'), headers: etagHeader },
    409: failure('The id is taken'),
    422: failure('The document has mistakes'),
  },
});

const saveRoute = createRoute({
  method: 'put',
  path: '/profiles/{id}/draft',
  ...needs('design'),
  summary: 'Saves the draft of a profile',
  description:
    'Needs If-Match with the entity tag of the draft that was edited. Where somebody else has saved since, nothing is changed and the answer holds their version.',
  request: {
    params: parameters,
    headers: z.object({ 'if-match': z.string().optional() }),
    body: { required: true, ...json(documentSchema, 'The whole document') },
  },
  responses: {
    200: { ...json(storedProfile, 'It was saved'), headers: etagHeader },
    404: failure('There is no such profile'),
    412: failure('Somebody else has saved since; `current` holds their version'),
    422: failure('The document has mistakes; `problems` lists them with their places'),
    428: failure('If-Match is missing'),
  },
});

const historyRoute = createRoute({
  method: 'get',
  path: '/profiles/{id}/rule-history',
  ...needs('read'),
  summary: 'When a rule of a profile was last changed',
  request: { params: parameters, query: pointerQuery },
  responses: {
    200: json(ruleChange, 'The latest change, or null where the profile has no history'),
    404: failure('There is no such profile'),
  },
});

const asJson = ({ id, document, revision, createdAt, updatedAt }: ProfileModel) => ({
  id,
  document,
  revision,
  createdAt: createdAt.toISOString(),
  updatedAt: updatedAt.toISOString(),
});

/** Profiles and their drafts. */
export function profiles(sequelize: Sequelize, site: SiteService, committing: () => void) {
  return router()
    .openapi(listRoute, async (context) => {
      const { limit, after = '' } = context.req.valid('query');
      const rows = await ProfileModel.findAll({ where: { id: { [Op.gt]: after } }, order: [['id', 'ASC']], limit: limit + 1 });
      return context.json(pageOf(context, rows, limit, ({ id }) => id).map(asJson), 200);
    })
    .openapi(readRoute, async (context) => {
      const { id } = context.req.valid('param');
      const profile = await ProfileModel.findByPk(id);
      if (profile === null) return missing(context, id);
      context.header('ETag', etagOf(profile.revision));
      return context.json(asJson(profile), 200);
    })
    .openapi(historyRoute, async (context) => {
      const { id } = context.req.valid('param');
      const { pointer } = context.req.valid('query');
      const versions = newestFirst((below, limit) =>
        DraftHistoryModel.findAll({ where: { profileId: id, revision: { [Op.lt]: below } }, order: [['revision', 'DESC']], limit }),
      );
      const change = await latestChange(versions, pointer);
      return change === null ? missing(context, id) : context.json(change, 200);
    })
    .openapi(contract.listRevisions, async (context) => {
      const { id } = context.req.valid('param');
      const { limit, after } = context.req.valid('query');
      const behind = after === undefined ? {} : { revision: { [Op.lt]: Number(after) || 0 } };
      const rows = await DraftHistoryModel.findAll({
        where: { profileId: id, ...behind },
        attributes: ['revision', 'savedAt'],
        order: [['revision', 'DESC']],
        limit: limit + 1,
      });
      if (rows.length === 0 && (await ProfileModel.count({ where: { id } })) === 0) return missing(context, id);
      const page = pageOf(context, rows, limit, ({ revision }) => String(revision));
      return context.json(
        page.map(({ revision, savedAt }) => ({ revision, savedAt: savedAt.toISOString() })),
        200,
      );
    })
    .openapi(contract.readRevision, async (context) => {
      const { id, revision } = context.req.valid('param');
      const kept = await DraftHistoryModel.findOne({ where: { profileId: id, revision } });
      if (kept === null) return problem(context, 404, `There is no state ${revision} of the profile "${id}".`);
      return context.json({ revision, savedAt: kept.savedAt.toISOString(), document: kept.document }, 200);
    })
    .openapi(createProfileRoute, async (context) => {
      const { id, document } = context.req.valid('json') as { id: string; document: JsonObject };
      const problems = await problemsWith(id, document);
      if (problems.length > 0) return mistakes(context, problems);
      try {
        const make = async (transaction: Transaction) => {
          if (!(await holdParent(document, transaction))) return null;
          const created = await ProfileModel.create({ id, document }, { transaction });
          const savedBy = idOfActing((await site.current()).site, context);
          await DraftHistoryModel.create({ profileId: id, revision: 1, document, savedBy }, { transaction });
          const chain = await chainToRelease(id, (other) => (other === id ? document : undefined), transaction);
          await storeFirst(id, chain, savedBy, transaction);
          return created;
        };
        const profile = await inTransaction(sequelize, make, { committing });
        if (profile === null) return mistakes(context, await problemsWith(id, document));
        context.header('ETag', etagOf(1));
        return context.json(asJson(profile), 201);
      } catch (error) {
        if (error instanceof UniqueConstraintError)
          return problem(context, 409, `There is already a profile "${id}". Choose another name.`);
        throw error;
      }
    })
    .openapi(saveRoute, async (context) => {
      const { id } = context.req.valid('param');
      const document = context.req.valid('json') as JsonObject;
      const ifMatch = context.req.header('if-match');
      if (ifMatch === undefined) return problem(context, 428, 'Send If-Match with the entity tag of the draft that was edited.');
      const savedBy = idOfActing((await site.current()).site, context);
      const save = async (transaction: Transaction) => {
        const profile = await ProfileModel.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
        if (profile === null) return missing(context, id);
        if (!matches(ifMatch, profile.revision))
          return problem(
            context,
            412,
            'Somebody else has saved this profile since you opened it. Nothing of yours was saved and nothing of theirs was changed.',
            {
              current: asJson(profile),
            },
          );
        await holdParent(document, transaction);
        const problems = await problemsWith(id, document, transaction);
        if (problems.length > 0) return mistakes(context, problems);
        const revision = profile.revision + 1;
        await profile.update({ document, revision }, { transaction });
        await DraftHistoryModel.create({ profileId: id, revision, document, savedBy }, { transaction });
        context.header('ETag', etagOf(revision));
        return context.json(asJson(profile), 200);
      };
      return await inTransaction(sequelize, save, { committing });
    });
}

/** Keeps the profile that a document extends from being taken away meanwhile. @returns whether it is there, or none is extended */
async function holdParent(document: JsonObject, transaction: Transaction): Promise<boolean> {
  const parent = document['extends'];
  return typeof parent !== 'string' || (await ProfileModel.findByPk(parent, { transaction, lock: transaction.LOCK.SHARE })) !== null;
}

/** What would be wrong with a profile, and with those that extend it, if it had this document. */
async function problemsWith(id: string, document: JsonObject, transaction?: Transaction): Promise<Problem[]> {
  const all = await ProfileModel.findAll(transaction === undefined ? {} : { transaction });
  const documents = new Map(all.map((profile) => [profile.id, profile.document]));
  const resolveAt = (at: string): Problem[] => {
    const resolution = resolveProfile(at, (other) => documents.get(other));
    return resolution.ok ? [] : resolution.problems;
  };
  const brokenBefore = new Set([...documents.keys()].filter((other) => resolveAt(other).length > 0));
  documents.set(id, document);
  const own = resolveAt(id);
  if (own.length > 0) return own;
  return [...documents.keys()].filter((other) => other !== id && !brokenBefore.has(other)).flatMap(resolveAt);
}

function missing(context: Context, id: string) {
  return problem(context, 404, `There is no profile "${id}".`);
}

function mistakes(context: Context, problems: Problem[]) {
  return problem(context, 422, problems.map(({ profile, pointer, message }) => `${profile}${pointer}: ${message}`).join(' '), { problems });
}
