import { createRoute, z } from '@hono/zod-openapi';
import { idSchema } from '@typikon/core';
import { json } from './common';
import { linkHeader, pageQuery } from './pages';
import { needs } from './right';

const counts = z.record(z.string(), z.int());

/** A rich text that stands in a field of a document. */
const textSchema = z
  .object({
    id: z.string().describe('The id of the document and the key of the field, with a stroke between them.'),
    document: z.string(),
    field: z.string(),
    title: z.string().describe("The document's title; behind it the field's where it is not the main one."),
    type: z.string().describe('The id of the content type.'),
    contentType: z.string().describe('What the content type is called.'),
    profileId: z.string(),
    pageKindId: z.string().describe('The kind of page on which it shows first.'),
    taken: z.array(z.string()).describe('What the rules took of it while it was written, by what it is called.'),
  })
  .openapi('Text');

const publishedSchema = z
  .object({ id: z.string(), title: z.string(), profileId: z.string(), pageKindId: z.string(), html: z.string() })
  .openapi('PublishedText');

const censusSchema = z
  .object({
    documents: z.int().describe('How many texts were counted.'),
    elements: counts,
    attributes: z.record(z.string(), counts),
    most: z.object({ nesting: z.int(), elements: z.int(), letters: z.int() }),
    classes: counts,
    classesByProfile: z.record(z.string(), counts),
  })
  .openapi('CensusOfAll');

const MOST_SUMMARIES = 1000;
const MOST_PUBLISHED = 200;

export const listTexts = createRoute({
  method: 'get',
  path: '/texts',
  summary: 'The rich texts that are stored in fields of documents, without their markup',
  ...needs('read'),
  request: { query: z.object(pageQuery(MOST_SUMMARIES)) },
  responses: { 200: { ...json(z.array(textSchema), 'The texts, by title'), headers: linkHeader } },
});

export const countTexts = createRoute({
  method: 'get',
  path: '/texts/counts',
  summary: 'How many rich texts stand in each field of each type with each profile, and on which kind of page they show first',
  ...needs('read'),
  responses: {
    200: json(
      z.array(
        z
          .object({
            type: z.string().describe('The id of the content type.'),
            field: z.string(),
            profileId: z.string(),
            pageKindId: z.string(),
            count: z.int(),
            taken: counts.describe('In how many of them the rules took something while they were written, by what it is called.'),
          })
          .openapi('TextCount'),
      ),
      'The counts, one for each that is not 0',
    ),
  },
});

export const publishedTexts = createRoute({
  method: 'get',
  path: '/texts/published',
  summary: 'Stored texts with their markup as it is published: cleaned by the rules of their profile',
  description: 'As many as fit into a megabyte, and at least one.',
  ...needs('read'),
  request: { query: z.object({ profile: idSchema.optional(), pageKind: idSchema.optional(), ...pageQuery(MOST_PUBLISHED) }) },
  responses: { 200: { ...json(z.array(publishedSchema), 'The texts, by title'), headers: linkHeader } },
});

export const textsCensus = createRoute({
  method: 'get',
  path: '/texts/census',
  summary: 'How often each element and attribute occurs in all stored texts, and the most that any one holds',
  ...needs('read'),
  responses: { 200: json(censusSchema, 'The counts') },
});
