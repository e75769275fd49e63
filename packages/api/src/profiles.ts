import { createRoute, z } from '@hono/zod-openapi';
import { idSchema } from '@typikon/core';
import { failure, json } from './common';
import { linkHeader, pageQuery } from './pages';
import { needs } from './right';

const MOST_REVISIONS = 200;
/** So many documents are looked at for one answer. */
const MOST_COUNTED = 200;

const revision = z.coerce.number().int().min(1);
const listed = z.object({ revision: z.int(), savedAt: z.string() });

export const listRevisions = createRoute({
  method: 'get',
  path: '/profiles/{id}/revisions',
  summary: 'Every state of a profile that was ever saved, the latest first',
  ...needs('read'),
  request: { params: z.object({ id: idSchema }), query: z.object(pageQuery(MOST_REVISIONS)) },
  responses: {
    200: { ...json(z.array(listed.openapi('ProfileRevision')), 'The states; `after` takes a revision'), headers: linkHeader },
    404: failure('There is no such profile'),
  },
});

export const readRevision = createRoute({
  method: 'get',
  path: '/profiles/{id}/revisions/{revision}',
  summary: 'A profile as it was once saved',
  ...needs('read'),
  request: { params: z.object({ id: idSchema, revision }) },
  responses: {
    200: json(listed.extend({ document: z.record(z.string(), z.unknown()) }), 'Its own document; what it inherits is its parents’'),
    404: failure('There is no such profile, or no such state of it'),
  },
});

export const countHolding = createRoute({
  method: 'get',
  path: '/comparison',
  summary: 'In how many stored documents each thing stands that two profiles treat differently',
  description:
    'The comparison is computed anew for each answer; each answer counts some documents, and its `Link` header names the next, until all are counted.',
  ...needs('read'),
  request: {
    query: z.object({
      from: idSchema,
      to: idSchema,
      fromRevision: revision.optional().describe('A saved state of the one; the one that holds where it is not given.'),
      toRevision: revision.optional(),
      ...pageQuery(MOST_COUNTED),
    }),
  },
  responses: {
    200: {
      ...json(
        z
          .object({
            lines: z.array(
              z.object({
                subject: z.record(z.string(), z.unknown()).describe('What the line is about.'),
                kept: z.enum(['from', 'to']).describe('Which of the two leaves more of it.'),
                documents: z
                  .int()
                  .nullable()
                  .describe('How many of those that were counted hold it; null of passes, which act on what is pasted.'),
              }),
            ),
            counted: z.int().describe('How many documents this answer counts.'),
            documents: z.int().describe('How many there are in all.'),
          })
          .openapi('HoldingCount'),
        'The counts',
      ),
      headers: linkHeader,
    },
    404: failure('There is no such profile, or no such state of it'),
    422: failure('One of the two has mistakes'),
  },
});
