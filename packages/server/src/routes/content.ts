import { createRoute, z } from '@hono/zod-openapi';
import { CensusSum, type Census } from '@typikon/core';
import { Op } from 'sequelize';
import { DocumentModel } from '../db/models';
import { linkHeader, pageOf, pageQuery } from './pages';
import { json, router } from './shared';

const documentSchema = z
  .object({ id: z.string(), title: z.string(), contentType: z.string(), profileId: z.string(), pageKindId: z.string() })
  .openapi('DocumentSummary');
const counts = z.record(z.string(), z.int());
const censusSchema = z
  .object({
    documents: z.int(),
    elements: counts,
    attributes: z.record(z.string(), counts),
    most: z.object({ nesting: z.int(), elements: z.int(), letters: z.int() }),
    classes: counts,
    classesByProfile: z.record(z.string(), counts),
  })
  .openapi('CensusOfAll');

const MOST_SUMMARIES = 1000;
/** So many censuses are read at once. */
const BATCH = 500;

const documentsRoute = createRoute({
  method: 'get',
  path: '/documents',
  summary: 'The stored documents of the site, without their markup',
  request: { query: z.object(pageQuery(MOST_SUMMARIES)) },
  responses: { 200: { ...json(z.array(documentSchema), 'The documents, by title'), headers: linkHeader } },
});
const censusRoute = createRoute({
  method: 'get',
  path: '/documents/census',
  summary: 'How often each element and attribute occurs in all stored documents, and the most that any one holds',
  responses: { 200: json(censusSchema, 'The counts') },
});

/** Documents behind one in the order of titles. */
export async function behind(after: string | undefined) {
  const last = after === undefined ? null : await DocumentModel.findByPk(after, { attributes: ['id', 'title'] });
  return last === null ? {} : { [Op.or]: [{ title: { [Op.gt]: last.title } }, { title: last.title, id: { [Op.gt]: last.id } }] };
}

/** The stored documents, as they are listed and counted. */
export function content() {
  return router()
    .openapi(documentsRoute, async (context) => {
      const { limit, after } = context.req.valid('query');
      const rows = await DocumentModel.findAll({
        where: await behind(after),
        order: [
          ['title', 'ASC'],
          ['id', 'ASC'],
        ],
        attributes: ['id', 'title', 'contentType', 'profileId', 'pageKindId'],
        limit: limit + 1,
        raw: true,
      });
      return context.json(
        pageOf(context, rows, limit, ({ id }) => id),
        200,
      );
    })
    .openapi(censusRoute, async (context) => {
      const all = new CensusSum();
      const byProfile = new Map<string, CensusSum>();
      for (let last = ''; ;) {
        const rows: { id: string; census: Census; profileId: string }[] = await DocumentModel.findAll({
          where: { id: { [Op.gt]: last } },
          order: [['id', 'ASC']],
          attributes: ['id', 'census', 'profileId'],
          limit: BATCH,
        });
        for (const { census, profileId } of rows) {
          all.add(census);
          const own = byProfile.get(profileId) ?? new CensusSum();
          byProfile.set(profileId, own);
          own.add(census);
        }
        if (rows.length < BATCH) break;
        last = rows[rows.length - 1]!.id;
      }
      const classesByProfile = Object.fromEntries([...byProfile].map(([id, { total }]) => [id, total.classes]));
      return context.json({ ...all.total, classesByProfile }, 200);
    });
}
