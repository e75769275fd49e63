import * as z from 'zod';
import { field } from './field-meta';
import { patternMistake } from './pattern';

/** Where pasted content comes from, as far as its own marks tell. */
export const PASTE_SOURCES = [
  'word-processor',
  'spreadsheet',
  'presentation',
  'web-mail',
  'chat',
  'web-page',
  'pdf-viewer',
  'this-editor',
  'plain-text',
  'markdown',
] as const;
export type PasteSource = (typeof PASTE_SOURCES)[number];

const name = z.string().regex(/^[a-z][a-z0-9-]*$/, 'must be a name in lower case');
const property = z.string().regex(/^-?[a-z][a-z-]*$/, 'must be a CSS property in lower case');
const className = z.string().regex(/^\S+$/, 'must be one word without white space');
const host = z.string().regex(/^[a-z0-9.-]+(:\d+)?$/, 'must be a host name in lower case');
const parameter = z.string().regex(/^[^\s&=#]+\*?$/, 'must be the name of a parameter; a star at its end stands for any ending');

/** What every pass can be told: whether it works, and for which sources. */
const common = {
  on: z.boolean().describe('Whether the pass works.'),
  sources: z
    .array(z.enum(PASTE_SOURCES))
    .min(1)
    .optional()
    .describe('The kinds of source it works on; without it, all.')
    .meta(field({ title: 'From', control: 'sources', order: 999 })),
};

/** One replacement: what is looked for, where, and what stands in its place. */
export const replacementSchema = z
  .strictObject({
    find: z.string().min(1).max(1000).describe('The text or pattern that is looked for.'),
    as: z.enum(['text', 'pattern']).default('text').describe('pattern: RE2 syntax.'),
    in: z
      .enum(['text', 'attributes', 'elements'])
      .default('text')
      .describe(
        'text: words, across markup within a line. attributes: their values. elements: those whose whole text matches, with all they hold.',
      ),
    name: name.optional().describe('Only in this attribute, or only these elements.'),
    replace: z.string().max(1000).default('').describe('What stands there instead; $1 is the first group of a pattern.'),
    matchCase: z.boolean().default(true),
  })
  .superRefine(({ find, as }, context) => {
    const mistake = as === 'pattern' ? patternMistake(find) : null;
    if (mistake !== null) context.addIssue({ code: 'custom', message: mistake, path: ['find'] });
  });
export type Replacement = z.output<typeof replacementSchema>;

/**
 * The settings of every pass, with the defaults of a strict house style. The order here is the order in which passes work
 * where a profile does not say otherwise.
 */
export const pastePassesSchema = z.strictObject({
  'joined-lines': z
    .strictObject({
      ...common,
      on: common.on.default(true),
      sources: z
        .array(z.enum(PASTE_SOURCES))
        .min(1)
        .default(['pdf-viewer'])
        .describe('The kinds of source it works on.')
        .meta(field({ title: 'From', control: 'sources', order: 999 })),
      hyphens: z
        .enum(['dictionary', 'close', 'keep'])
        .default('dictionary')
        .describe('Hyphens at the end of a line. dictionary: closed where that makes a word. close: always. keep: never.')
        .meta(
          field({
            title: 'A hyphen at the end of a line',
            words: { dictionary: 'is closed where that makes a word', close: 'is always closed', keep: 'stays' },
          }),
        ),
    })
    .prefault({})
    .describe('Lines that were broken to fit a page become paragraphs again.'),
  notes: z
    .strictObject({
      ...common,
      on: common.on.default(true),
      become: z
        .enum(['linked', 'bracketed', 'drop'])
        .default('linked')
        .describe('linked: a list at the end. bracketed: text at the place.')
        .meta(
          field({
            title: 'Foot- and endnotes',
            words: { linked: 'become linked notes at the end', bracketed: 'become text in brackets', drop: 'go' },
          }),
        ),
    })
    .prefault({})
    .describe('Footnotes and endnotes.'),
  lists: z
    .strictObject({
      ...common,
      on: common.on.default(true),
      typed: z
        .boolean()
        .default(true)
        .describe('Whether bullets and numbers typed in text count, too.')
        .meta(field({ title: 'Bullets and numbers that are typed before lines count, too' })),
    })
    .prefault({})
    .describe('Paragraphs that only look like list items become lists.'),
  'office-leftovers': z
    .strictObject({
      ...common,
      on: common.on.default(true),
      deletions: z
        .enum(['drop', 'keep'])
        .default('drop')
        .describe('What a word processor marked as deleted.')
        .meta(field({ title: 'Words that were deleted with changes tracked', words: { drop: 'go', keep: 'stay' } })),
      comments: z
        .enum(['drop', 'keep'])
        .default('drop')
        .describe('Remarks in the margin.')
        .meta(field({ title: 'Remarks in the margin', words: { drop: 'go', keep: 'stay' } })),
      hidden: z
        .enum(['drop', 'keep'])
        .default('drop')
        .describe('What the program does not show either.')
        .meta(field({ title: 'What the program hides', words: { drop: 'goes', keep: 'stays' } })),
      languages: z
        .enum(['drop', 'keep'])
        .default('drop')
        .describe('drop: the language and direction that most of the paste is marked with go; marks of others stay.')
        .meta(field({ title: 'The language that most words are marked with', words: { drop: 'goes', keep: 'stays' } })),
    })
    .prefault({})
    .describe('Conditional comments, office namespaces and properties, empty anchors, tracked changes.'),
  headings: z
    .strictObject({
      ...common,
      on: common.on.default(true),
      outline: z
        .boolean()
        .default(true)
        .describe('Paragraphs that their program marks as a title or with an outline level.')
        .meta(field({ title: 'Titles and paragraphs with an outline level become headings' })),
      boldOnly: z
        .boolean()
        .default(false)
        .describe('Short paragraphs that are bold as a whole.')
        .meta(field({ title: 'Short paragraphs that are bold as a whole become headings' })),
      level: z
        .int()
        .min(1)
        .max(6)
        .default(2)
        .describe('The level that bold-only paragraphs become.')
        .meta(field({ title: 'of level' })),
      longest: z
        .int()
        .min(1)
        .max(400)
        .default(90)
        .describe('Longer paragraphs are no headings.')
        .meta(field({ title: 'Longest heading, in letters' })),
    })
    .prefault({})
    .describe('Paragraphs that are headings in all but name become headings.'),
  'inline-style': z
    .strictObject({
      ...common,
      on: common.on.default(true),
      keep: z
        .array(property)
        .default([])
        .describe('Properties that stay; with `drop`, all others stay instead.')
        .meta(field({ title: 'These properties stay', placeholder: 'none', order: 2 })),
      drop: z
        .array(property)
        .optional()
        .describe('Only these properties go.')
        .meta(field({ title: 'or only these go', placeholder: 'all but those above', order: 3 })),
      vendor: z
        .enum(['drop', 'keep'])
        .default('drop')
        .describe('Properties that begin with a hyphen, apart from the two lists.')
        .meta(field({ title: 'Properties of one browser alone', words: { drop: 'go', keep: 'stay' }, order: 4 })),
      asMarkup: z
        .boolean()
        .default(true)
        .describe('Bold, italic, struck, sub- and superscript become elements first.')
        .meta(field({ title: 'Bold, italic, struck, raised and lowered become elements first', order: 1 })),
      alignmentClasses: z
        .partialRecord(z.enum(['left', 'center', 'right', 'justify']), className)
        .default({})
        .describe('Classes that alignments become.')
        .meta(field({ title: 'An alignment becomes the class', order: 5 })),
    })
    .prefault({})
    .describe('Inline style goes, but for what is named; what markup can say becomes markup.'),
  classes: z
    .strictObject({
      ...common,
      on: common.on.default(true),
      become: z
        .enum(['drop-office', 'drop-all', 'keep-named', 'keep-styles'])
        .default('drop-office')
        .describe('keep-styles: those that the styles of this profile use, and those named in keep.')
        .meta(
          field({
            title: 'Of classes',
            words: {
              'drop-office': 'those of office programs, mail and chats go',
              'keep-styles': 'only those of this profile’s styles stay',
              'keep-named': 'only the named ones stay',
              'drop-all': 'all go',
            },
          }),
        ),
      keep: z
        .array(className)
        .default([])
        .describe('For keep-named and keep-styles; a star at the end stands for any ending.')
        .meta(field({ title: 'These stay', placeholder: 'none named' })),
      drop: z
        .array(className)
        .default([])
        .describe('These go in any case; a star at the end stands for any ending.')
        .meta(field({ title: 'These go in any case', placeholder: 'none named' })),
    })
    .prefault({})
    .describe('Classes that other programs brought along.'),
  wrappers: z
    .strictObject({
      ...common,
      on: common.on.default(true),
      which: z
        .enum(['all', 'bare'])
        .default('bare')
        .describe('bare: only those that carry nothing a reader could notice.')
        .meta(field({ title: 'Wrappers', words: { bare: 'go where they carry nothing', all: 'go all' } })),
      elements: z
        .array(name)
        .default(['span', 'font'])
        .meta(field({ title: 'Wrappers are', placeholder: 'none' })),
      join: z
        .boolean()
        .default(true)
        .describe('Whether neighbours that say the same, such as two strong in a row, become one.')
        .meta(field({ title: 'Neighbours that say the same become one' })),
    })
    .prefault({})
    .describe('Wrappers go, their words stay.'),
  elements: z
    .strictObject({
      ...common,
      on: common.on.default(false),
      unwrap: z
        .array(name)
        .default([])
        .describe('These go, their content stays.')
        .meta(field({ title: 'These elements go, their words stay', placeholder: 'none', order: 1 })),
      drop: z
        .array(name)
        .default([])
        .describe('These go with their content.')
        .meta(field({ title: 'These go with all they hold', placeholder: 'none', order: 2 })),
      attributes: z
        .array(name)
        .default([])
        .describe('These attributes go wherever they stand.')
        .meta(field({ title: 'These attributes go', placeholder: 'none', order: 4 })),
      only: z
        .array(name)
        .optional()
        .describe('Only these elements stay; of all others the content does.')
        .meta(field({ title: 'or only these stay', placeholder: 'all but those above', order: 3 })),
      onlyAttributes: z
        .array(name)
        .optional()
        .describe('Only these attributes stay.')
        .meta(field({ title: 'or only these stay', placeholder: 'all but those above', order: 5 })),
    })
    .prefault({})
    .describe('Elements and attributes that no paste is to bring.'),
  links: z
    .strictObject({
      ...common,
      on: common.on.default(true),
      parameters: z
        .array(parameter)
        .default(['utm_*', 'fbclid', 'gclid', 'msclkid', 'mc_eid', 'mc_cid', 'igshid'])
        .describe('Tracking parameters to take out of addresses.')
        .meta(field({ title: 'These parameters are taken out of addresses', placeholder: 'none', order: 1 })),
      redirects: z
        .array(
          z.strictObject({
            host: z
              .string()
              .min(1, 'must be a host name')
              .meta(field({ title: 'Host that redirects', placeholder: 'redirect.example' })),
            parameter: z
              .string()
              .min(1, 'must be the name of a parameter')
              .meta(field({ title: 'Parameter with the address', placeholder: 'url' })),
          }),
        )
        .default([])
        .describe('Redirect wrappers to undo: the host and the parameter that holds the address.')
        .meta(field({ title: 'Redirects that are undone', order: 5 })),
      unwrapHosts: z
        .array(host)
        .default([])
        .describe('Links to these hosts and those below them go, their words stay.')
        .meta(field({ title: 'Links to these hosts go, their words stay', placeholder: 'none', order: 2 })),
      local: z
        .enum(['unwrap', 'keep'])
        .default('unwrap')
        .describe('Links to files on the computer of whoever copied.')
        .meta(field({ title: 'Links to files on somebody’s computer', words: { unwrap: 'go, their words stay', keep: 'stay' }, order: 3 })),
      bookmarks: z
        .enum(['used', 'drop', 'keep'])
        .default('used')
        .describe('used: those that something points to stay.')
        .meta(field({ title: 'Bookmarks', words: { used: 'stay where something points to them', drop: 'go', keep: 'stay' }, order: 4 })),
    })
    .prefault({})
    .describe('Addresses that work only where they come from, tracking, bookmarks.'),
  pictures: z
    .strictObject({
      ...common,
      on: common.on.default(true),
      embedded: z
        .enum(['library', 'stand-in', 'drop'])
        .default('library')
        .describe('Pictures that came inside the paste. library: taken into the asset library.')
        .meta(
          field({
            title: 'Pictures inside the paste',
            words: { library: 'go to the asset library', 'stand-in': 'become a box that asks for an upload', drop: 'go' },
          }),
        ),
      remote: z
        .enum(['keep', 'stand-in', 'drop'])
        .default('keep')
        .describe('Pictures that stand on some server.')
        .meta(
          field({
            title: 'Pictures on some server',
            words: { keep: 'stay', 'stand-in': 'become a box that asks for an upload', drop: 'go' },
          }),
        ),
      local: z
        .enum(['stand-in', 'drop'])
        .default('stand-in')
        .describe('Pictures that only the computer of whoever copied has. stand-in: a box says that one has to be uploaded.')
        .meta(
          field({ title: 'Pictures on somebody’s computer', words: { 'stand-in': 'become a box that asks for an upload', drop: 'go' } }),
        ),
      pixels: z
        .enum(['drop', 'keep'])
        .default('drop')
        .describe('Dots of one pixel, by which mail is watched.')
        .meta(field({ title: 'Dots by which mail is watched', words: { drop: 'go', keep: 'stay' } })),
      widestPx: z
        .int()
        .min(1)
        .max(10_000)
        .optional()
        .describe('Wider pictures are shown smaller, in proportion.')
        .meta(field({ title: 'Widest picture', unit: 'px' })),
    })
    .prefault({})
    .describe('Embedded pictures go to the library; where one cannot be had, a box says so.'),
  tables: z
    .strictObject({
      ...common,
      on: common.on.default(true),
      sizes: z
        .enum(['drop', 'keep'])
        .default('drop')
        .describe('Widths, heights, borders, padding.')
        .meta(field({ title: 'Widths, heights and borders', words: { drop: 'go', keep: 'stay' } })),
      headerRow: z
        .enum(['marked', 'looks-so', 'never'])
        .default('looks-so')
        .describe('When the first row becomes a header.')
        .meta(
          field({
            title: 'The first row becomes a header',
            words: { 'looks-so': 'where it is marked so or looks so', marked: 'where it is marked so', never: 'never' },
          }),
        ),
      cellParagraphs: z
        .enum(['unwrap', 'keep'])
        .default('unwrap')
        .describe('The paragraph of a cell that holds just one.')
        .meta(field({ title: 'The only paragraph of a cell', words: { unwrap: 'goes, its words stay', keep: 'stays' } })),
      layout: z
        .enum(['flatten', 'keep'])
        .default('flatten')
        .describe('Tables that only place things.')
        .meta(field({ title: 'Tables that only place things', words: { flatten: 'become paragraphs', keep: 'stay' } })),
    })
    .prefault({})
    .describe('Sizes go, header rows are marked, layout tables are flattened.'),
  'find-replace': z
    .strictObject({
      ...common,
      on: common.on.default(true),
      rules: z
        .array(replacementSchema)
        .max(200)
        .default([])
        .describe('Worked off from the first to the last.')
        .meta(field({ title: 'Replacements, from the first to the last', control: 'replacements' })),
    })
    .prefault({})
    .describe('Words, attribute values or whole elements are replaced.'),
  typography: z
    .strictObject({
      ...common,
      on: common.on.default(false),
      quotes: z
        .enum(['curly-single', 'curly-double', 'straight', 'keep'])
        .default('curly-single')
        .describe('Quotation marks, outer ones first.')
        .meta(
          field({
            title: 'Quotation marks',
            words: {
              'curly-single': 'become ‘…’, inner ones “…”',
              'curly-double': 'become “…”, inner ones ‘…’',
              straight: 'become straight',
              keep: 'stay',
            },
          }),
        ),
      dashes: z
        .enum(['spaced-en', 'em', 'keep'])
        .default('spaced-en')
        .describe('Hyphens and rules that stand for a dash.')
        .meta(field({ title: 'Dashes', words: { 'spaced-en': 'become – with spaces', em: 'become —', keep: 'stay' } })),
      ellipsis: z
        .enum(['character', 'dots', 'keep'])
        .default('character')
        .meta(field({ title: 'Three dots', words: { character: 'become …', dots: 'become ...', keep: 'stay' } })),
    })
    .prefault({})
    .describe('Quotation marks, dashes and ellipses in the house form.'),
  spaces: z
    .strictObject({
      ...common,
      on: common.on.default(true),
      hardSpaces: z
        .enum(['all', 'meaningless', 'runs', 'keep'])
        .default('meaningless')
        .describe('Which hard spaces become plain.')
        .meta(
          field({
            title: 'Hard spaces become plain',
            words: {
              meaningless: 'where they hold nothing together',
              runs: 'where several stand in a row',
              all: 'everywhere',
              keep: 'nowhere',
            },
          }),
        ),
      emptyParagraphs: z
        .enum(['remove', 'breaks', 'keep'])
        .default('remove')
        .describe('breaks: a line break stands in their place.')
        .meta(field({ title: 'Empty paragraphs', words: { remove: 'go', breaks: 'become a line break', keep: 'stay' } })),
      lines: z
        .enum(['enter-key', 'keep'])
        .default('enter-key')
        .describe('enter-key: lines stand as those do that the Enter key makes (surface, enter).')
        .meta(field({ title: 'Lines stand', words: { 'enter-key': 'as the Enter key makes them', keep: 'as they came' } })),
      whiteSpace: z
        .enum(['collapse', 'keep'])
        .default('collapse')
        .describe('Runs of white space, and that at the edges of blocks.')
        .meta(field({ title: 'White space that nobody sees', words: { collapse: 'goes', keep: 'stays' } })),
      breaks: z
        .enum(['paragraphs', 'keep'])
        .default('paragraphs')
        .describe('Runs of line breaks become paragraphs.')
        .meta(field({ title: 'Several line breaks in a row', words: { paragraphs: 'part paragraphs', keep: 'stay' } })),
      invisible: z
        .boolean()
        .default(true)
        .describe('Zero-width and control characters and soft hyphens go.')
        .meta(field({ title: 'Zero-width and control characters and soft hyphens go' })),
    })
    .prefault({})
    .describe('Hard spaces, empty paragraphs, runs of breaks, characters that nobody sees.'),
});

/** The id of every pass, in the order in which they work by default. */
export const PASS_IDS = Object.keys(pastePassesSchema.shape) as (keyof PastePasses)[];

export const pasteSchema = z.strictObject({
  order: z
    .array(z.enum(PASS_IDS as [keyof PastePasses, ...(keyof PastePasses)[]]))
    .default([])
    .describe('The passes that are to come first, in this order; the others follow in the usual one.'),
  choice: z
    .enum(['cleaned', 'plain', 'ask'])
    .default('cleaned')
    .describe('What a paste becomes. cleaned: by the passes. plain: words alone. ask: the author says each time.'),
  markdown: z.boolean().default(true).describe('Whether plain text that looks like Markdown is read as such.'),
  passes: pastePassesSchema.prefault({}),
});

export type PastePasses = z.output<typeof pastePassesSchema>;
export type PassId = keyof PastePasses;
export type Paste = z.output<typeof pasteSchema>;
