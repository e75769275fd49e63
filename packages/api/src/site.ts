import { createRoute, z } from '@hono/zod-openapi';
import { fieldKeySchema, idSchema, type Site } from '@typikon/core';
import { etagHeader, failure, ifMatch, json } from './common';
import { needs } from './right';

const siteDocument = z
  .record(z.string(), z.unknown())
  .openapi('SiteDocument', { description: 'A site document, typikon-site/1 (docs/site.schema.json).' });

/** What the server answers has been read by the schema of the core; what it is sent has not. */
const siteAnswer = siteDocument as unknown as z.ZodType<Site>;

/** Who writes somewhere with what, and by which statement. */
const assignmentSchema = z
  .object({
    profile: z.string().nullable().describe('What the editor starts with; null where nobody may write there.'),
    choices: z.array(z.string()).describe('All that may be chosen, the first of them the default.'),
    statement: z.int().nullable().describe('The place of the statement that won; null where the fallback holds.'),
    beaten: z.array(z.int()).describe('The places of later statements that would fit as well.'),
  })
  .openapi('Assignment');

const idList = z
  .string()
  .max(4000)
  .default('')
  .transform((list) => list.split(',').filter((id) => id !== ''))
  .pipe(z.array(idSchema).max(50));

export const readSite = createRoute({
  method: 'get',
  path: '/site',
  summary: 'Content types, fields and their help, roles and people, and who writes with what',
  ...needs('read'),
  responses: { 200: { ...json(siteAnswer, 'The whole site document'), headers: etagHeader } },
});

export const readSiteDraft = createRoute({
  method: 'get',
  path: '/site/draft',
  summary: 'The site document as it is worked on',
  description: 'Roles and people are as they hold; content types and statements as the draft says them.',
  ...needs('read'),
  responses: { 200: { ...json(siteAnswer, 'The whole site document'), headers: etagHeader } },
});

export const saveSiteDraft = createRoute({
  method: 'put',
  path: '/site/draft',
  summary: 'Saves the site document as it is worked on: all of it or nothing',
  description:
    'Needs If-Match with the entity tag of the draft that was edited. Roles and people hold at once; content types and statements hold once they are released (`/shared/site/editions`), and what was never released at once.',
  ...needs('administer'),
  request: { headers: ifMatch, body: { required: true, ...json(siteDocument, 'The whole document') } },
  responses: {
    200: { ...json(siteAnswer, 'It is saved'), headers: etagHeader },
    403: failure('The acting person may not'),
    409: failure('Something that is to go is still in use'),
    412: failure('Somebody else has changed it since; `current` holds their version'),
    422: failure('The document has mistakes; `problems` lists them with their places'),
    428: failure('If-Match is missing'),
  },
});

export const saveSite = createRoute({
  method: 'put',
  path: '/site',
  summary: 'Changes the site document, to hold at once: all of it or nothing',
  description: 'Needs If-Match with the entity tag of the document that was edited. What changes but roles and people is a new edition.',
  ...needs('administer'),
  request: { headers: ifMatch, body: { required: true, ...json(siteDocument, 'The whole document') } },
  responses: {
    200: { ...json(siteAnswer, 'It holds now'), headers: etagHeader },
    403: failure('The acting person may not'),
    409: failure('Something that is to go is still in use'),
    412: failure('Somebody else has changed it since; `current` holds their version'),
    422: failure('The document has mistakes; `problems` lists them with their places'),
    428: failure('If-Match is missing'),
  },
});

export const whyThisProfile = createRoute({
  method: 'get',
  path: '/site/assignment',
  summary: 'With which profile somebody writes in a field, and why',
  ...needs('read'),
  request: {
    query: z.object({
      roles: idList.describe('Ids of roles, with commas between them; of one person all.'),
      type: idSchema,
      field: fieldKeySchema,
    }),
  },
  responses: {
    200: json(assignmentSchema, 'The answer; there is always exactly one'),
    404: failure('There is no such content type or field'),
  },
});

/** The person in whose name requests are made, with what they may do. */
const actingSchema = z
  .object({
    id: z.string(),
    label: z.string(),
    roles: z.array(z.object({ id: z.string(), label: z.string() })),
    rights: z.array(z.string()),
  })
  .openapi('ActingPerson');

export const whoActs = createRoute({
  method: 'get',
  path: '/acting',
  summary: 'Who acts, and who could',
  ...needs('read'),
  responses: {
    200: json(z.object({ acting: actingSchema.nullable(), people: z.array(actingSchema) }), 'The acting person, and everybody'),
  },
});
