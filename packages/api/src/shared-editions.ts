import { createRoute, z } from '@hono/zod-openapi';
import { failure, ifMatch, json } from './common';
import { MOST_EDITIONS, note, number, part, sharedTold, sharedWhole } from './edition-schemas';
import { releaseBody, scheduled } from './editions';
import { linkHeader, pageQuery } from './pages';
import { needs } from './right';

const ofPart = z.object({ part });
const ofSharedEdition = z.object({ part, number });

export const currentShared = createRoute({
  method: 'get',
  path: '/shared',
  summary: 'The last edition of everything that the whole site has once: what holds now',
  ...needs('read'),
  responses: { 200: json(z.array(sharedWhole), 'The editions') },
});

export const listShared = createRoute({
  method: 'get',
  path: '/shared/{part}/editions',
  summary: 'Every edition of something that the whole site has once, the last first',
  ...needs('read'),
  request: { params: ofPart, query: z.object(pageQuery(MOST_EDITIONS)) },
  responses: { 200: { ...json(z.array(sharedTold), 'The editions; `after` takes a number'), headers: linkHeader } },
});

export const readShared = createRoute({
  method: 'get',
  path: '/shared/{part}/editions/{number}',
  summary: 'One edition of something that the whole site has once',
  ...needs('read'),
  request: { params: ofSharedEdition },
  responses: { 200: json(sharedWhole, 'The edition'), 404: failure('There is no such edition') },
});

export const releaseShared = createRoute({
  method: 'post',
  path: '/shared/{part}/editions',
  summary: 'Releases the draft of something that the whole site has once as its next edition',
  description: 'Needs If-Match with the entity tag of the draft that was looked at.',
  ...needs('design'),
  request: {
    params: ofPart,
    headers: ifMatch,
    body: { required: true, ...json(releaseBody.omit({ leave: true }), 'Why, and what is known to be amiss') },
  },
  responses: {
    201: json(sharedTold, 'The new edition'),
    403: failure('The acting person changed the draft, and the house limits have somebody else release it'),
    404: failure('There is no such draft, or no such profile'),
    409: failure('The draft says what the last edition says'),
    412: failure('Somebody else has saved one of the drafts since'),
    422: failure('One of them has mistakes'),
    428: failure('If-Match is missing'),
  },
});

export const scheduleShared = createRoute({
  method: 'post',
  path: '/shared/{part}/scheduled',
  summary: 'Has the draft of something that the whole site has once released at a time to come, if it is then as it is now',
  description: 'Needs If-Match with the entity tag of the draft that was looked at. One that waits for the same thing is called off by it.',
  ...needs('design'),
  request: {
    params: ofPart,
    headers: ifMatch,
    body: {
      required: true,
      ...json(
        releaseBody.omit({ leave: true }).extend({ at: z.iso.datetime({ offset: true }) }),
        'When, why, and what is known to be amiss',
      ),
    },
  },
  responses: {
    201: json(scheduled, 'It waits'),
    403: failure('The acting person changed the draft, and the house limits have somebody else release it'),
    404: failure('There is no such draft'),
    409: failure('The draft says what the last edition says'),
    412: failure('Somebody else has saved the draft since'),
    422: failure('That time is over, or too far away, or the draft has mistakes'),
    428: failure('If-Match is missing'),
  },
});

export const listScheduledShared = createRoute({
  method: 'get',
  path: '/shared/{part}/scheduled',
  summary: 'Releases of something that the whole site has once that wait for their time, and the last ones that did, the latest first',
  ...needs('read'),
  request: { params: ofPart },
  responses: { 200: json(z.array(scheduled), 'The releases') },
});

export const resetShared = createRoute({
  method: 'post',
  path: '/shared/{part}/draft/back',
  summary: 'Puts the last edition into the draft: what was changed since goes from it',
  description: 'Needs If-Match with the entity tag of the draft.',
  ...needs('design'),
  request: { params: ofPart, headers: ifMatch },
  responses: {
    200: json(z.object({ revision: z.int().describe('The state of the draft then.') }), 'The draft says what the last edition says'),
    404: failure('Nothing was released yet'),
    412: failure('Somebody else has saved the draft since'),
    422: failure('Something that was not there then is in use'),
    428: failure('If-Match is missing'),
  },
});

export const takeBackShared = createRoute({
  method: 'post',
  path: '/shared/{part}/editions/{number}/again',
  summary: 'Releases an earlier edition again, as a new one',
  description: 'Needs If-Match with the number of the last edition. A draft in which nothing was changed since the last release follows.',
  ...needs('design'),
  request: { params: ofSharedEdition, headers: ifMatch, body: { required: true, ...json(z.object({ note }), 'Why') } },
  responses: {
    201: json(sharedTold, 'The new edition'),
    404: failure('There is no such edition'),
    409: failure('That edition says what the last one says'),
    412: failure('Another edition was released since'),
    428: failure('If-Match is missing'),
  },
});
