import { createRoute, z } from '@hono/zod-openapi';
import { fieldKeySchema, idSchema } from '@typikon/core';
import { failure, json } from './common';
import { needs } from './right';

const parameters = z.object({ type: idSchema });

/** So many documents change their type in one request. */
export const MOST_GIVEN = 50;

export const useOfType = createRoute({
  method: 'get',
  path: '/types/{type}/use',
  summary: 'How many documents are of a content type, and in how many something stands in each field',
  ...needs('read'),
  request: { params: parameters },
  responses: {
    200: json(
      z
        .object({
          documents: z.int(),
          fields: z.array(z.object({ key: z.string(), documents: z.int() })).describe('Those that hold something, by key.'),
        })
        .openapi('UseOfType'),
      'What is counted; of a type that is not there, nothing',
    ),
  },
});

export const giveDocuments = createRoute({
  method: 'post',
  path: '/types/{type}/give-documents',
  summary: `Gives documents of a content type another one, ${MOST_GIVEN} at most; asked again until none is left`,
  description:
    'Each becomes a new version of itself, whole or not at all. What stands in a field without a place is in its earlier versions alone. Texts keep the profile that they have.',
  ...needs('administer'),
  request: {
    params: parameters,
    body: {
      required: true,
      ...json(
        z.object({
          to: idSchema.describe('The other content type.'),
          places: z
            .record(fieldKeySchema, fieldKeySchema)
            .describe('Into which field of the other type what stands in a field goes: keys by keys.'),
        }),
        'What they become',
      ),
    },
  },
  responses: {
    200: json(z.object({ given: z.int(), left: z.int().describe('How many documents are still of the type.') }), 'So far they are changed'),
    404: failure('There is no such content type'),
    422: failure('Something cannot stand where it would go'),
  },
});

const keeping = {
  last: z.coerce.number().int().min(1).max(10_000).optional().describe('So many of the last versions of a document are kept.'),
  days: z.coerce.number().int().min(1).max(36_500).optional().describe('All versions of so many days are kept.'),
  public: z.enum(['true', 'false']).default('true').describe('Whether all versions are kept that readers ever saw.'),
};

export const outdatedVersions = createRoute({
  method: 'get',
  path: '/types/{type}/outdated-versions',
  summary: 'How many versions of the documents of a content type would be deleted if so many were kept',
  ...needs('read'),
  request: { params: parameters, query: z.object(keeping) },
  responses: {
    200: json(z.object({ versions: z.int(), documents: z.int() }).openapi('OutdatedVersions'), 'What is counted; nothing is deleted'),
  },
});
