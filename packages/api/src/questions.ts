import { createRoute, z } from '@hono/zod-openapi';
import { fieldKeySchema, idSchema } from '@typikon/core';
import { failure, json } from './common';
import { linkHeader, pageQuery } from './pages';
import { needs } from './right';

const MOST_ASKED = 200;
const MOST_LISTED = 50;
const ANSWERS = ['changed', 'fine', 'stays'] as const;

const told = z
  .object({
    id: z.int(),
    document: z.string(),
    title: z.string(),
    field: z.string(),
    profile: z.string(),
    edition: z.int().describe('The edition that held when it was asked.'),
    revision: z.int().describe('The state of the document that was asked about.'),
    person: z.string().describe('Who is asked, by id; empty for anybody.'),
    note: z.string(),
    before: z.string().describe('The text as that edition leaves it.'),
    after: z.string().describe('The text as the draft would leave it.'),
    askedAt: z.iso.datetime(),
    askedBy: z.string(),
    answer: z
      .enum(['', ...ANSWERS])
      .describe('Empty for none yet; `changed`: its author wrote it anew; `fine`: it may come out so; `stays`: it must stay as it is.'),
    answeredAt: z.iso.datetime().nullable(),
    answeredBy: z.string(),
    reply: z.string(),
  })
  .openapi('Question');

export const askAuthors = createRoute({
  method: 'post',
  path: '/profiles/{id}/questions',
  summary: 'Asks whoever changed texts last about what the draft of their profile would do to them',
  ...needs('design'),
  request: {
    params: z.object({ id: idSchema }),
    body: {
      required: true,
      ...json(
        z.object({
          texts: z
            .array(z.object({ document: idSchema, field: fieldKeySchema }))
            .min(1)
            .max(MOST_ASKED),
          note: z.string().trim().max(1000).default(''),
        }),
        'About what',
      ),
    },
  },
  responses: {
    201: json(
      z.object({
        asked: z.int(),
        untouched: z.int().describe('How many of them come out as before, so that nothing is asked.'),
        missing: z.int().describe('How many are not there, or of another profile.'),
      }),
      'They are asked',
    ),
    404: failure('There is no such profile'),
    422: failure('The draft has mistakes'),
  },
});

export const listQuestions = createRoute({
  method: 'get',
  path: '/questions',
  summary: 'What is asked of authors, the latest first',
  ...needs('read'),
  request: {
    query: z.object({
      person: idSchema.optional().describe('What this person is asked, and what anybody is.'),
      document: idSchema.optional(),
      profile: idSchema.optional(),
      open: z
        .enum(['true', 'false'])
        .transform((text) => text === 'true')
        .optional()
        .describe('Only those without an answer, or only those with one.'),
      ...pageQuery(MOST_LISTED, 20),
    }),
  },
  responses: { 200: { ...json(z.array(told), 'The questions; `after` takes a number'), headers: linkHeader } },
});

export const answerQuestion = createRoute({
  method: 'post',
  path: '/questions/{number}/answer',
  summary: 'Answers a question about a text',
  ...needs('write'),
  request: {
    params: z.object({ number: z.coerce.number().int().min(1) }),
    body: { required: true, ...json(z.object({ answer: z.enum(ANSWERS), reply: z.string().trim().max(1000).default('') }), 'The answer') },
  },
  responses: {
    200: json(told, 'It is answered'),
    403: failure('Somebody else was asked'),
    404: failure('There is no such question'),
    409: failure('It has an answer already'),
  },
});
