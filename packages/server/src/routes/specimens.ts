import { createRoute, z } from '@hono/zod-openapi';
import { needs } from '@typikon/api';
import { expectationSchema, idSchema, payloadSchema, specimenSchema } from '@typikon/core';
import type { Context } from 'hono';
import { Op, UniqueConstraintError, type Sequelize, type Transaction } from 'sequelize';
import { ProfileModel, SpecimenModel } from '../db/models';
import { inTransaction } from '../db/transaction';
import { problem, type ProblemResponse } from '../problem';
import { etagHeader, etagOf, matches } from './entity-tags';
import { fitting, linkHeader, linkNext, pageOf, pageQuery } from './pages';
import { failure, json, router } from './shared';

const storedSchema = z
  .object({
    id: z.string(),
    name: z.string(),
    kind: z.string(),
    notes: z.string(),
    profileId: z.string(),
    arrives: z.enum(['paste', 'stored']),
    payload: payloadSchema,
    expectations: z.array(expectationSchema),
    revision: z.int(),
  })
  .openapi('Specimen');
const summarySchema = storedSchema
  .omit({ payload: true })
  .extend({ size: z.int().describe('How long its payload is, in bytes of JSON.') })
  .openapi('SpecimenSummary');
const MOST_SUMMARIES = 500;
const MOST_CONTENTS = 100;
const newSchema = specimenSchema.extend({ id: idSchema }).openapi('NewSpecimen');
const parameters = z.object({ id: idSchema });
const headers = z.object({ 'if-match': z.string().optional() });

const listRoute = createRoute({
  method: 'get',
  path: '/specimens',
  ...needs('read'),
  summary: 'The specimens, without what was on their clipboards',
  request: { query: z.object(pageQuery(MOST_SUMMARIES)) },
  responses: { 200: { ...json(z.array(summarySchema), 'The specimens, in their order'), headers: linkHeader } },
});
const contentsRoute = createRoute({
  method: 'get',
  path: '/specimens/contents',
  ...needs('read'),
  summary: 'Specimens with all that was on their clipboards',
  description: 'As many as fit into a megabyte, and at least one.',
  request: { query: z.object(pageQuery(MOST_CONTENTS)) },
  responses: { 200: { ...json(z.array(storedSchema), 'The specimens, in their order'), headers: linkHeader } },
});
const readRoute = createRoute({
  method: 'get',
  path: '/specimens/{id}',
  ...needs('read'),
  summary: 'One specimen with all that was on its clipboard',
  request: { params: parameters },
  responses: { 200: { ...json(storedSchema, 'The specimen'), headers: etagHeader }, 404: failure('There is no such specimen') },
});
const addRoute = createRoute({
  method: 'post',
  path: '/specimens',
  ...needs('design'),
  summary: 'Adds a specimen',
  request: { body: { required: true, ...json(newSchema, 'The specimen, typikon-specimen/1, with the id it is to have') } },
  responses: {
    201: { ...json(storedSchema, 'It is there now'), headers: etagHeader },
    409: failure('There is already one with this id'),
    422: failure('The specimen has mistakes; `problems` lists them with their places'),
  },
});
const changeRoute = createRoute({
  method: 'put',
  path: '/specimens/{id}',
  ...needs('design'),
  summary: 'Changes a specimen',
  description: 'Needs If-Match with the entity tag of the specimen that was edited.',
  request: { params: parameters, headers, body: { required: true, ...json(specimenSchema, 'The whole specimen') } },
  responses: {
    200: { ...json(storedSchema, 'It is stored'), headers: etagHeader },
    404: failure('There is no such specimen'),
    412: failure('Somebody else has changed it since'),
    422: failure('The specimen has mistakes; `problems` lists them with their places'),
    428: failure('If-Match is missing'),
  },
});
const removeRoute = createRoute({
  method: 'delete',
  path: '/specimens/{id}',
  ...needs('design'),
  summary: 'Removes a specimen',
  request: { params: parameters, headers },
  responses: {
    204: { description: 'It is gone' },
    404: failure('There is no such specimen'),
    412: failure('Changed since'),
    428: failure('If-Match is missing'),
  },
});

const asJson = ({ id, name, kind, notes, profileId, arrives, payload, expectations, revision }: SpecimenModel) => ({
  id,
  name,
  kind,
  notes,
  profileId,
  arrives,
  payload,
  expectations,
  revision,
});

/** Specimens: what profiles are tried on. What is in them is shown as text or run through the passes, never as it is. */
export function specimens(sequelize: Sequelize, committing: () => void) {
  return router()
    .openapi(listRoute, async (context) => {
      const { limit, after } = context.req.valid('query');
      const rows = await SpecimenModel.findAll({
        where: await behind(after),
        order: [['position', 'ASC']],
        attributes: { exclude: ['payload'] },
        limit: limit + 1,
      });
      return context.json(
        pageOf(context, rows, limit, ({ id }) => id).map((specimen) => {
          const { payload: _left, ...summary } = asJson(specimen);
          return { ...summary, size: specimen.size };
        }),
        200,
      );
    })
    .openapi(contentsRoute, async (context) => {
      const { limit, after } = context.req.valid('query');
      const sizes = await SpecimenModel.findAll({
        where: await behind(after),
        order: [['position', 'ASC']],
        attributes: ['id', 'size'],
        limit: limit + 1,
      });
      const ids = sizes.slice(0, Math.min(limit, fitting(sizes))).map(({ id }) => id);
      const rows = await SpecimenModel.findAll({ where: { id: ids }, order: [['position', 'ASC']] });
      if (ids.length < sizes.length) linkNext(context, ids[ids.length - 1]!);
      return context.json(rows.map(asJson), 200);
    })
    .openapi(readRoute, async (context) => {
      const { id } = context.req.valid('param');
      const specimen = await SpecimenModel.findByPk(id);
      if (specimen === null) return problem(context, 404, `There is no specimen "${id}".`);
      context.header('ETag', etagOf(specimen.revision));
      return context.json(asJson(specimen), 200);
    })
    .openapi(addRoute, async (context) => {
      const { id, profile, name, kind, notes, arrives, payload, expectations } = context.req.valid('json');
      if ((await ProfileModel.count({ where: { id: profile } })) === 0) return noProfile(context, profile);
      try {
        const created = await inTransaction(
          sequelize,
          (transaction) =>
            SpecimenModel.create({ id, name, kind, notes, profileId: profile, arrives, payload, expectations }, { transaction }),
          { committing },
        );
        context.header('ETag', etagOf(1));
        return context.json(asJson(created), 201);
      } catch (error) {
        if (error instanceof UniqueConstraintError)
          return problem(context, 409, `There is already a specimen "${id}". Choose another name.`);
        throw error;
      }
    })
    .openapi(changeRoute, async (context) => {
      const { profile, name, kind, notes, arrives, payload, expectations } = context.req.valid('json');
      if ((await ProfileModel.count({ where: { id: profile } })) === 0) return noProfile(context, profile);
      return onOne(sequelize, committing, context, async (specimen, transaction) => {
        const revision = specimen.revision + 1;
        await specimen.update({ name, kind, notes, profileId: profile, arrives, payload, expectations, revision }, { transaction });
        context.header('ETag', etagOf(revision));
        return context.json(asJson(specimen), 200);
      });
    })
    .openapi(removeRoute, async (context) => {
      return onOne(sequelize, committing, context, async (specimen, transaction) => {
        await specimen.destroy({ transaction });
        return context.body(null, 204);
      });
    });
}

/** Specimens behind one in their order. */
async function behind(after: string | undefined) {
  const last = after === undefined ? null : await SpecimenModel.findByPk(after, { attributes: ['position'] });
  return last === null ? {} : { position: { [Op.gt]: last.position } };
}

/** Does something to the specimen that the address names, once If-Match says that it is the one that was seen. */
async function onOne<Answer extends Response>(
  sequelize: Sequelize,
  committing: () => void,
  context: Context,
  act: (specimen: SpecimenModel, transaction: Transaction) => Promise<Answer>,
): Promise<Answer | ProblemResponse> {
  const id = context.req.param('id') ?? '';
  const ifMatch = context.req.header('if-match');
  if (ifMatch === undefined) return problem(context, 428, 'Send If-Match with the entity tag of the specimen that was edited.');
  const change = async (transaction: Transaction): Promise<Answer | ProblemResponse> => {
    const specimen = await SpecimenModel.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
    if (specimen === null) return problem(context, 404, `There is no specimen "${id}".`);
    if (!matches(ifMatch, specimen.revision))
      return problem(context, 412, 'Somebody else has changed this specimen since you opened it. Nothing was changed.', {
        current: asJson(specimen),
      });
    return act(specimen, transaction);
  };
  return inTransaction(sequelize, change, { committing });
}

function noProfile(context: Context, id: string) {
  return problem(context, 422, `/profile: there is no profile "${id}".`, {
    problems: [{ profile: '', pointer: '/profile', message: `there is no profile "${id}"` }],
  });
}
