import { createRoute, z } from '@hono/zod-openapi';
import { fieldKeySchema, idSchema } from '@typikon/core';
import { failure, json } from './common';
import { needs } from './right';

const whose = z.object({
  profile: idSchema.optional().describe('Only texts that were written with this profile, which is the one that stands beside the way.'),
  beside: idSchema.optional().describe('The profile that stands beside the way, whoever wrote the texts.'),
  type: idSchema.optional().describe('Only texts of documents of this content type.'),
  field: fieldKeySchema.optional().describe('Only texts in fields with this key.'),
  role: z.string().max(64).optional().describe('Only texts that somebody of this role wrote.'),
});

const step = z
  .object({
    allows: z.array(z.string()).describe('What it allows beside what the steps before do, in words that follow "Allow".'),
    risk: z.int().describe('What all steps up to this one allow, weighed by risk.'),
    rules: z.int().describe('How many rules those are.'),
    whole: z.int().describe('How many texts are whole by then.'),
    kept: z.number().describe('Their share of all, from 0 to 1.'),
    isLeast: z.boolean().describe('Whether it is proven that nothing of less risk keeps as many whole.'),
    samples: z
      .array(z.object({ document: z.string(), field: z.string(), title: z.string() }))
      .describe('Some of the texts that are whole by it and not by the step before.'),
  })
  .openapi('FitStep');

const present = z
  .object({
    profile: z.string(),
    edition: z.int(),
    risk: z.int().describe('What it allows, weighed by risk as the steps are.'),
    rules: z.int(),
    whole: z.int().describe('How many texts it keeps whole.'),
    kept: z.number(),
    estimate: z
      .object({
        least: z.int().describe('At least so many are whole.'),
        most: z.int().describe('At most so many are.'),
        cleaned: z.int().describe('How many were cleaned of those about which what they hold cannot decide.'),
        open: z.int().describe('How many those are.'),
      })
      .nullable()
      .describe('Where not all could be cleaned in time the number is estimated from those that were; null where it is counted.'),
  })
  .openapi('PresentFit');

export const fitOfTexts = createRoute({
  method: 'get',
  path: '/fit',
  summary: 'The least rules that keep stored texts whole, as a way from allowing nothing to allowing all that they need',
  ...needs('design'),
  request: { query: whose },
  responses: {
    200: json(
      z
        .object({
          texts: z.int().describe('How many texts there are.'),
          most: z.int().describe('How many of them any profile can keep whole under the house limits.'),
          steps: z.array(step),
          present: present.nullable().describe('The last edition of the profile that was asked for; null where none was.'),
        })
        .openapi('Fit'),
      'The way, counted from what the texts hold',
    ),
    404: failure('There is no such profile'),
  },
});

export const profileOfFit = createRoute({
  method: 'get',
  path: '/fit/profile',
  summary: 'The profile of one step of that way',
  ...needs('design'),
  request: { query: whose.extend({ step: z.coerce.number().int().min(0), name: z.string().trim().min(1).max(120) }) },
  responses: {
    200: json(
      z.object({
        document: z.record(z.string(), z.unknown()).describe('A profile document that allows what all steps up to this one do.'),
        whole: z.int(),
        texts: z.int(),
      }),
      'The profile',
    ),
    404: failure('The way has no such step'),
  },
});
