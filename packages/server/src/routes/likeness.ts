import { createRoute, z } from '@hono/zod-openapi';
import { cleanWithoutLedger, idSchema, type CompiledRules } from '@typikon/core';
import { DocumentModel, LikenessFigureModel } from '../db/models';
import { rulesOf } from '../rules';
import { json, router } from './shared';

const figureSchema = z
  .object({
    profileId: z.string(),
    pageKindId: z.string(),
    elements: z.int(),
    alike: z.int(),
    causes: z.int(),
    takenAt: z.string(),
  })
  .openapi('LikenessFigure');
const publishedSchema = z
  .object({ id: z.string(), title: z.string(), profileId: z.string(), pageKindId: z.string(), html: z.string() })
  .openapi('PublishedDocument');

/** So many figures of the past are told. */
const MOST_FIGURES = 2000;

const figuresRoute = createRoute({
  method: 'get',
  path: '/likeness/figures',
  summary: 'How alike the editor and the page were over time, for each profile and page kind that have documents',
  responses: { 200: json(z.array(figureSchema), 'The figures, the oldest first') },
});
const publishedRoute = createRoute({
  method: 'get',
  path: '/documents/published',
  summary: 'Stored documents with their markup as it is published: cleaned by the rules of their profile',
  request: { query: z.object({ profile: idSchema.optional(), pageKind: idSchema.optional() }) },
  responses: { 200: json(z.array(publishedSchema), 'The documents') },
});

/** What the comparison of the editing surface with the page needs and leaves. */
export function likeness() {
  return router()
    .openapi(figuresRoute, async (context) => {
      const all = await LikenessFigureModel.findAll({ order: [['id', 'DESC']], limit: MOST_FIGURES });
      return context.json(
        all.reverse().map(({ profileId, pageKindId, elements, alike, causes, takenAt }) => ({
          profileId,
          pageKindId,
          elements,
          alike,
          causes,
          takenAt: takenAt.toISOString(),
        })),
        200,
      );
    })
    .openapi(publishedRoute, async (context) => {
      const { profile, pageKind } = context.req.valid('query');
      const all = await DocumentModel.findAll({
        where: { ...(profile === undefined ? {} : { profileId: profile }), ...(pageKind === undefined ? {} : { pageKindId: pageKind }) },
        order: [['title', 'ASC']],
        attributes: { exclude: ['census'] },
      });
      const rules = new Map<string, CompiledRules>();
      const published: z.output<typeof publishedSchema>[] = [];
      let begin = performance.now();
      for (const { id, title, profileId, pageKindId, html, role } of all) {
        const key = `${profileId} ${role}`;
        let compiled = rules.get(key);
        if (compiled === undefined) rules.set(key, (compiled = await rulesOf(profileId, role)));
        // Other requests are not kept waiting by a large site.
        if (performance.now() - begin > 20) {
          await new Promise(setImmediate);
          begin = performance.now();
        }
        published.push({ id, title, profileId, pageKindId, html: cleanWithoutLedger(html, compiled) });
      }
      return context.json(published, 200);
    });
}
