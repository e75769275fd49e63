import { createRoute, z } from '@hono/zod-openapi';
import { sumCensuses, type Census } from '@typikon/core';
import { DocumentModel } from '../db/models';
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

const documentsRoute = createRoute({
  method: 'get',
  path: '/documents',
  summary: 'The stored documents of the site, without their markup',
  responses: { 200: json(z.array(documentSchema), 'The documents, by title') },
});
const censusRoute = createRoute({
  method: 'get',
  path: '/documents/census',
  summary: 'How often each element and attribute occurs in all stored documents, and the most that any one holds',
  responses: { 200: json(censusSchema, 'The counts') },
});

/** The stored documents, as they are listed and counted. */
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
      const all = await DocumentModel.findAll({ attributes: ['census', 'profileId'] });
      const byProfile = new Map<string, Census[]>();
      for (const { census, profileId } of all) byProfile.set(profileId, [...(byProfile.get(profileId) ?? []), census]);
      const classesByProfile = Object.fromEntries([...byProfile].map(([id, censuses]) => [id, sumCensuses(censuses).classes]));
      return context.json({ ...sumCensuses(all.map(({ census }) => census)), classesByProfile }, 200);
    });
}
