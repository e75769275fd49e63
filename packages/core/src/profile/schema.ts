import { z } from 'zod';
import { BUTTON_IDS } from '../toolbar/buttons';

export const PROFILE_FORMAT = 'typikon-profile/1';
export const HOUSE_FORMAT = 'typikon-house/1';

/** Profiles, page kinds and toolbar groups are named by ids that can stand in an address and as a file's name. */
export const idSchema = z
  .string()
  .regex(/^[a-z][a-z0-9]*(-[a-z0-9]+)*$/, 'must be lower-case words joined by hyphens, such as "story-desk"')
  .max(64);

const elementName = z.string().regex(/^[a-z][a-z0-9-]*$/, 'must be an element name in lower case');
const attributeName = z.string().regex(/^[a-z][a-z0-9_:.-]*$/, 'must be an attribute name in lower case');
const scheme = z.string().regex(/^[a-z][a-z0-9+.-]*$/, 'must be a URL scheme without the colon, such as "https"');
const host = z.string().regex(/^[a-z0-9]([a-z0-9.-]*[a-z0-9])?(:\d+)?$/, 'must be a host name, such as "cams.example"');

/** What an attribute's value must be for the attribute to be kept. */
export const attributeTestSchema = z.discriminatedUnion('test', [
  z.strictObject({ test: z.literal('text').describe('Any text.'), maxLength: z.int().min(1).optional() }),
  z.strictObject({ test: z.literal('list').describe('One of these values.'), values: z.array(z.string()).min(1) }),
  z.strictObject({
    test: z.literal('tokens').describe('Words separated by white space; those not named here go.'),
    values: z.array(z.string().regex(/^\S+$/)).min(1),
  }),
  z.strictObject({
    test: z.literal('integer').describe('A whole number from min to max.'),
    min: z.int().optional(),
    max: z.int().optional(),
  }),
  z.strictObject({
    test: z.literal('url').describe('An address. Its scheme must be one of those that markup.urls gives for the attribute.'),
    hosts: z.array(host).min(1).optional().describe('Only these hosts.'),
  }),
  z.strictObject({ test: z.literal('language').describe('A language tag (BCP 47), such as "en-GB".') }),
]);

export const elementRuleSchema = z.strictObject({
  outcome: z
    .enum(['keep', 'unwrap', 'drop', 'text', 'rename'])
    .optional()
    .describe(
      'keep (the default): stays. unwrap: goes, its content stays. drop: goes with its content. text: its tags are shown as text. rename: becomes another element.',
    ),
  to: elementName.optional().describe('The element that a renamed one becomes.'),
  attributes: z.record(attributeName, attributeTestSchema).optional(),
});

export const markupSchema = z.strictObject({
  elements: z.record(elementName, elementRuleSchema).default({}).describe('A rule for each named element.'),
  attributes: z.record(attributeName, attributeTestSchema).default({}).describe('Attributes that every kept element may have.'),
  urls: z
    .strictObject({
      schemes: z.record(attributeName, z.array(scheme)).default({}).describe('Which schemes an address may have, by attribute.'),
      relative: z.boolean().default(true).describe('Whether addresses without a scheme are kept.'),
    })
    .prefault({}),
  unlisted: z.enum(['unwrap', 'drop', 'text']).default('unwrap').describe('What becomes of elements without a rule.'),
  comments: z.enum(['keep', 'drop']).default('drop'),
  limits: z
    .strictObject({ nesting: z.int().min(1).max(500).default(200).describe('Deeper elements are unwrapped. Browsers flatten at 512.') })
    .prefault({}),
});

const groupSchema = z.strictObject({
  label: z.string().min(1).max(60),
  buttons: z.array(z.enum(BUTTON_IDS)),
});

const toolbarSchema = z.strictObject({
  order: z.array(idSchema).default([]).describe('The ids of the groups, from left to right. A group that is not named here is not shown.'),
  groups: z.record(idSchema, groupSchema).default({}),
});

const surfaceSchema = z.strictObject({
  pageKind: idSchema.default('article').describe('The page kind whose stylesheet and width the author types in.'),
  heightPx: z.int().min(60).max(2000).default(420),
});

/** A resolved profile: everything an author's editor is and allows, with every default filled in. */
export const profileSchema = z.strictObject({
  format: z.literal(PROFILE_FORMAT),
  name: z.string().min(1).max(120),
  purpose: z.string().max(1000).default(''),
  extends: idSchema.optional().describe('The profile whose settings this one inherits (RFC 7396 merge patch).'),
  toolbar: toolbarSchema.prefault({}),
  markup: markupSchema.prefault({}),
  surface: surfaceSchema.prefault({}),
});

/** The site-wide ceiling on markup. What it does not allow, no profile can. */
export const houseLimitsSchema = z.strictObject({
  format: z.literal(HOUSE_FORMAT),
  name: z.string().min(1).max(120).default('House limits'),
  markup: markupSchema,
  trustedRoles: z
    .record(
      idSchema,
      z.strictObject({
        except: z.array(z.string().regex(/^(\/[^/]*)+$/, 'must be a JSON Pointer into markup, such as "/elements/iframe"')),
      }),
    )
    .default({})
    .describe('Which parts of the ceiling do not bind a role.'),
});

export type AttributeTest = z.output<typeof attributeTestSchema>;
export type ElementRule = z.output<typeof elementRuleSchema>;
export type Markup = z.output<typeof markupSchema>;
export type Profile = z.output<typeof profileSchema>;
export type HouseLimits = z.output<typeof houseLimitsSchema>;
