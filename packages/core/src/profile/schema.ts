import * as z from 'zod';
import { idSchema } from './basic-schema';
import { field } from './field-meta';
import { pasteSchema } from './paste-schema';
import { attributeName, elementName, scheme } from './name-schema';
import { attributeTestSchema } from './test-schema';
import { helpSchema } from './help-schema';
import { surfaceSchema } from './surface-schema';
import { toolbarSchema } from './toolbar-schema';

export { idSchema } from './basic-schema';
export { ATTRIBUTE_TESTS, attributeTestSchema, styleTestSchema, type AttributeTest, type StyleTest } from './test-schema';

export const PROFILE_FORMAT = 'typikon-profile/1';
export const HOUSE_FORMAT = 'typikon-house/1';

export const elementRuleSchema = z.strictObject({
  outcome: z
    .enum(['keep', 'unwrap', 'drop', 'text', 'rename'])
    .optional()
    .describe(
      'keep (the default): stays. unwrap: goes, its content stays. drop: goes with its content. text: its tags are shown as text. rename: becomes another element.',
    ),
  to: elementName.optional().describe('The element that a renamed one becomes.'),
  attributes: z.record(attributeName, attributeTestSchema).optional(),
  required: z
    .record(
      attributeName,
      z.strictObject({
        otherwise: z
          .enum(['drop', 'unwrap', 'add'])
          .describe('What becomes of an element without the attribute: it goes with its content, its content stays, or it gets the value.'),
        value: z.string().optional().describe('For add.'),
      }),
    )
    .optional()
    .describe('Attributes without which the element does not stay.'),
  anyOf: z
    .strictObject({
      attributes: z.array(attributeName).min(2).describe('Of these at least one must be there, with something in it.'),
      otherwise: z
        .enum(['drop', 'unwrap'])
        .describe('What becomes of an element without any: it goes with its content, or its content stays.'),
    })
    .optional()
    .describe('At least one of several attributes, without which the element does not stay.'),
  schemes: z
    .record(attributeName, z.array(scheme))
    .optional()
    .describe('Which schemes an address of this element may have, by attribute, instead of those that markup.urls gives for all.'),
  withoutSource: z
    .enum(['drop', 'alternative-text'])
    .optional()
    .describe('What becomes of a picture whose source is refused: it goes (the default), or its alternative text stands in its place.'),
  forced: z
    .record(
      attributeName,
      z.strictObject({
        value: z.string(),
        when: z
          .enum(['always', 'absent', 'new-window', 'with-address'])
          .default('always')
          .describe(
            'always; only where the attribute is absent; only on links that open a new window; or only where an address (href or src) is still there once the rules were applied.',
          ),
      }),
    )
    .optional()
    .describe('Attributes that the element always gets. Words of class, rel and sandbox are added to those that are there.'),
  empty: z
    .enum(['keep', 'remove', 'pad'])
    .optional()
    .describe('What becomes of the element where it shows nothing: it stays (the default), goes, or gets a line break to stand on.'),
  parents: z.array(elementName).min(1).optional().describe('The only elements it may stand in directly; elsewhere it is unwrapped.'),
  depth: z.int().min(1).max(100).optional().describe('How many of the same element may stand in each other; deeper ones are unwrapped.'),
  ratio: z
    .strictObject({ min: z.number().positive(), max: z.number().positive() })
    .refine(({ min, max }) => min <= max, 'min must not be above max')
    .optional()
    .describe('The ratio of width to height; a height outside it is changed to fit.'),
});

const headingsSchema = z.strictObject({
  others: z
    .enum(['by-element', 'shift', 'clamp', 'paragraph'])
    .default('by-element')
    .describe(
      'What becomes of heading levels that are not kept. by-element: what the rule of each says. shift: all headings move so that the highest stands at `top`. clamp: they take the nearest level that is kept. paragraph: they become paragraphs.',
    )
    .meta(
      field({
        title: 'Headings of levels that are not kept',
        words: {
          'by-element': 'as the rule of each level says',
          shift: 'all move, the highest to the top level',
          clamp: 'take the nearest level that is kept',
          paragraph: 'become paragraphs',
        },
      }),
    ),
  top: z
    .int()
    .min(1)
    .max(6)
    .default(2)
    .describe('The level at which the content begins. The title of the page owns level 1.')
    .meta(field({ title: 'The top level of the content' })),
});

export const markupSchema = z
  .strictObject({
    elements: z.record(elementName, elementRuleSchema).default({}).describe('A rule for each named element.'),
    attributes: z
      .record(attributeName, attributeTestSchema)
      .default({})
      .describe('Attributes that every kept element may have.')
      .meta(field({ title: 'Attributes of every element', control: 'attributes', group: 'attributes' })),
    urls: z
      .strictObject({
        schemes: z
          .record(attributeName, z.array(scheme))
          .default({})
          .describe('Which schemes an address may have, by attribute.')
          .meta(field({ title: 'Addresses', control: 'schemes', group: 'addresses' })),
        relative: z
          .boolean()
          .default(true)
          .describe('Whether addresses without a scheme are kept.')
          .meta(field({ title: 'Addresses without a scheme, within the site', words: { true: 'stay', false: 'go' }, group: 'links' })),
      })
      .prefault({}),
    ids: z
      .strictObject({
        prefix: z
          .string()
          .regex(/^([A-Za-z][A-Za-z0-9_-]*)?$/, 'must begin with a letter and hold letters, digits, hyphens and underscores')
          .default('')
          .describe("Put before every id, and before what refers to it, so that content cannot take the names of the page's own parts.")
          .meta(
            field({
              title: 'Every id begins with; references follow',
              hint: 'a letter, followed by letters, digits and hyphens',
              placeholder: 'no prefix',
              group: 'links',
              order: 99,
            }),
          ),
      })
      .prefault({}),
    links: z
      .strictObject({
        newWindow: z
          .enum(['as-written', 'never', 'other-sites'])
          .default('as-written')
          .describe(
            'as-written: the rule for `target` decides. never: no link opens a window. other-sites: links to other hosts do, others never.',
          )
          .meta(
            field({
              title: 'Links that open a new window',
              words: { 'as-written': 'as they are written', never: 'open in the same one', 'other-sites': 'all links to other sites do' },
            }),
          ),
        ownHosts: z
          .array(z.string().regex(/^[a-z0-9.-]+(:\d+)?$/, 'must be written like www.example, without https://'))
          .default([])
          .describe("The site's own hosts, for other-sites.")
          .meta(field({ title: 'Hosts of this site, for links to other sites', placeholder: 'www.example' })),
      })
      .prefault({})
      .meta(field({ group: 'links' })),
    headings: headingsSchema.prefault({}).meta(field({ group: 'headings' })),
    text: z
      .strictObject({
        hardSpaces: z
          .enum(['keep', 'meaningful', 'plain'])
          .default('keep')
          .describe(
            'meaningful: kept between a number and its unit, inside a number, and beside punctuation that asks for one. plain: none stay.',
          )
          .meta(
            field({
              title: 'Hard spaces',
              words: { keep: 'stay', meaningful: 'stay between a number and its unit and by punctuation', plain: 'become plain' },
            }),
          ),
        emptyParagraphs: z
          .enum(['keep', 'one', 'remove'])
          .default('keep')
          .describe('one: of several in a row the first stays.')
          .meta(field({ title: 'Empty paragraphs', words: { keep: 'stay', one: 'of several in a row one stays', remove: 'go' } })),
      })
      .prefault({})
      .meta(field({ group: 'spaces' })),
    unlisted: z
      .enum(['unwrap', 'drop', 'text'])
      .default('unwrap')
      .describe('What becomes of elements without a rule.')
      .meta(
        field({
          title: 'Elements without a rule',
          words: { unwrap: 'go, their content stays', drop: 'go with their content', text: 'are shown as text' },
          group: 'rest',
        }),
      ),
    comments: z
      .enum(['keep', 'drop'])
      .default('drop')
      .meta(field({ title: 'Comments in the markup', words: { keep: 'stay', drop: 'go' }, group: 'rest' })),
    limits: z
      .strictObject({
        nesting: z
          .int()
          .min(1)
          .max(500)
          .default(200)
          .describe('Deeper elements are unwrapped. Browsers flatten at 512.')
          .meta(field({ title: 'Deepest nesting; deeper elements go, their content stays' })),
        elements: z
          .int()
          .min(1)
          .max(10_000_000)
          .optional()
          .describe('How many elements may stay; further ones are unwrapped, their words stay.')
          .meta(field({ title: 'Most elements; further ones go, their content stays', placeholder: 'any' })),
        letters: z
          .int()
          .min(1)
          .max(100_000_000)
          .optional()
          .describe('How many letters a reader may see; what follows is cut off.')
          .meta(field({ title: 'Longest text in letters; what follows is cut off', placeholder: 'any' })),
      })
      .prefault({})
      .meta(field({ group: 'rest' })),
    output: z
      .strictObject({
        characters: z
          .enum(['raw', 'named', 'numeric'])
          .default('raw')
          .describe('How characters outside ASCII are written: as they are, by name where HTML has one, or by number.')
          .meta(
            field({
              title: 'Characters outside ASCII',
              words: { raw: 'as they are: é', named: 'by name: &eacute;', numeric: 'by number: &#233;' },
            }),
          ),
        layout: z
          .enum(['as-is', 'compact', 'indented'])
          .default('as-is')
          .describe('White space between blocks: as it came, none, or each block on a line of its own.')
          .meta(
            field({
              title: 'White space between blocks',
              words: { 'as-is': 'as it came', compact: 'none', indented: 'each block on a line of its own' },
            }),
          ),
      })
      .prefault({})
      .meta(field({ group: 'output' })),
  })
  .meta(
    field({
      groups: [
        { id: 'attributes', title: 'Attributes of every element', help: 'beside those that an element has for itself' },
        {
          id: 'addresses',
          title: 'Addresses',
          help: 'kinds of address, by what uses them; the safety floor always refuses those that run code',
        },
        { id: 'links', title: 'Links and ids', help: 'where links lead to, and names within the page' },
        { id: 'headings', title: 'Headings', help: 'the title of the page owns level 1' },
        { id: 'spaces', title: 'Spaces', help: 'what is typed or pasted to make room' },
        { id: 'rest', title: 'The rest', help: 'what no rule above speaks of' },
        { id: 'output', title: 'How it is written', help: 'readers see no difference' },
      ],
    }),
  );

/** A named style that an author may apply. */
const styleSchema = z.strictObject({
  label: z.string().min(1).max(80),
  selector: z
    .string()
    .min(1)
    .max(200)
    .describe('What applying the style does follows from it: an element, a class, an attribute, and what stands around.'),
  description: z.string().max(300).optional().describe('For authors: what the style is for.'),
  group: z.string().min(1).max(60).optional().describe('Styles of one group exclude each other.'),
  within: z.array(elementName).min(1).optional().describe('The only elements in which it may be applied.'),
});
export type StyleDefinition = z.output<typeof styleSchema>;

/** A resolved profile: everything an author's editor is and allows, with every default filled in. */
export const profileSchema = z.strictObject({
  format: z.literal(PROFILE_FORMAT),
  name: z.string().min(1).max(120),
  purpose: z.string().max(1000).default(''),
  extends: idSchema.optional().describe('The profile whose settings this one inherits (RFC 7396 merge patch).'),
  toolbar: toolbarSchema.prefault({}),
  markup: markupSchema.prefault({}),
  paste: pasteSchema.prefault({}).describe('What happens to pasted content before the markup rules: passes, in order.'),
  styles: z.record(idSchema, styleSchema).default({}).describe('The styles of the style menu.'),
  surface: surfaceSchema.prefault({}),
  help: helpSchema.prefault({}).describe('What is said to authors wherever the profile is used.'),
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
  release: z
    .strictObject({
      secondPerson: z.boolean().describe('Whether nobody releases a draft that they changed since its last edition.'),
    })
    .optional()
    .describe('How drafts become editions.'),
});

export type ElementRule = z.output<typeof elementRuleSchema>;
export type Markup = z.output<typeof markupSchema>;
export type Profile = z.output<typeof profileSchema>;
export type HouseLimits = z.output<typeof houseLimitsSchema>;
