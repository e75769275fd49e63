import * as z from 'zod';
import { idSchema } from './basic-schema';

/** The area in which the author types: its size, its stylesheets, its keys. */
export const surfaceSchema = z.strictObject({
  pageKind: idSchema.default('article').describe('The page kind whose stylesheet and width the author types in.'),
  stylesheets: z
    .enum(['page', 'editing', 'both'])
    .default('page')
    .describe(
      "page: the page kind's stylesheets. editing: the profile's own, where the page's would get in the way. both: one after the other.",
    ),
  editingCss: z.string().max(100_000).default('').describe("The profile's own editing stylesheet."),
  height: z
    .enum(['fixed', 'growing', 'between'])
    .default('fixed')
    .describe('fixed: always heightPx. growing: from heightPx on with the text. between: from heightPx to tallestPx.'),
  heightPx: z.int().min(60).max(2000).default(420),
  tallestPx: z.int().min(60).max(4000).default(900).describe('For between.'),
  bar: z
    .enum(['top', 'bottom', 'selection'])
    .default('top')
    .describe('Where the buttons are: above the text, below it, or beside what is selected.'),
  widthsPx: z
    .array(z.int().min(200).max(3000))
    .max(6)
    .default([])
    .describe('Narrower widths that the author can try, beside that of the page.'),
  enter: z.enum(['paragraph', 'break', 'block']).default('paragraph').describe('What the Enter key begins: a p, a br or a div.'),
  shiftEnter: z.enum(['break', 'paragraph', 'nothing']).default('break').describe('What Shift and Enter begin.'),
  tab: z
    .enum(['leave', 'indent', 'spaces'])
    .default('leave')
    .describe(
      'What the Tab key does outside tables: it leaves the editor, indents, or puts in spaces. In lists it indents, unless it leaves.',
    ),
  spelling: z
    .strictObject({
      language: z.enum(['none', 'en-GB']).default('en-GB').describe('The dictionary.'),
      atOnce: z.boolean().default(false).describe('Whether words are marked from the beginning, without a press of the button.'),
    })
    .prefault({}),
});

export type Surface = z.output<typeof surfaceSchema>;
