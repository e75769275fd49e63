import { createRoute, z } from '@hono/zod-openapi';
import { fieldKeySchema, idSchema } from '@typikon/core';
import { accepted, MOST_EDITIONS, note, number, part, release, togetherWith, withShared } from './edition-schemas';
import { etagHeader, failure, ifMatch, json } from './common';
import { linkHeader, pageQuery } from './pages';
import { needs } from './right';

const document = z.record(z.string(), z.unknown());
const ofProfile = z.object({ id: idSchema });
const ofEdition = z.object({ id: idSchema, number });

const told = release
  .extend({
    profile: z.string(),
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

export const releaseBody = z.object({
  note,
  accepted: accepted.default([]),
  together: togetherWith,
  shared: withShared,
  leave: texts
    .default([])
    .describe('Texts of the profile that are left as they are: shown by the edition before until somebody edits them.'),
  reach: release.shape.reach.default(null),
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

export const scheduled = z
  .object({
    id: z.int(),
    profile: z.string().describe('Empty where it is of something that the whole site has once.'),
    part: part.nullable().describe('What the whole site has once; null where it is of a profile.'),
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
  responses: {
    200: json(scheduled, 'It is off'),
    403: failure('The acting person may not release it'),
    404: failure('There is none'),
    409: failure('It does not wait any more'),
  },
});
