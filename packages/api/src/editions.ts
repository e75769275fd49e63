import { createRoute, z } from '@hono/zod-openapi';
import { fieldKeySchema, idSchema } from '@typikon/core';
import { etagHeader, failure, ifMatch, json } from './common';
import { linkHeader, pageQuery } from './pages';
import { needs } from './right';

const MOST_EDITIONS = 100;
/** So many texts are cleaned by both for one answer. */
const MOST_REACHED = 1000;

const number = z.coerce.number().int().min(1);
const document = z.record(z.string(), z.unknown());
const ofProfile = z.object({ id: idSchema });
const ofEdition = z.object({ id: idSchema, number });

const told = z
  .object({
    profile: z.string(),
    number: z.int().describe('Counts the editions of the profile from 1.'),
    releasedAt: z.iso.datetime(),
    releasedBy: z.string().describe('The person, by id; empty for nobody known.'),
    note: z.string().describe('Why, in the words of who released it.'),
    fromRevision: z.int().describe('The state of the draft that was released.'),
    backTo: z.int().nullable().describe('The earlier edition that was taken back to; null for one that comes from the draft.'),
    reach: z
      .object({ texts: z.int(), touched: z.int(), losing: z.int(), words: z.int() })
      .nullable()
      .describe('What it did to the texts that were stored then, as it was shown before; null where that was not looked at.'),
    accepted: z
      .array(z.object({ what: z.string(), why: z.string() }))
      .describe('What was known to be amiss, and why it was released all the same.'),
    inputs: z
      .record(z.string(), z.string())
      .describe('SHA-256 of its resolved rules, of the house limits and of each stylesheet at that time.'),
  })
  .openapi('Edition');
const whole = told.extend({
  chain: z
    .array(z.object({ id: z.string(), document }))
    .describe('Its own document and those that it extends, from the nearest on: all that its rules follow from.'),
});

const MOST_LEFT = 5000;
const texts = z.array(z.object({ document: idSchema, field: fieldKeySchema })).max(MOST_LEFT);
const note = z.string().trim().max(1000);
const accepted = z.array(z.object({ what: z.string().max(300), why: z.string().trim().min(1).max(300) })).max(100);

const releaseBody = z.object({
  note,
  accepted: accepted.default([]),
  together: z
    .array(z.object({ id: idSchema, revision: z.int().min(1) }))
    .max(50)
    .default([])
    .describe('Other profiles whose drafts are released with it, all or none, each with the state of its draft that was looked at.'),
  leave: texts
    .default([])
    .describe('Texts of the profile that are left as they are: shown by the edition before until somebody edits them.'),
  reach: told.shape.reach.default(null),
});

export const currentEditions = createRoute({
  method: 'get',
  path: '/editions',
  summary: 'The last edition of every profile: what authors write with',
  ...needs('read'),
  request: { query: z.object(pageQuery(MOST_EDITIONS)) },
  responses: { 200: { ...json(z.array(whole), 'The editions, by profile'), headers: linkHeader } },
});

export const listEditions = createRoute({
  method: 'get',
  path: '/profiles/{id}/editions',
  summary: 'Every edition of a profile, the last first',
  ...needs('read'),
  request: { params: ofProfile, query: z.object(pageQuery(MOST_EDITIONS)) },
  responses: {
    200: { ...json(z.array(told), 'The editions; `after` takes a number'), headers: linkHeader },
    404: failure('There is no such profile'),
  },
});

export const readEdition = createRoute({
  method: 'get',
  path: '/profiles/{id}/editions/{number}',
  summary: 'One edition with all that its rules follow from',
  ...needs('read'),
  request: { params: ofEdition },
  responses: { 200: json(whole, 'The edition'), 404: failure('There is no such edition') },
});

export const releaseEdition = createRoute({
  method: 'post',
  path: '/profiles/{id}/editions',
  summary: 'Releases the draft of a profile as its next edition',
  description:
    'Needs If-Match with the entity tag of the draft that was looked at. What the profile extends stands as it was released last, or as its own draft says where that is released together with it.',
  ...needs('design'),
  request: {
    params: ofProfile,
    headers: ifMatch,
    body: {
      required: true,
      ...json(releaseBody, 'Why, and what is known to be amiss'),
    },
  },
  responses: {
    201: { ...json(z.array(told), 'The new editions, that of the profile itself first'), headers: etagHeader },
    403: failure('The acting person changed the draft, and the house limits have somebody else release it'),
    404: failure('There is no such profile'),
    409: failure('The draft says what the last edition says'),
    412: failure('Somebody else has saved one of the drafts since'),
    422: failure('One of them has mistakes'),
    428: failure('If-Match is missing'),
  },
});

export const takeBackTo = createRoute({
  method: 'post',
  path: '/profiles/{id}/editions/{number}/again',
  summary: 'Releases an earlier edition again, as a new one',
  description: 'Needs If-Match with the number of the last edition. A draft in which nothing was changed since the last release follows.',
  ...needs('design'),
  request: { params: ofEdition, headers: ifMatch, body: { required: true, ...json(z.object({ note }), 'Why') } },
  responses: {
    201: json(told, 'The new edition'),
    404: failure('There is no such edition'),
    409: failure('That edition says what the last one says'),
    412: failure('Another edition was released since'),
    428: failure('If-Match is missing'),
  },
});

export const leftTexts = createRoute({
  method: 'get',
  path: '/profiles/{id}/left',
  summary: 'Texts that releases of a profile left as they were: shown by an earlier edition until somebody edits them',
  ...needs('read'),
  request: { params: ofProfile, query: z.object(pageQuery(MOST_EDITIONS)) },
  responses: {
    200: {
      ...json(
        z.array(
          z.object({
            document: z.string(),
            field: z.string(),
            title: z.string(),
            edition: z.int().describe('The edition by which it is shown.'),
          }),
        ),
        'The texts; `after` takes a document and a field with a stroke between',
      ),
      headers: linkHeader,
    },
  },
});

export const followAgain = createRoute({
  method: 'post',
  path: '/profiles/{id}/follow',
  summary: 'Lets texts that were left as they are follow the last edition again',
  ...needs('design'),
  request: { params: ofProfile, body: { required: true, ...json(z.object({ texts: texts.min(1) }), 'Which') } },
  responses: {
    200: json(z.object({ following: z.int(), others: z.int().describe('How many of them had not been left.') }), 'They follow'),
  },
});

const changed = z.object({
  document: document.optional().describe('The draft; the one that is stored where it is not given.'),
  together: z.array(idSchema).max(50).default([]).describe('Profiles whose drafts would be released with it.'),
});
const things = z.object({ pictures: z.int(), links: z.int(), frames: z.int() });

export const reachOfProfile = createRoute({
  method: 'post',
  path: '/profiles/{id}/reach',
  summary: 'What releasing a draft would do to the texts that are stored with the profile',
  description:
    'Each answer cleans some texts by both, the last edition and the draft, and its `Link` header names the next, until all are looked at. Nothing is stored.',
  ...needs('design'),
  request: { params: ofProfile, query: z.object(pageQuery(MOST_REACHED)), body: { required: true, ...json(changed, 'The draft') } },
  responses: {
    200: {
      ...json(
        z
          .object({
            texts: z.int().describe('How many texts there are.'),
            candidates: z
              .int()
              .describe('How many of them hold what the change asks for, and are looked at; the others come out the same, to the letter.'),
            undecided: z.array(z.string()).describe('Why all of them have to be looked at; empty where what they hold decides it.'),
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
    },
    404: failure('There is no such profile'),
    422: failure('The draft has mistakes'),
  },
});

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
    200: json(
      z.object({
        before: z.string().describe('As the last edition leaves it.'),
        after: z.string(),
        pageKind: z.string().describe('The kind of page on which it shows first.'),
        wordsLost: z.array(z.string()),
        wordsGained: z.array(z.string()),
        entries: z.array(z.record(z.string(), z.unknown())).describe('What the draft does to it and the edition does not.'),
      }),
      'Both results; the same where the draft does nothing to it',
    ),
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

const scheduled = z
  .object({
    id: z.int(),
    profile: z.string(),
    at: z.iso.datetime().describe('When the draft is released.'),
    revision: z.int().describe('The state of the draft that is released; one that is saved again is not.'),
    note: z.string(),
    askedAt: z.iso.datetime(),
    askedBy: z.string().describe('The person, by id; empty for nobody known.'),
    state: z
      .enum(['waiting', 'done', 'failed', 'off'])
      .describe('Whether it is still to come, was released, could not be, or was called off.'),
    detail: z.string().describe('Why it could not be released.'),
    edition: z.int().nullable().describe('The edition that it became.'),
  })
  .openapi('ScheduledRelease');

export const scheduleRelease = createRoute({
  method: 'post',
  path: '/profiles/{id}/scheduled',
  summary: 'Has the draft of a profile released at a time to come, if it is then as it is now',
  description:
    'Needs If-Match with the entity tag of the draft that was looked at. One that waits for the same profile is called off by it.',
  ...needs('design'),
  request: {
    params: ofProfile,
    headers: ifMatch,
    body: {
      required: true,
      ...json(releaseBody.extend({ at: z.iso.datetime({ offset: true }) }), 'When, why, and what is known to be amiss'),
    },
  },
  responses: {
    201: json(scheduled, 'It waits'),
    403: failure('The acting person changed the draft, and the house limits have somebody else release it'),
    404: failure('There is no such profile'),
    409: failure('The draft says what the last edition says'),
    412: failure('Somebody else has saved the draft since'),
    422: failure('That time is over, or too far away'),
    428: failure('If-Match is missing'),
  },
});

export const listScheduled = createRoute({
  method: 'get',
  path: '/profiles/{id}/scheduled',
  summary: 'Releases of a profile that wait for their time, and the last ones that did, the latest first',
  ...needs('read'),
  request: { params: ofProfile },
  responses: { 200: json(z.array(scheduled), 'The releases') },
});

export const callOffRelease = createRoute({
  method: 'post',
  path: '/scheduled/{number}/off',
  summary: 'Calls off a release that waits for its time',
  ...needs('design'),
  request: { params: z.object({ number }) },
  responses: { 200: json(scheduled, 'It is off'), 404: failure('There is none'), 409: failure('It does not wait any more') },
});
