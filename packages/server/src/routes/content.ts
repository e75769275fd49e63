import { createRoute, z } from '@hono/zod-openapi';
import { sumCensuses } from '@typikon/core';
import { DocumentModel, PageKindModel, StylesheetModel } from '../db/models';
import { json, router } from './shared';

const documentSchema = z
  .object({ id: z.string(), title: z.string(), contentType: z.string(), profileId: z.string(), pageKindId: z.string() })
  .openapi('DocumentSummary');
const pageKindSchema = z
  .object({
    id: z.string(),
    name: z.string(),
    wrapper: z.array(z.object({ element: z.string(), className: z.string().optional() })),
    stylesheets: z.array(z.string()),
    contentWidthPx: z.int(),
    css: z.array(z.object({ id: z.string(), css: z.string() })),
  })
  .openapi('PageKind');

const counts = z.record(z.string(), z.int());
const censusSchema = z
  .object({
    documents: z.int(),
    elements: counts,
    attributes: z.record(z.string(), counts),
    most: z.object({ nesting: z.int(), elements: z.int(), letters: z.int() }),
  })
  .openapi('CensusOfAll');

const documentsRoute = createRoute({
  method: 'get',
  path: '/documents',
  summary: 'The stored documents of the site, without their markup',
  responses: { 200: json(z.array(documentSchema), 'The documents, by title') },
});
const pageKindsRoute = createRoute({
  method: 'get',
  path: '/page-kinds',
  summary: 'The kinds of published page, with the text of their stylesheets',
  responses: { 200: json(z.array(pageKindSchema), 'The page kinds') },
});
const censusRoute = createRoute({
  method: 'get',
  path: '/documents/census',
  summary: 'How often each element and attribute occurs in all stored documents, and the most that any one holds',
  responses: { 200: json(censusSchema, 'The counts') },
});

/** What stands around profiles: documents, page kinds. */
export function content() {
  return router()
    .openapi(documentsRoute, async (context) => {
      const all = await DocumentModel.findAll({ order: [['title', 'ASC']], attributes: { exclude: ['html', 'census'] } });
      return context.json(
        all.map(({ id, title, contentType, profileId, pageKindId }) => ({ id, title, contentType, profileId, pageKindId })),
        200,
      );
    })
    .openapi(censusRoute, async (context) => {
      const all = await DocumentModel.findAll({ attributes: ['census'] });
      return context.json(sumCensuses(all.map(({ census }) => census)), 200);
    })
    .openapi(pageKindsRoute, async (context) => {
      const sheets = new Map((await StylesheetModel.findAll()).map(({ id, css }) => [id, css]));
      const kinds = await PageKindModel.findAll({ order: [['id', 'ASC']] });
      return context.json(
        kinds.map(({ definition }) => ({ ...definition, css: definition.stylesheets.map((id) => ({ id, css: sheets.get(id) ?? '' })) })),
        200,
      );
    });
}
