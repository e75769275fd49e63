import { createRoute, z } from '@hono/zod-openapi';
import { idSchema } from '@typikon/core';
import { failure, json } from './common';
import { needs } from './right';

/** A preview can be looked at for so many hours at most. */
const MOST_HOURS = 24 * 14;

const parameters = z.object({ id: idSchema });
const note = z.string().trim().max(1000).default('');
const revision = z.int().min(1);

const STEPS = z.enum(['asked', 'approved', 'sent-back', 'withdrawn', 'remarked', 'hidden']);

const state = z
  .object({
    revision: z.int().describe('The last version.'),
    publicRevision: z.int().nullable().describe('The version that readers see; null for none.'),
    askedRevision: z.int().nullable().describe('The version that waits for somebody to approve it; null for none.'),
    publishing: z.enum(['at-once', 'two-steps']),
    mayAsk: z.boolean().describe('Whether the acting person may ask for approval of the last version.'),
    mayApprove: z.boolean().describe('Whether the acting person may approve the version that waits, or show the last one at once.'),
    mayHide: z.boolean().describe('Whether the acting person may take it from readers.'),
    steps: z
      .array(
        z.object({
          step: STEPS,
          revision: z.int(),
          note: z.string(),
          at: z.iso.datetime(),
          by: z.string().describe('The person, by id; empty for nobody known.'),
        }),
      )
      .describe('What was done so far, the latest first.'),
  })
  .openapi('Publishing');

export const readPublishing = createRoute({
  method: 'get',
  path: '/documents/{id}/publishing',
  summary: 'Which version of a document readers see, which one waits for approval, and how that came about',
  ...needs('read'),
  request: { params: parameters },
  responses: { 200: json(state, 'How it stands'), 404: failure('There is no such document') },
});

export const movePublishing = createRoute({
  method: 'post',
  path: '/documents/{id}/publishing',
  summary: 'Asks for approval of a version, approves it, sends it back, withdraws it, remarks on it, or takes the document from readers',
  description:
    'Asking takes the last version; everything else is about the version that waits, which has to be the one that is named. Where a content type publishes at once, approving shows the last version, such as one that was saved before that was so. Taking from readers is about the version that they see, and says why; they see the document again once a version is approved.',
  ...needs('write'),
  request: {
    params: parameters,
    body: {
      required: true,
      ...json(
        z.object({ step: STEPS, revision, note: note.describe('Why; needed where it is sent back or taken from readers, or a remark.') }),
        'What is done',
      ),
    },
  },
  responses: {
    200: json(state, 'How it stands now'),
    403: failure('The acting person may not'),
    404: failure('There is no such document'),
    409: failure('There is nothing to be done'),
    412: failure('Another version is the last one by now, or another one waits'),
    422: failure('A reason is needed'),
  },
});

export const makePreview = createRoute({
  method: 'post',
  path: '/documents/{id}/previews',
  summary: 'An address on the site at which one version of a document can be looked at for some time, by whoever has it',
  ...needs('read'),
  request: {
    params: parameters,
    body: { required: true, ...json(z.object({ revision, hours: z.int().min(1).max(MOST_HOURS).default(24) }), 'Which version, how long') },
  },
  responses: {
    201: json(z.object({ address: z.string(), until: z.iso.datetime() }), 'The address; it is signed, and ends by itself'),
    404: failure('There is no such document or version'),
  },
});
