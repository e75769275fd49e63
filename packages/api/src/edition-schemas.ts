import { z } from '@hono/zod-openapi';
import { idSchema } from '@typikon/core';

export const MOST_EDITIONS = 100;

export const number = z.coerce.number().int().min(1);
export const note = z.string().trim().max(1000);
export const accepted = z.array(z.object({ what: z.string().max(300), why: z.string().trim().min(1).max(300) })).max(100);

/** What is kept of a release beside what was released. */
export const release = z.object({
  number: z.int().describe('Counts the editions from 1.'),
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
});

export const part = z.enum(['house-limits', 'pages', 'site']).describe('What the whole site has once.');
export const sharedTold = release.extend({ part }).openapi('SharedEdition');
export const sharedWhole = sharedTold.extend({ document: z.record(z.string(), z.unknown()) });

export const togetherWith = z
  .array(z.object({ id: idSchema, revision: z.int().min(1) }))
  .max(50)
  .default([])
  .describe('Profiles whose drafts are released with it, all or none, each with the state of its draft that was looked at.');
export const withShared = z
  .array(z.object({ part, revision: z.int().min(0) }))
  .max(5)
  .default([])
  .describe('What the whole site has once whose draft is released with it, with the state of the draft that was looked at.');
