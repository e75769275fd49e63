import { createRoute, z } from '@hono/zod-openapi';
import { conversionSchema, fieldKeySchema, idSchema } from '@typikon/core';
import { failure, json } from './common';
import { linkHeader, pageQuery } from './pages';
import { needs } from './right';

const MOST_TRIED = 20;
const MOST_TEXTS = 10_000;
const MOST_LISTED = 100;
const STATES = z.enum(['waiting', 'done', 'same', 'gone', 'refused', 'undone', 'kept']);

const text = z.object({ document: idSchema, field: fieldKeySchema });
const ofProfile = z.object({ id: idSchema });
const ofConversion = z.object({ number: z.coerce.number().int().min(1) });
const conversion = z.record(z.string(), z.unknown()).describe('One of the prepared replacements, as it was asked for.');

const told = z
  .object({
    id: z.int(),
    profile: z.string(),
    conversion,
    sentence: z.string().describe('What it does.'),
    note: z.string(),
    state: z
      .enum(['running', 'stopped', 'done', 'undoing', 'undone'])
      .describe('Whether it goes on by itself, was stopped, has come to its end, or is put back.'),
    askedAt: z.iso.datetime(),
    askedBy: z.string().describe('The person, by id; empty for nobody known.'),
    texts: z
      .partialRecord(STATES, z.int())
      .describe(
        'How many texts wait, were changed, had nothing that fits, are not there or of another profile by now, cannot be cleaned at once; were put back; were changed by somebody since and left so.',
      ),
  })
  .openapi('Conversion');

export const tryConversion = createRoute({
  method: 'post',
  path: '/profiles/{id}/conversions/try',
  summary: 'What a prepared replacement would make of some texts of a profile; nothing is stored',
  ...needs('design'),
  request: {
    params: ofProfile,
    body: {
      required: true,
      ...json(z.object({ conversion: conversionSchema, texts: z.array(text).min(1).max(MOST_TRIED) }), 'What to try'),
    },
  },
  responses: {
    200: json(
      z.array(
        z.object({
          document: z.string(),
          field: z.string(),
          title: z.string(),
          places: z.int().describe('In how many places it does something.'),
          before: z.string(),
          after: z.string().describe('As it would be stored: cleaned by the rules that authors write by.'),
          besides: z.array(z.string()).describe('What those rules take of what it makes, in sentences.'),
          lost: z.array(z.string()).describe('Words that readers would miss, because those rules take them, as they stood.'),
        }),
      ),
      'The texts that are there, by both',
    ),
  },
});

export const askConversion = createRoute({
  method: 'post',
  path: '/profiles/{id}/conversions',
  summary: 'Runs a prepared replacement over texts of a profile, in the background, as new versions of their documents',
  ...needs('design'),
  request: {
    params: ofProfile,
    body: {
      required: true,
      ...json(
        z.object({
          conversion: conversionSchema,
          note: z.string().trim().max(1000).default(''),
          texts: z.array(text).max(MOST_TEXTS).nullable().describe('Null for all of the profile.'),
        }),
        'What is asked for',
      ),
    },
  },
  responses: {
    202: json(told, 'It is asked for'),
    404: failure('There is no such profile'),
    422: failure('There is nothing to convert'),
  },
});

export const listConversions = createRoute({
  method: 'get',
  path: '/profiles/{id}/conversions',
  summary: 'What was converted of the texts of a profile, the latest first',
  ...needs('read'),
  request: { params: ofProfile, query: z.object(pageQuery(MOST_LISTED, 20)) },
  responses: { 200: { ...json(z.array(told), 'The conversions; `after` takes a number'), headers: linkHeader } },
});

export const readConversion = createRoute({
  method: 'get',
  path: '/conversions/{number}',
  summary: 'How far a conversion is',
  ...needs('read'),
  request: { params: ofConversion },
  responses: { 200: json(told, 'The conversion'), 404: failure('There is no such conversion') },
});

export const convertedTexts = createRoute({
  method: 'get',
  path: '/conversions/{number}/texts',
  summary: 'What became of the texts of a conversion',
  ...needs('read'),
  request: { params: ofConversion, query: z.object({ state: STATES.optional(), ...pageQuery(MOST_LISTED) }) },
  responses: {
    200: {
      ...json(
        z.array(
          z.object({
            document: z.string(),
            field: z.string(),
            title: z.string().nullable().describe('Null where the document is gone.'),
            state: STATES,
            beforeRevision: z.int().nullable().describe('The version of the document before it.'),
            afterRevision: z.int().nullable().describe('The version that it made.'),
          }),
        ),
        'The texts; `after` takes a document and a field with a stroke between',
      ),
      headers: linkHeader,
    },
  },
});

export const moveConversion = createRoute({
  method: 'post',
  path: '/conversions/{number}/{act}',
  summary: 'Stops a conversion, goes on with it, or undoes it in one step',
  description: 'Undoing puts every text back to the letter that nobody has changed since; the others are left as they are, and listed.',
  ...needs('design'),
  request: { params: ofConversion.extend({ act: z.enum(['stop', 'go-on', 'undo']) }) },
  responses: {
    200: json(told, 'It is so'),
    404: failure('There is no such conversion'),
    409: failure('It is not in a state for that'),
  },
});
