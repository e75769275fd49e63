import { createRoute, z } from '@hono/zod-openapi';
import { clean, idSchema, parseFragment, takeCensus } from '@typikon/core';
import type { Sequelize, Transaction } from 'sequelize';
import { DocumentModel } from '../db/models';
import { inTransaction } from '../db/transaction';
import { problem } from '../problem';
import { rulesOf, tooManyTags } from '../rules';
import { etagHeader, etagOf, matches } from './entity-tags';
import { failure, json, router } from './shared';

const storedSchema = z
  .object({
    id: z.string(),
    title: z.string(),
    contentType: z.string(),
    profileId: z.string(),
    pageKindId: z.string(),
    html: z.string(),
    revision: z.int(),
  })
  .openapi('Document');
const parameters = z.object({ id: idSchema });
const savedSchema = storedSchema.extend({ changes: z.int() }).openapi('SavedDocument');

const readRoute = createRoute({
  method: 'get',
  path: '/documents/{id}',
  summary: 'A stored document with its markup',
  request: { params: parameters },
  responses: { 200: { ...json(storedSchema, 'The document'), headers: etagHeader }, 404: failure('There is no such document') },
});
const saveRoute = createRoute({
  method: 'put',
  path: '/documents/{id}',
  summary: 'Stores other markup in a document',
  description:
    'Needs If-Match with the entity tag of the document that was edited. The markup is cleaned by the rules of its profile first.',
  request: {
    params: parameters,
    headers: z.object({ 'if-match': z.string().optional() }),
    body: { required: true, ...json(z.object({ html: z.string().max(4_000_000) }), 'The markup') },
  },
  responses: {
    200: { ...json(savedSchema, 'It is stored; `changes` counts what the rules changed'), headers: etagHeader },
    404: failure('There is no such document'),
    412: failure('Somebody else has changed it since'),
    422: failure('It is more than can be cleaned at once'),
    428: failure('If-Match is missing'),
  },
});

const asJson = ({ id, title, contentType, profileId, pageKindId, html, revision }: DocumentModel) => ({
  id,
  title,
  contentType,
  profileId,
  pageKindId,
  html,
  revision,
});

/** Stored documents, one by one. What a browser sends is cleaned before it is stored. */
export function documents(sequelize: Sequelize, committing: () => void) {
  return router()
    .openapi(readRoute, async (context) => {
      const { id } = context.req.valid('param');
      const document = await DocumentModel.findByPk(id);
      if (document === null) return problem(context, 404, `There is no document "${id}".`) as never;
      context.header('ETag', etagOf(document.revision));
      return context.json(asJson(document), 200);
    })
    .openapi(saveRoute, async (context) => {
      const { id } = context.req.valid('param');
      const { html } = context.req.valid('json');
      const ifMatch = context.req.header('if-match');
      if (ifMatch === undefined)
        return problem(context, 428, 'Send If-Match with the entity tag of the document that was edited.') as never;
      const tooMuch = tooManyTags(html);
      if (tooMuch !== null) return problem(context, 422, tooMuch) as never;
      const known = await DocumentModel.findByPk(id, { attributes: ['profileId', 'role'] });
      if (known === null) return problem(context, 404, `There is no document "${id}".`) as never;
      const cleaned = clean(html, await rulesOf(known.profileId, known.role));
      const census = takeCensus(parseFragment(cleaned.html).root);
      const save = async (transaction: Transaction) => {
        const document = await DocumentModel.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE, rejectOnEmpty: true });
        if (!matches(ifMatch, document.revision))
          return problem(context, 412, 'Somebody else has changed this text since you opened it. Nothing of yours was stored.', {
            current: asJson(document),
          });
        await document.update({ html: cleaned.html, census, revision: document.revision + 1 }, { transaction });
        context.header('ETag', etagOf(document.revision));
        return context.json({ ...asJson(document), changes: cleaned.ledger.length }, 200);
      };
      return (await inTransaction(sequelize, save, { committing })) as never;
    });
}
