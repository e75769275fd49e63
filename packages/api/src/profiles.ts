import { createRoute, z } from '@hono/zod-openapi';
import { idSchema } from '@typikon/core';
import { failure, ifMatch, json } from './common';
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

export const useOfProfile = createRoute({
  method: 'get',
  path: '/profiles/{id}/use',
  summary: 'What would miss a profile: those that extend it, statements that name it, texts and specimens',
  ...needs('read'),
  request: { params: z.object({ id: idSchema }) },
  responses: {
    200: json(
      z
        .object({
          extendedBy: z.array(z.string()).describe('Profiles that extend it, by id.'),
          statements: z.int().describe('How many statements of who writes with what name it.'),
          isFallback: z.boolean().describe('Whether it is for what no statement fits.'),
          documents: z.int().describe('How many documents have texts that were last saved with it.'),
          specimens: z.int().describe('How many specimens are meant to be tried with it first.'),
        })
        .openapi('UseOfProfile'),
      'What is counted',
    ),
    404: failure('There is no such profile'),
  },
});

export const removeProfile = createRoute({
  method: 'delete',
  path: '/profiles/{id}',
  summary: 'Takes a profile away, with every state of it that was saved',
  description: 'Needs If-Match with the entity tag of its draft. Texts that were last saved with it stay as they are.',
  ...needs('design'),
  request: { params: z.object({ id: idSchema }), headers: ifMatch },
  responses: {
    204: { description: 'It is gone' },
    404: failure('There is no such profile'),
    409: failure('Other profiles extend it, or it is said that somebody writes with it'),
    412: failure('Somebody else has saved it since'),
    428: failure('If-Match is missing'),
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
