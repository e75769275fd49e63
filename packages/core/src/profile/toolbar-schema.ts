import * as z from 'zod';
import { BUTTON_IDS } from './button-ids';
import { SHORTCUT_IDS } from './shortcuts';
import { idSchema } from './basic-schema';
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
  .describe('The colours offered, each with its name.');

/** What can be chosen of single buttons. */
export const toolbarOptionsSchema = z.strictObject({
  'block-kind': z
    .strictObject({ levels: z.array(z.int().min(1).max(6)).max(6).default([2, 3, 4]).describe('The heading levels offered.') })
    .prefault({}),
  bold: z.strictObject({ element: z.enum(['strong', 'b']).default('strong') }).prefault({}),
  italic: z.strictObject({ element: z.enum(['em', 'i']).default('em') }).prefault({}),
  strike: z.strictObject({ element: z.enum(['s', 'del']).default('s') }).prefault({}),
  'text-colour': z.strictObject({ colours }).prefault({}),
  'background-colour': z.strictObject({ colours }).prefault({}),
  align: z
    .strictObject({
      left: className.default('align-left'),
      centre: className.default('align-centre'),
      right: className.default('align-right'),
      justify: className.default('align-justify'),
    })
    .prefault({})
    .describe('The class that each alignment gives the block.'),
  indent: z.strictObject({ classes: z.array(className).min(1).max(6).default(['indent-1', 'indent-2', 'indent-3']) }).prefault({}),
  'block-quote': z
    .strictObject({ askSource: z.boolean().default(false).describe('Whether the address of the source is asked for.') })
    .prefault({}),
  link: z
    .strictObject({
      kinds: z
        .array(z.enum(['page', 'heading', 'address', 'mail', 'telephone']))
        .min(1)
        .default(['page', 'heading', 'address', 'mail', 'telephone'])
        .describe('What a link may lead to, in the order offered.'),
    })
    .prefault({}),
  picture: z
    .strictObject({
      folders: z.array(z.string().min(1).max(60)).default([]).describe('The folders of the library that authors see; none for all.'),
      upload: z.boolean().default(true).describe('Whether authors may bring pictures of their own.'),
      largestKb: z.int().min(10).max(8192).default(4096).describe('The largest file that is taken, in kilobytes.'),
      widestPx: z.int().min(50).max(6000).default(1440).describe('Wider pictures are made smaller as they are taken into the library.'),
      caption: z.boolean().default(true).describe('Whether a caption is offered.'),
      placements: z
        .strictObject({
          left: noClass.default('left'),
          right: noClass.default('right'),
          centre: noClass.default(''),
          full: noClass.default(''),
        })
        .prefault({})
        .describe(
          'The class that each placement gives the figure, or the picture where there are no figures; empty where it is not offered.',
        ),
    })
    .prefault({}),
  table: z
    .strictObject({
      maxRows: z.int().min(1).max(500).default(60),
      maxColumns: z.int().min(1).max(60).default(12),
      headerRow: z.boolean().default(true).describe('Whether a new table begins with a header row.'),
    })
    .prefault({}),
  'special-characters': z
    .strictObject({
      characters: z
        .array(z.string().min(1).max(8))
        .max(200)
        .default(['–', '—', '…', '‘', '’', '“', '”', '°', '′', '″', '×', '½', '€', '£']),
    })
    .prefault({})
    .describe('The characters that come first.'),
  language: z
    .strictObject({
      languages: z
        .array(z.string().regex(/^[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*$/))
        .max(40)
        .default(['cy', 'de', 'en', 'es', 'fr', 'nl', 'nb', 'pl']),
    })
    .prefault({})
    .describe('The languages offered, as language tags (BCP 47).'),
  date: z
    .strictObject({ form: z.enum(['long', 'short']).default('long') })
    .prefault({})
    .describe('long: 3 March 2026. short: 2026-03-03.'),
  'summary-break': z.strictObject({ class: className.default('summary-end') }).prefault({}),
  'word-count': z
    .strictObject({ most: z.int().min(1).max(1_000_000).optional().describe('The number of characters above which the author is told.') })
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
    .describe('What becomes of buttons that find no room: wrap: they go to the next row. more: they go under “More”.'),
  shortcuts: z
    .partialRecord(z.enum(SHORTCUT_IDS), z.boolean())
    .default({})
    .describe('Which marks at the keyboard make formatting while the author types.'),
  options: toolbarOptionsSchema.prefault({}),
});

export type Toolbar = z.output<typeof toolbarSchema>;
export type ToolbarOptions = z.output<typeof toolbarOptionsSchema>;
