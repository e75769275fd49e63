import { createRoute, z } from '@hono/zod-openapi';
import { cleanWithoutLedger, idSchema } from '@typikon/core';
import { DocumentModel, LikenessFigureModel } from '../db/models';
import { rulesOf } from '../rules';
import { behind } from './content';
import { fitting, linkHeader, linkNext, pageQuery } from './pages';
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

const MOST_PUBLISHED = 200;

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
  description: 'As many as fit into a megabyte, and at least one.',
  request: { query: z.object({ profile: idSchema.optional(), pageKind: idSchema.optional(), ...pageQuery(MOST_PUBLISHED) }) },
  responses: { 200: { ...json(z.array(publishedSchema), 'The documents, by title'), headers: linkHeader } },
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
      const { profile, pageKind, limit, after } = context.req.valid('query');
      const order: [string, string][] = [
        ['title', 'ASC'],
        ['id', 'ASC'],
      ];
      const sizes = await DocumentModel.findAll({
        where: {
          ...(profile === undefined ? {} : { profileId: profile }),
          ...(pageKind === undefined ? {} : { pageKindId: pageKind }),
          ...(await behind(after)),
        },
        order,
        attributes: ['id', 'size'],
        limit: limit + 1,
      });
      const ids = sizes.slice(0, Math.min(limit, fitting(sizes))).map(({ id }) => id);
      if (ids.length < sizes.length) linkNext(context, ids[ids.length - 1]!);
      const all = await DocumentModel.findAll({ where: { id: ids }, order, attributes: { exclude: ['census'] } });
      const published: z.output<typeof publishedSchema>[] = [];
      for (const { id, title, profileId, pageKindId, html, role } of all) {
        const compiled = await rulesOf(profileId, role);
        published.push({ id, title, profileId, pageKindId, html: cleanWithoutLedger(html, compiled) });
      }
      return context.json(published, 200);
    });
}
