import { createRoute, z } from '@hono/zod-openapi';
import { fieldKeySchema, idSchema } from '@typikon/core';
import { failure, json } from './common';
import { part } from './edition-schemas';
import { linkHeader, pageQuery } from './pages';
import { needs } from './right';

/** So many texts are cleaned by both for one answer. */
const MOST_REACHED = 1000;

const document = z.record(z.string(), z.unknown());
const ofProfile = z.object({ id: idSchema });
const changed = z.object({
  document: document.optional().describe('The draft; the one that is stored where it is not given.'),
  together: z.array(idSchema).max(50).default([]).describe('Profiles whose drafts would be released with it.'),
  shared: z.array(part).max(5).default([]).describe('What the whole site has once whose draft would be released with it.'),
});
const things = z.object({ pictures: z.int(), links: z.int(), frames: z.int() });

const looked = {
  ...json(
    z
      .object({
        texts: z.int().describe('How many texts there are.'),
        candidates: z
          .int()
          .describe('How many of them can come out differently, and are looked at; the others come out the same, to the letter.'),
        sure: z.int().describe('How many of those are known to come out differently before they are looked at, by what they hold.'),
        undecided: z.array(z.string()).describe('What of the change cannot be told by what texts hold; empty where all of it can.'),
        looked: z.int().describe('How many this answer looked at.'),
        touched: z.array(
          z.object({
            document: z.string(),
            field: z.string(),
            title: z.string(),
            changedBy: z.string(),
            reach: z
              .object({
                textLost: z.int(),
                textGained: z.int(),
                wordsLost: z.int(),
                wordsGained: z.int(),
                lost: things,
                gained: things,
                taken: z.array(z.record(z.string(), z.unknown())),
                kept: z.array(z.record(z.string(), z.unknown())),
              })
              .describe('What it does to the text: groups of entries of the ledger by rule.'),
          }),
        ),
      })
      .openapi('Reach'),
    'What was looked at',
  ),
  headers: linkHeader,
} as const;

export const reachOfProfile = createRoute({
  method: 'post',
  path: '/profiles/{id}/reach',
  summary: 'What releasing a draft would do to the texts that are stored with the profile',
  description:
    'Each answer cleans some texts by both, the last edition and the draft, and its `Link` header names the next, until all are looked at. Nothing is stored.',
  ...needs('design'),
  request: { params: ofProfile, query: z.object(pageQuery(MOST_REACHED)), body: { required: true, ...json(changed, 'The draft') } },
  responses: {
    200: looked,
    404: failure('There is no such profile'),
    422: failure('The draft has mistakes'),
  },
});

const byBoth = json(
  z.object({
    before: z.string().describe('As the last edition leaves it.'),
    after: z.string(),
    pageKind: z.string().describe('The kind of page on which it shows first.'),
    wordsLost: z.array(z.string()),
    wordsGained: z.array(z.string()),
    entries: z.array(z.record(z.string(), z.unknown())).describe('What the draft does to it and the edition does not.'),
  }),
  'Both results; the same where the draft does nothing to it',
);

export const reachOfText = createRoute({
  method: 'post',
  path: '/profiles/{id}/reach/{document}/{field}',
  summary: 'What releasing a draft would do to one text: both results',
  ...needs('design'),
  request: {
    params: z.object({ id: idSchema, document: z.string().max(64), field: z.string().max(64) }),
    body: { required: true, ...json(changed, 'The draft') },
  },
  responses: {
    200: byBoth,
    404: failure('There is no such profile, or no such text of it'),
    422: failure('The draft has mistakes'),
  },
});

const MOST_ALLOWED = 2000;

export const allowInDraft = createRoute({
  method: 'post',
  path: '/profiles/{id}/reach/allow',
  summary: 'The smallest rules by which a draft no more takes of texts what it takes for one reason; nothing is stored',
  ...needs('design'),
  request: {
    params: ofProfile,
    body: {
      required: true,
      ...json(
        changed.extend({
          key: z.string().max(1000).describe('The group of entries, as the reach names it.'),
          texts: z
            .array(z.object({ document: idSchema, field: fieldKeySchema }))
            .min(1)
            .max(MOST_ALLOWED),
        }),
        'What is to stay',
      ),
    },
  },
  responses: {
    200: json(
      z.object({
        document: z.record(z.string(), z.unknown()).describe('The draft with those rules.'),
        allows: z.array(z.string()).describe('What they allow, in words that follow "Allow"; nothing where nothing would help.'),
        kept: z.int().describe('How many of the texts keep by them what they had.'),
        left: z.int().describe('Of how many no rule of this profile can keep it: the house limits or the safety floor take it.'),
      }),
      'The draft as it would be',
    ),
    404: failure('There is no such profile'),
    422: failure('The draft has mistakes'),
  },
});

const sharedChange = changed.pick({ together: true });

export const reachOfShared = createRoute({
  method: 'post',
  path: '/shared/{part}/reach',
  summary: 'What releasing the draft would do to all stored texts, of every profile',
  description:
    'Each answer cleans some texts by both, the last edition and the draft, and its `Link` header names the next, until all are looked at. Nothing is stored.',
  ...needs('design'),
  request: {
    params: z.object({ part }),
    query: z.object(pageQuery(MOST_REACHED)),
    body: { required: true, ...json(sharedChange, 'What would be released with it') },
  },
  responses: { 200: looked, 404: failure('There is no such profile'), 422: failure('The draft has mistakes') },
});

export const reachOfSharedText = createRoute({
  method: 'post',
  path: '/shared/{part}/reach/{document}/{field}',
  summary: 'What releasing the draft would do to one text: both results',
  ...needs('design'),
  request: {
    params: z.object({ part, document: z.string().max(64), field: z.string().max(64) }),
    body: { required: true, ...json(sharedChange, 'What would be released with it') },
  },
  responses: { 200: byBoth, 404: failure('There is no such text'), 422: failure('The draft has mistakes') },
});
