import { createRoute, z } from '@hono/zod-openapi';
import { needs } from '@typikon/api';
import { LikenessFigureModel } from '../db/models';
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
/** So many figures of the past are told. */
const MOST_FIGURES = 2000;

const figuresRoute = createRoute({
  method: 'get',
  path: '/likeness/figures',
  ...needs('read'),
  summary: 'How alike the editor and the page were over time, for each profile and page kind that have documents',
  responses: { 200: json(z.array(figureSchema), 'The figures, the oldest first') },
});
/** What the comparison of the editing surface with the page leaves. */
export function likeness() {
  return router().openapi(figuresRoute, async (context) => {
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
  });
}
