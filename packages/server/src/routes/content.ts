import { createRoute, z } from '@hono/zod-openapi';
import { DocumentModel, PageKindModel, SettingModel, SpecimenModel, StylesheetModel } from '../db/models';
import { json, router } from './shared';

const specimenSchema = z
  .object({ id: z.string(), name: z.string(), kind: z.string(), notes: z.string(), profileId: z.string(), html: z.string() })
  .openapi('Specimen');
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
const houseSchema = z.record(z.string(), z.unknown()).openapi('HouseLimits', { description: 'House limits, typikon-house/1.' });

const specimensRoute = createRoute({
  method: 'get',
  path: '/specimens',
  summary: 'Every specimen with its markup',
  responses: { 200: json(z.array(specimenSchema), 'The specimens, in their order') },
});
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
const houseRoute = createRoute({
  method: 'get',
  path: '/house-limits',
  summary: 'The site-wide ceiling on markup',
  responses: { 200: json(houseSchema, 'The house limits') },
});

/** What profiles are tried on: specimens, documents, page kinds, and the limits above them all. */
export function content() {
  return router()
    .openapi(specimensRoute, async (context) => {
      const all = await SpecimenModel.findAll({ order: [['position', 'ASC']] });
      return context.json(
        all.map(({ id, name, kind, notes, profileId, html }) => ({ id, name, kind, notes, profileId, html })),
        200,
      );
    })
    .openapi(documentsRoute, async (context) => {
      const all = await DocumentModel.findAll({ order: [['title', 'ASC']], attributes: { exclude: ['html'] } });
      return context.json(
        all.map(({ id, title, contentType, profileId, pageKindId }) => ({ id, title, contentType, profileId, pageKindId })),
        200,
      );
    })
    .openapi(pageKindsRoute, async (context) => {
      const sheets = new Map((await StylesheetModel.findAll()).map(({ id, css }) => [id, css]));
      const kinds = await PageKindModel.findAll({ order: [['id', 'ASC']] });
      return context.json(
        kinds.map(({ definition }) => ({ ...definition, css: definition.stylesheets.map((id) => ({ id, css: sheets.get(id) ?? '' })) })),
        200,
      );
    })
    .openapi(houseRoute, async (context) => {
      const setting = await SettingModel.findByPk('house-limits', { rejectOnEmpty: true });
      return context.json(setting.value, 200);
    });
}
