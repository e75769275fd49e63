import * as z from 'zod';
import { BUTTON_IDS } from './button-ids';
import { SHORTCUT_IDS } from './shortcuts';
import { idSchema } from './basic-schema';
import { field } from './field-meta';
import { isColourSchema } from './colour-schema';

const className = z
  .string()
  .regex(/^[A-Za-z_][A-Za-z0-9_-]*$/, 'must be one class name, such as "align-right"')
  .max(80);
/** Null would be read as a removal by a merge patch, so nothing is an empty text. */
const noClass = z.union([className, z.literal('')]);
const colours = z
  .array(z.strictObject({ name: z.string().min(1).max(40), value: isColourSchema }))
  .max(60)
  .default([])
  .describe('The colours offered, each with its name.')
  .meta(field({ title: 'Colours offered, each a name and a value', hint: 'lines such as “Sea: #17475c”', control: 'colours' }));

/** What can be chosen of single buttons. */
export const toolbarOptionsSchema = z.strictObject({
  'block-kind': z
    .strictObject({
      levels: z
        .array(z.int().min(1).max(6))
        .max(6)
        .default([2, 3, 4])
        .describe('The heading levels offered.')
        .meta(field({ title: 'Heading levels offered', hint: 'whole numbers from 1 to 6' })),
    })
    .prefault({}),
  bold: z
    .strictObject({
      element: z
        .enum(['strong', 'b'])
        .default('strong')
        .meta(field({ title: 'Makes', words: { strong: 'strong: the words are important', b: 'b: the words only look bold' } })),
    })
    .prefault({}),
  italic: z
    .strictObject({
      element: z
        .enum(['em', 'i'])
        .default('em')
        .meta(field({ title: 'Makes', words: { em: 'em: the words are stressed', i: 'i: another voice or tongue' } })),
    })
    .prefault({}),
  strike: z
    .strictObject({
      element: z
        .enum(['s', 'del'])
        .default('s')
        .meta(field({ title: 'Makes', words: { s: 's: holds no longer', del: 'del: was deleted' } })),
    })
    .prefault({}),
  'text-colour': z.strictObject({ colours }).prefault({}),
  'background-colour': z.strictObject({ colours }).prefault({}),
  align: z
    .strictObject({
      left: className.default('align-left').meta(field({ title: 'Class for left', hint: 'one class name, such as align-right' })),
      centre: className.default('align-centre').meta(field({ title: 'Class for the middle', hint: 'one class name, such as align-right' })),
      right: className.default('align-right').meta(field({ title: 'Class for right', hint: 'one class name, such as align-right' })),
      justify: className
        .default('align-justify')
        .meta(field({ title: 'Class for both sides', hint: 'one class name, such as align-right' })),
    })
    .prefault({})
    .describe('The class that each alignment gives the block.'),
  indent: z
    .strictObject({
      classes: z
        .array(className)
        .min(1)
        .max(6)
        .default(['indent-1', 'indent-2', 'indent-3'])
        .meta(field({ title: 'Classes, the least step first', hint: 'class names, such as indent-1 indent-2' })),
    })
    .prefault({}),
  'block-quote': z
    .strictObject({
      askSource: z
        .boolean()
        .default(false)
        .describe('Whether the address of the source is asked for.')
        .meta(field({ title: 'Asks for the address of the source' })),
    })
    .prefault({}),
  link: z
    .strictObject({
      kinds: z
        .array(z.enum(['page', 'heading', 'address', 'mail', 'telephone']))
        .min(1)
        .default(['page', 'heading', 'address', 'mail', 'telephone'])
        .describe('What a link may lead to, in the order offered.')
        .meta(field({ title: 'May lead to, in this order', hint: 'some of page, heading, address, mail, telephone' })),
    })
    .prefault({}),
  picture: z
    .strictObject({
      folders: z
        .array(z.string().min(1).max(60))
        .default([])
        .describe('The folders of the library that authors see; none for all.')
        .meta(field({ title: 'Folders of the library that authors see', placeholder: 'all', hint: 'names of folders' })),
      upload: z
        .boolean()
        .default(true)
        .describe('Whether authors may bring pictures of their own.')
        .meta(field({ title: 'Authors may bring pictures of their own' })),
      largestKb: z
        .int()
        .min(10)
        .max(8192)
        .default(4096)
        .describe('The largest file that is taken, in kilobytes.')
        .meta(field({ title: 'Largest file', unit: 'kB' })),
      widestPx: z
        .int()
        .min(50)
        .max(6000)
        .default(1440)
        .describe('Wider pictures are made smaller as they are taken into the library.')
        .meta(field({ title: 'Wider pictures are made smaller to', unit: 'px' })),
      caption: z
        .boolean()
        .default(true)
        .describe('Whether a caption is offered.')
        .meta(field({ title: 'Offers a caption, in a figure' })),
      placements: z
        .strictObject({
          left: noClass
            .default('left')
            .meta(field({ title: 'Class for left', placeholder: 'not offered', hint: 'one class name, such as align-right' })),
          right: noClass
            .default('right')
            .meta(field({ title: 'Class for right', placeholder: 'not offered', hint: 'one class name, such as align-right' })),
          centre: noClass
            .default('')
            .meta(field({ title: 'Class for the middle', placeholder: 'not offered', hint: 'one class name, such as align-right' })),
          full: noClass
            .default('')
            .meta(field({ title: 'Class for full width', placeholder: 'not offered', hint: 'one class name, such as align-right' })),
        })
        .prefault({})
        .describe(
          'The class that each placement gives the figure, or the picture where there are no figures; empty where it is not offered.',
        ),
    })
    .prefault({}),
  table: z
    .strictObject({
      maxRows: z
        .int()
        .min(1)
        .max(500)
        .default(60)
        .meta(field({ title: 'Most rows' })),
      maxColumns: z
        .int()
        .min(1)
        .max(60)
        .default(12)
        .meta(field({ title: 'Most columns' })),
      headerRow: z
        .boolean()
        .default(true)
        .describe('Whether a new table begins with a header row.')
        .meta(field({ title: 'A new table begins with a header row' })),
    })
    .prefault({}),
  'special-characters': z
    .strictObject({
      characters: z
        .array(z.string().min(1).max(8))
        .max(200)
        .default(['–', '—', '…', '‘', '’', '“', '”', '°', '′', '″', '×', '½', '€', '£'])
        .meta(field({ title: 'Come first', hint: 'signs with spaces between them' })),
    })
    .prefault({})
    .describe('The characters that come first.'),
  language: z
    .strictObject({
      languages: z
        .array(z.string().regex(/^[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*$/))
        .max(40)
        .default(['cy', 'de', 'en', 'es', 'fr', 'nl', 'nb', 'pl'])
        .meta(field({ title: 'Languages offered', hint: 'language tags, such as cy or de' })),
    })
    .prefault({})
    .describe('The languages offered, as language tags (BCP 47).'),
  date: z
    .strictObject({
      form: z
        .enum(['long', 'short'])
        .default('long')
        .meta(field({ title: 'Written', words: { long: 'in words: 3 March 2026', short: 'in figures: 2026-03-03' } })),
    })
    .prefault({})
    .describe('long: 3 March 2026. short: 2026-03-03.'),
  'summary-break': z
    .strictObject({
      class: className.default('summary-end').meta(field({ title: 'Class of the rule', hint: 'one class name, such as align-right' })),
    })
    .prefault({}),
  'word-count': z
    .strictObject({
      most: z
        .int()
        .min(1)
        .max(1_000_000)
        .optional()
        .describe('The number of characters above which the author is told.')
        .meta(field({ title: 'Tells the author above so many characters', placeholder: 'never' })),
    })
    .prefault({}),
});

const groupSchema = z.strictObject({
  label: z.string().min(1).max(60),
  buttons: z.array(z.enum(BUTTON_IDS)),
  newRow: z.boolean().optional().describe('Whether the group begins a row of its own.'),
  inMore: z.boolean().optional().describe('Whether the group is under “More” always, not on the bar.'),
});

export const toolbarSchema = z.strictObject({
  order: z.array(idSchema).default([]).describe('The ids of the groups, from left to right. A group that is not named here is not shown.'),
  groups: z.record(idSchema, groupSchema).default({}),
  changes: z
    .partialRecord(
      z.enum(BUTTON_IDS),
      z.strictObject({
        group: idSchema.optional().describe('The group that the button goes to.'),
        place: z
          .union([z.literal('off'), z.literal('first'), z.enum(BUTTON_IDS)])
          .describe('off: it is taken away. first: it comes first in the group. Else the button that it stands behind.'),
      }),
    )
    .default({})
    .describe('Single buttons put elsewhere than the groups have them, so that a profile need not repeat the groups that it inherits.'),
  narrow: z
    .enum(['wrap', 'more'])
    .default('wrap')
    .describe('What becomes of buttons that find no room: wrap: they go to the next row. more: they go under “More”.')
    .meta(field({ title: 'Buttons that find no room', words: { wrap: 'go to the next row', more: 'go under “More”' } })),
  shortcuts: z
    .partialRecord(z.enum(SHORTCUT_IDS), z.boolean())
    .default({})
    .describe('Which marks at the keyboard make formatting while the author types.'),
  options: toolbarOptionsSchema.prefault({}),
});

export type Toolbar = z.output<typeof toolbarSchema>;
export type ToolbarOptions = z.output<typeof toolbarOptionsSchema>;
