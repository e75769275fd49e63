import * as z from 'zod';
import { idSchema } from './basic-schema';
import { field } from './field-meta';

/** The area in which the author types: its size, its stylesheets, its keys. */
export const surfaceSchema = z
  .strictObject({
    pageKind: idSchema
      .default('article')
      .describe('The page kind whose stylesheet and width the author types in.')
      .meta(field({ title: 'The page kind whose look and width it has', control: 'page-kind', group: 'look' })),
    stylesheets: z
      .enum(['page', 'editing', 'both'])
      .default('page')
      .describe(
        "page: the page kind's stylesheets. editing: the profile's own, where the page's would get in the way. both: one after the other.",
      )
      .meta(
        field({
          title: 'The text stands on',
          words: {
            page: 'the stylesheets of the page',
            editing: 'an editing stylesheet of its own',
            both: 'the page’s, then one of its own',
          },
          group: 'look',
        }),
      ),
    editingCss: z
      .string()
      .max(100_000)
      .default('')
      .describe("The profile's own editing stylesheet.")
      .meta(
        field({
          title: 'The editing stylesheet',
          control: 'css',
          group: 'look',
          order: 99,
          when: { keys: ['stylesheets'], is: ['editing', 'both'] },
        }),
      ),
    height: z
      .enum(['fixed', 'growing', 'between'])
      .default('fixed')
      .describe('fixed: always heightPx. growing: from heightPx on with the text. between: from heightPx to tallestPx.')
      .meta(
        field({
          title: 'Height',
          words: { fixed: 'always the same', growing: 'grows with the text', between: 'grows up to a limit' },
          group: 'size',
        }),
      ),
    heightPx: z
      .int()
      .min(60)
      .max(2000)
      .default(420)
      .meta(field({ title: 'Height, or least height', unit: 'px', group: 'size' })),
    tallestPx: z
      .int()
      .min(60)
      .max(4000)
      .default(900)
      .describe('For between.')
      .meta(field({ title: 'Greatest height', unit: 'px', group: 'size', when: { keys: ['height'], is: ['between'] } })),
    bar: z
      .enum(['top', 'bottom', 'selection'])
      .default('top')
      .describe('Where the buttons are: above the text, below it, or beside what is selected.')
      .meta(
        field({
          title: 'The buttons are',
          words: { top: 'above the text', bottom: 'below the text', selection: 'beside what is selected' },
          group: 'size',
        }),
      ),
    widthsPx: z
      .array(z.int().min(200).max(3000))
      .max(6)
      .default([])
      .describe('Narrower widths that the author can try, beside that of the page.')
      .meta(
        field({
          title: 'Narrower widths that authors can try, in pixels',
          hint: 'whole numbers from 200 to 3000, such as 390 560',
          group: 'look',
        }),
      ),
    enter: z
      .enum(['paragraph', 'break', 'block'])
      .default('paragraph')
      .describe('What the Enter key begins: a p, a br or a div.')
      .meta(
        field({ title: 'Enter begins', words: { paragraph: 'a paragraph: p', break: 'a line: br', block: 'a block: div' }, group: 'keys' }),
      ),
    shiftEnter: z
      .enum(['break', 'paragraph', 'nothing'])
      .default('break')
      .describe('What Shift and Enter begin.')
      .meta(
        field({
          title: 'Shift and Enter begin',
          words: { break: 'a line: br', paragraph: 'a paragraph: p', nothing: 'nothing' },
          group: 'keys',
        }),
      ),
    tab: z
      .enum(['leave', 'indent', 'spaces'])
      .default('leave')
      .describe(
        'What the Tab key does outside tables: it leaves the editor, indents, or puts in spaces. In lists it indents, unless it leaves.',
      )
      .meta(
        field({
          title: 'Tab',
          words: {
            leave: 'leaves the text, but in tables',
            indent: 'sets in, in lists one step deeper',
            spaces: 'puts in hard spaces, in lists deeper',
          },
          group: 'keys',
        }),
      ),
    spelling: z
      .strictObject({
        language: z
          .enum(['en-GB', 'none'])
          .default('en-GB')
          .describe('The dictionary.')
          .meta(field({ title: 'Dictionary', words: { 'en-GB': 'British English', none: 'none' } })),
        atOnce: z
          .boolean()
          .default(false)
          .describe('Whether words are marked from the beginning, without a press of the button.')
          .meta(field({ title: 'Words are marked from the beginning' })),
      })
      .prefault({})
      .meta(field({ group: 'spelling' })),
  })
  .meta(
    field({
      groups: [
        { id: 'look', title: 'What it looks like', help: 'so that authors see what readers will' },
        { id: 'size', title: 'Size', help: 'of the field' },
        { id: 'keys', title: 'Keys', help: 'what they do in the text' },
        { id: 'spelling', title: 'Spelling', help: 'words that no dictionary has are marked while the author writes' },
      ],
    }),
  );

export type Surface = z.output<typeof surfaceSchema>;
