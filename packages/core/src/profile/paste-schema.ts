import { z } from 'zod';

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
const parameter = z.string().regex(/^[^\s&=#]+\*?$/, 'must be the name of a parameter; a star at its end stands for any ending');

/** What every pass can be told: whether it works, and for which sources. */
const common = {
  on: z.boolean().describe('Whether the pass works.'),
  sources: z.array(z.enum(PASTE_SOURCES)).min(1).optional().describe('The kinds of source it works on; without it, all.'),
};

/**
 * The settings of every pass, with the defaults of a strict house style. The order here is the order in which passes work
 * where a profile does not say otherwise.
 */
export const pastePassesSchema = z.strictObject({
  notes: z
    .strictObject({
      ...common,
      on: common.on.default(true),
      become: z
        .enum(['linked', 'bracketed', 'drop'])
        .default('linked')
        .describe('linked: a list at the end. bracketed: text at the place.'),
    })
    .prefault({})
    .describe('Footnotes and endnotes.'),
  lists: z
    .strictObject({
      ...common,
      on: common.on.default(true),
      typed: z.boolean().default(true).describe('Whether bullets and numbers typed in text count, too.'),
    })
    .prefault({})
    .describe('Paragraphs that only look like list items become lists.'),
  'office-leftovers': z
    .strictObject({
      ...common,
      on: common.on.default(true),
      deletions: z.enum(['drop', 'keep']).default('drop').describe('What a word processor marked as deleted.'),
      comments: z.enum(['drop', 'keep']).default('drop').describe('Remarks in the margin.'),
    })
    .prefault({})
    .describe('Conditional comments, office namespaces and properties, empty anchors, tracked changes.'),
  'inline-style': z
    .strictObject({
      ...common,
      on: common.on.default(true),
      keep: z.array(property).default([]).describe('Properties that stay; with `drop`, all others stay instead.'),
      drop: z.array(property).optional().describe('Only these properties go.'),
      asMarkup: z.boolean().default(true).describe('Bold, italic, struck, sub- and superscript become elements first.'),
      alignmentClasses: z
        .partialRecord(z.enum(['left', 'center', 'right', 'justify']), className)
        .default({})
        .describe('Classes that alignments become.'),
    })
    .prefault({})
    .describe('Inline style goes, but for what is named; what markup can say becomes markup.'),
  classes: z
    .strictObject({
      ...common,
      on: common.on.default(true),
      become: z.enum(['drop-office', 'drop-all', 'keep-named']).default('drop-office'),
      keep: z.array(className).default([]).describe('For keep-named; a star at the end stands for any ending.'),
    })
    .prefault({})
    .describe('Classes that other programs brought along.'),
  wrappers: z
    .strictObject({
      ...common,
      on: common.on.default(true),
      which: z.enum(['all', 'bare']).default('bare').describe('bare: only those that carry nothing.'),
      elements: z.array(name).default(['span', 'font']),
    })
    .prefault({})
    .describe('Wrappers go, their words stay.'),
  elements: z
    .strictObject({
      ...common,
      on: common.on.default(false),
      unwrap: z.array(name).default([]).describe('These go, their content stays.'),
      drop: z.array(name).default([]).describe('These go with their content.'),
      attributes: z.array(name).default([]).describe('These attributes go wherever they stand.'),
    })
    .prefault({})
    .describe('Elements and attributes that no paste is to bring.'),
  headings: z
    .strictObject({
      ...common,
      on: common.on.default(false),
      level: z.int().min(1).max(6).default(2).describe('The level that bold-only paragraphs become.'),
      longest: z.int().min(1).max(400).default(90).describe('Longer paragraphs are no headings.'),
    })
    .prefault({})
    .describe('Paragraphs that are bold as a whole become headings.'),
  links: z
    .strictObject({
      ...common,
      on: common.on.default(true),
      parameters: z
        .array(parameter)
        .default(['utm_*', 'fbclid', 'gclid', 'msclkid', 'mc_eid', 'mc_cid', 'igshid'])
        .describe('Tracking parameters to take out of addresses.'),
      redirects: z
        .array(z.strictObject({ host: z.string().min(1), parameter: z.string().min(1) }))
        .default([])
        .describe('Redirect wrappers to undo: the host and the parameter that holds the address.'),
      local: z.enum(['unwrap', 'keep']).default('unwrap').describe('Links to files on the computer of whoever copied.'),
      bookmarks: z.enum(['used', 'drop', 'keep']).default('used').describe('used: those that something points to stay.'),
    })
    .prefault({})
    .describe('Addresses that work only where they come from, tracking, bookmarks.'),
  tables: z
    .strictObject({
      ...common,
      on: common.on.default(true),
      sizes: z.enum(['drop', 'keep']).default('drop').describe('Widths, heights, borders, padding.'),
      headerRow: z.enum(['marked', 'looks-so', 'never']).default('looks-so').describe('When the first row becomes a header.'),
      layout: z.enum(['flatten', 'keep']).default('flatten').describe('Tables that only place things.'),
    })
    .prefault({})
    .describe('Sizes go, header rows are marked, layout tables are flattened.'),
  spaces: z
    .strictObject({
      ...common,
      on: common.on.default(true),
      hardSpaces: z.enum(['all', 'meaningless', 'runs', 'keep']).default('meaningless').describe('Which hard spaces become plain.'),
      emptyParagraphs: z.enum(['remove', 'keep']).default('remove'),
      breaks: z.enum(['paragraphs', 'keep']).default('paragraphs').describe('Runs of line breaks become paragraphs.'),
      invisible: z.boolean().default(true).describe('Zero-width and control characters and soft hyphens go.'),
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
  passes: pastePassesSchema.prefault({}),
});

export type PastePasses = z.output<typeof pastePassesSchema>;
export type PassId = keyof PastePasses;
export type Paste = z.output<typeof pasteSchema>;
