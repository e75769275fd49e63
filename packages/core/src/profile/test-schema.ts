import * as z from 'zod';
import { isColourSchema as colour } from './colour-schema';
import { field } from './field-meta';
import { propertyName } from './name-schema';
import { patternMistake } from './pattern';

const host = z
  .string()
  .regex(
    /^(\*\.)?[a-z0-9]([a-z0-9.-]*[a-z0-9])?(:\d+)?(\/[^\s?#\\]*)?$/,
    'must be a host name, such as "cams.example", with or without a path, such as "cams.example/embed/"',
  );
const word = z.string().regex(/^\S+$/, 'must be one word without white space');
const range = z.strictObject({ min: z.number().optional(), max: z.number().optional() });
const unit = z.string().regex(/^(none|%|[a-z]+)$/, 'must be a CSS unit such as "px" or "%", or "none" for a bare number');
const ranges = z
  .record(unit, range)
  .refine((value) => Object.keys(value).length > 0, 'must allow at least one unit')
  .describe('The range for each allowed unit; "none" is a number without a unit.')
  .meta(field({ title: 'Ranges', control: 'ranges', placeholder: '0..720px 0..100%' }));
const pattern = z.string().superRefine((value, context) => {
  const mistake = patternMistake(value);
  if (mistake !== null) context.addIssue({ code: 'custom', message: mistake });
});

/** The bounds of a number; without one it is open on that side. */
const bounds = (number: z.ZodNumber | z.ZodInt) => ({
  min: number.optional().meta(field({ title: 'Least', placeholder: 'least' })),
  max: number.optional().meta(field({ title: 'Most', placeholder: 'most' })),
});
const listTest = z.strictObject({
  test: z
    .literal('list')
    .describe('One of these values.')
    .meta(field({ title: 'one of these' })),
  values: z
    .array(z.string())
    .min(1)
    .meta(field({ title: 'Values', control: 'lines', placeholder: 'left, right' })),
});

/** What the value of a style property must be for the declaration to be kept. */
export const styleTestSchema = z.discriminatedUnion('test', [
  z.strictObject({
    test: z
      .literal('any')
      .describe('Any value that CSS has for the property.')
      .meta(field({ title: 'any value' })),
  }),
  listTest,
  z.strictObject({
    test: z
      .literal('colour')
      .describe('One of these colours, however it is written.')
      .meta(field({ title: 'one of these colours' })),
    values: z
      .array(colour)
      .min(1)
      .meta(field({ title: 'Colours', control: 'lines', placeholder: '#1e2430, #a6301f' })),
  }),
  z.strictObject({
    test: z
      .literal('length')
      .describe('Lengths within these ranges.')
      .meta(field({ title: 'a length' })),
    ranges,
  }),
  z.strictObject({
    test: z
      .literal('number')
      .describe('A number from min to max.')
      .meta(field({ title: 'a number' })),
    ...bounds(z.number()),
  }),
]);

/** What an attribute's value must be for the attribute to be kept. */
export const attributeTestSchema = z.discriminatedUnion('test', [
  z.strictObject({
    test: z
      .literal('text')
      .describe('Any text.')
      .meta(field({ title: 'any text' })),
    maxLength: z
      .int()
      .min(1)
      .optional()
      .meta(field({ title: 'Longest', placeholder: 'longest' })),
  }),
  listTest,
  z.strictObject({
    test: z
      .literal('pattern')
      .describe('Text that matches a pattern as a whole (RE2 syntax, which always ends in linear time).')
      .meta(field({ title: 'like a pattern' })),
    pattern: pattern.meta(field({ title: 'Pattern', placeholder: '[a-z0-9-]+' })),
  }),
  z
    .strictObject({
      test: z
        .literal('tokens')
        .describe('Words separated by white space; those not allowed here go.')
        .meta(field({ title: 'words of these' })),
      values: z
        .array(word)
        .optional()
        .meta(field({ title: 'Words', placeholder: 'words' })),
      prefixes: z
        .array(word)
        .optional()
        .describe('Words that begin like one of these.')
        .meta(field({ title: 'Beginnings', placeholder: 'or beginning like' })),
      ofStyles: z
        .boolean()
        .optional()
        .describe("For class: the classes that the profile's styles use.")
        .meta(field({ title: 'Also those of the styles' })),
    })
    .refine(
      ({ values = [], prefixes = [], ofStyles = false }) => values.length + prefixes.length > 0 || ofStyles,
      'must allow at least one word, prefix or the classes of the styles',
    ),
  z.strictObject({
    test: z
      .literal('integer')
      .describe('A whole number from min to max.')
      .meta(field({ title: 'a whole number' })),
    ...bounds(z.int()),
  }),
  z.strictObject({
    test: z
      .literal('length')
      .describe('A CSS length or a number within these ranges.')
      .meta(field({ title: 'a length' })),
    ranges,
  }),
  z.strictObject({
    test: z
      .literal('url')
      .describe('An address. Its scheme must be one of those that markup.urls gives for the attribute.')
      .meta(field({ title: 'an address' })),
    hosts: z
      .array(host)
      .min(1)
      .optional()
      .describe('Only these hosts; "*." in front stands for every host below it, and a path narrows it to addresses that begin so.')
      .meta(field({ title: 'Hosts', placeholder: 'any host' })),
  }),
  z.strictObject({
    test: z
      .literal('language')
      .describe('A language tag (BCP 47), such as "en-GB".')
      .meta(field({ title: 'a language' })),
  }),
  z.strictObject({
    test: z
      .literal('features')
      .describe('Features of the permissions policy, such as "fullscreen"; those not named here go.')
      .meta(field({ title: 'features of a frame' })),
    values: z
      .array(z.string().regex(/^[a-z][a-z-]*$/))
      .min(1)
      .meta(field({ title: 'Features', placeholder: 'fullscreen' })),
  }),
  z.strictObject({
    test: z
      .literal('style')
      .describe('Style declarations, property by property; those not named here go.')
      .meta(field({ title: 'style declarations' })),
    properties: z.record(propertyName, styleTestSchema).default({}),
  }),
]);
/** The tests there are, in the order in which they are offered. */
export const ATTRIBUTE_TESTS = attributeTestSchema.options.map((option) => option.shape.test.value);

export type StyleTest = z.output<typeof styleTestSchema>;
export type AttributeTest = z.output<typeof attributeTestSchema>;
