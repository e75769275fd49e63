import type { PassId } from '../profile/paste-schema';

/** What a pass is called and does, in words. */
export interface PassWords {
  label: string;
  /** What it does to the author's content, in a sentence. */
  effect: string;
  /** How its work is counted: "lists", "declarations". */
  unit: readonly [one: string, many: string];
}

/** The words for every pass, apart from what the passes do: a screen that names one needs no parser. */
export const PASS_WORDS: Readonly<Record<PassId, PassWords>> = {
  'joined-lines': {
    label: 'Joined lines',
    effect: 'Lines broken to fit a page become paragraphs again.',
    unit: ['line', 'lines'],
  },
  notes: {
    label: 'Notes',
    effect: 'Footnotes and endnotes become linked notes at the end.',
    unit: ['note', 'notes'],
  },
  lists: {
    label: 'Rebuild lists',
    effect: 'Paragraphs that only look like list items become lists.',
    unit: ['item', 'items'],
  },
  'office-leftovers': {
    label: 'Office leftovers',
    effect: 'What only the program itself reads goes; tracked deletions, too.',
    unit: ['piece', 'pieces'],
  },
  headings: {
    label: 'Headings',
    effect: 'Titles and outline levels become headings.',
    unit: ['heading', 'headings'],
  },
  'inline-style': {
    label: 'Inline style',
    effect: 'Weight and slant become strong and em; the rest goes.',
    unit: ['declaration', 'declarations'],
  },
  classes: {
    label: 'Classes',
    effect: 'Classes that other programs brought along go.',
    unit: ['place', 'places'],
  },
  wrappers: {
    label: 'Wrappers',
    effect: 'Span and font go, their words stay; neighbours become one.',
    unit: ['unwrapped', 'unwrapped'],
  },
  elements: {
    label: 'Elements and attributes',
    effect: 'Named elements and attributes go; event handlers always.',
    unit: ['place', 'places'],
  },
  links: {
    label: 'Links',
    effect: 'Dead links go, their words stay; tracking and redirects are undone.',
    unit: ['link', 'links'],
  },
  pictures: {
    label: 'Pictures',
    effect: 'Embedded ones go to the library; where one is missing, a box says so.',
    unit: ['picture', 'pictures'],
  },
  tables: {
    label: 'Tables',
    effect: 'Widths go, header rows are marked, layout tables flattened.',
    unit: ['place', 'places'],
  },
  'find-replace': {
    label: 'Find and replace',
    effect: 'Words, attribute values or whole elements are replaced.',
    unit: ['hit', 'hits'],
  },
  typography: {
    label: 'Typography',
    effect: 'Quotation marks, dashes and ellipses take the house form.',
    unit: ['character', 'characters'],
  },
  spaces: {
    label: 'Spaces and empties',
    effect: 'Idle hard spaces and empty paragraphs go; breaks part paragraphs.',
    unit: ['place', 'places'],
  },
};
