import { PASSES, type Expectation, type Overtaken, type PassId, type PasteSource, type Thing } from '@typikon/core';

const SOURCES: Readonly<Record<PasteSource, string>> = {
  'word-processor': 'Word processor',
  spreadsheet: 'Spreadsheet',
  presentation: 'Presentation',
  'web-mail': 'Web mail',
  chat: 'Chat',
  'web-page': 'Web page',
  'pdf-viewer': 'PDF viewer',
  'this-editor': 'This editor',
  'plain-text': 'Plain text',
  markdown: 'Markdown',
};

/** What a kind of source is called. */
export function sourceName(source: PasteSource): string {
  return SOURCES[source];
}

/** A pass as it is cited: "§3 Paste, Inline style". */
export function citePass(pass: PassId): string {
  return `§3 Paste, ${PASSES[pass].label}`;
}

/** How a setting is shown. */
export type SettingField =
  | { kind: 'choice'; key: string; label: string; options: readonly (readonly [value: string, words: string])[] }
  | { kind: 'switch'; key: string; label: string }
  | { kind: 'words'; key: string; label: string; hint: string; isOptional?: boolean }
  | { kind: 'number'; key: string; label: string; min: number; max: number; isOptional?: boolean }
  | { kind: 'pairs'; key: string; label: string; names: readonly string[] }
  | { kind: 'redirects'; key: string; label: string }
  | { kind: 'replacements'; key: string; label: string };

const choice = (key: string, label: string, ...options: (readonly [string, string])[]): SettingField => ({
  kind: 'choice',
  key,
  label,
  options,
});
const isOn = (key: string, label: string): SettingField => ({ kind: 'switch', key, label });
const words = (key: string, label: string, hint: string): SettingField => ({ kind: 'words', key, label, hint });

/** The settings of each pass beside its switch and its sources, in words that say what happens to the author's content. */
export const PASS_FIELDS: Readonly<Record<PassId, readonly SettingField[]>> = {
  'joined-lines': [
    choice(
      'hyphens',
      'A hyphen at the end of a line',
      ['dictionary', 'is closed where that makes a word'],
      ['close', 'is always closed'],
      ['keep', 'stays'],
    ),
  ],
  notes: [
    choice(
      'become',
      'Foot- and endnotes',
      ['linked', 'become linked notes at the end'],
      ['bracketed', 'become text in brackets'],
      ['drop', 'go'],
    ),
  ],
  lists: [isOn('typed', 'Bullets and numbers that are typed before lines count, too')],
  'office-leftovers': [
    choice('deletions', 'Words that were deleted with changes tracked', ['drop', 'go'], ['keep', 'stay']),
    choice('comments', 'Remarks in the margin', ['drop', 'go'], ['keep', 'stay']),
    choice('hidden', 'What the program hides', ['drop', 'goes'], ['keep', 'stays']),
    choice('languages', 'The language that most words are marked with', ['drop', 'goes'], ['keep', 'stays']),
  ],
  headings: [
    isOn('outline', 'Titles and paragraphs with an outline level become headings'),
    isOn('boldOnly', 'Short paragraphs that are bold as a whole become headings'),
    { kind: 'number', key: 'level', label: 'of level', min: 1, max: 6 },
    { kind: 'number', key: 'longest', label: 'Longest heading, in letters', min: 1, max: 400 },
  ],
  'inline-style': [
    isOn('asMarkup', 'Bold, italic, struck, raised and lowered become elements first'),
    words('keep', 'These properties stay', 'none'),
    words('drop', 'or only these go', 'all but those above'),
    choice('vendor', 'Properties of one browser alone', ['drop', 'go'], ['keep', 'stay']),
    { kind: 'pairs', key: 'alignmentClasses', label: 'An alignment becomes the class', names: ['left', 'center', 'right', 'justify'] },
  ],
  classes: [
    choice(
      'become',
      'Of classes',
      ['drop-office', 'those of office programs, mail and chats go'],
      ['keep-styles', 'only those of this profile’s styles stay'],
      ['keep-named', 'only the named ones stay'],
      ['drop-all', 'all go'],
    ),
    words('keep', 'These stay', 'none named'),
    words('drop', 'These go in any case', 'none named'),
  ],
  wrappers: [
    choice('which', 'Wrappers', ['bare', 'go where they carry nothing'], ['all', 'go all']),
    words('elements', 'Wrappers are', 'none'),
    isOn('join', 'Neighbours that say the same become one'),
  ],
  elements: [
    words('unwrap', 'These elements go, their words stay', 'none'),
    words('drop', 'These go with all they hold', 'none'),
    { kind: 'words', key: 'only', label: 'or only these stay', hint: 'all but those above', isOptional: true },
    words('attributes', 'These attributes go', 'none'),
    { kind: 'words', key: 'onlyAttributes', label: 'or only these stay', hint: 'all but those above', isOptional: true },
  ],
  links: [
    words('parameters', 'These parameters are taken out of addresses', 'none'),
    words('unwrapHosts', 'Links to these hosts go, their words stay', 'none'),
    choice('local', 'Links to files on somebody’s computer', ['unwrap', 'go, their words stay'], ['keep', 'stay']),
    choice('bookmarks', 'Bookmarks', ['used', 'stay where something points to them'], ['drop', 'go'], ['keep', 'stay']),
    { kind: 'redirects', key: 'redirects', label: 'Redirects that are undone' },
  ],
  pictures: [
    choice(
      'embedded',
      'Pictures inside the paste',
      ['library', 'go to the asset library'],
      ['stand-in', 'become a box that asks for an upload'],
      ['drop', 'go'],
    ),
    choice('remote', 'Pictures on some server', ['keep', 'stay'], ['stand-in', 'become a box that asks for an upload'], ['drop', 'go']),
    choice('local', 'Pictures on somebody’s computer', ['stand-in', 'become a box that asks for an upload'], ['drop', 'go']),
    choice('pixels', 'Dots by which mail is watched', ['drop', 'go'], ['keep', 'stay']),
    { kind: 'number', key: 'widestPx', label: 'Widest picture, in pixels', min: 1, max: 10_000, isOptional: true },
  ],
  tables: [
    choice('sizes', 'Widths, heights and borders', ['drop', 'go'], ['keep', 'stay']),
    choice(
      'headerRow',
      'The first row becomes a header',
      ['looks-so', 'where it is marked so or looks so'],
      ['marked', 'where it is marked so'],
      ['never', 'never'],
    ),
    choice('cellParagraphs', 'The only paragraph of a cell', ['unwrap', 'goes, its words stay'], ['keep', 'stays']),
    choice('layout', 'Tables that only place things', ['flatten', 'become paragraphs'], ['keep', 'stay']),
  ],
  'find-replace': [{ kind: 'replacements', key: 'rules', label: 'Replacements, from the first to the last' }],
  typography: [
    choice(
      'quotes',
      'Quotation marks',
      ['curly-single', 'become ‘…’, inner ones “…”'],
      ['curly-double', 'become “…”, inner ones ‘…’'],
      ['straight', 'become straight'],
      ['keep', 'stay'],
    ),
    choice('dashes', 'Dashes', ['spaced-en', 'become – with spaces'], ['em', 'become —'], ['keep', 'stay']),
    choice('ellipsis', 'Three dots', ['character', 'become …'], ['dots', 'become ...'], ['keep', 'stay']),
  ],
  spaces: [
    choice(
      'hardSpaces',
      'Hard spaces become plain',
      ['meaningless', 'where they hold nothing together'],
      ['runs', 'where several stand in a row'],
      ['all', 'everywhere'],
      ['keep', 'nowhere'],
    ),
    choice('emptyParagraphs', 'Empty paragraphs', ['remove', 'go'], ['breaks', 'become a line break'], ['keep', 'stay']),
    choice('breaks', 'Several line breaks in a row', ['paragraphs', 'part paragraphs'], ['keep', 'stay']),
    choice('lines', 'Lines stand', ['enter-key', 'as the Enter key makes them'], ['keep', 'as they came']),
    choice('whiteSpace', 'White space that nobody sees', ['collapse', 'goes'], ['keep', 'stays']),
    isOn('invisible', 'Zero-width and control characters and soft hyphens go'),
  ],
};

/** What a pass did, in a word: "14 declarations". */
export function countOf(pass: PassId, changes: number): string {
  const [one, many] = PASSES[pass].unit;
  return changes === 1 ? one : many;
}

/** A kind of thing of what is left, as it is called. */
export function thingName({ kind, name }: Pick<Thing, 'kind' | 'name'>): { code: string; words: string } {
  switch (kind) {
    case 'element':
      return { code: name, words: '' };
    case 'attribute':
      return { code: name, words: 'attribute' };
    case 'class':
      return { code: `.${name}`, words: '' };
    case 'style':
      return { code: name, words: 'style' };
    case 'hard-space':
      return { code: '', words: 'hard space' };
    case 'empty-paragraph':
      return { code: '', words: 'empty paragraph' };
    case 'link':
      return name === '' ? { code: '', words: 'link within the site' } : { code: name, words: 'link to' };
  }
}

/** An expectation in a sentence. */
export function expectationWords(expectation: Expectation): string {
  switch (expectation.expect) {
    case 'no-inline-style':
      return 'No inline style is left';
    case 'no-hard-space':
      return 'No hard space is left';
    case 'no-office':
      return 'Nothing of an office program is left';
    case 'no-empty-paragraph':
      return 'No empty paragraph is left';
    case 'links-lead-somewhere':
      return 'Every link within the text leads somewhere';
    case 'text-kept':
      return `${expectation.percent} % of the letters are kept`;
    case 'count':
      return `There are ${expectation.is} ${nounOf(expectation.of)}`;
    case 'text-is':
      return `The text is “${short(expectation.text)}”`;
    case 'text-has':
      return `The text has “${short(expectation.text)}”`;
    case 'text-lacks':
      return `The text has no “${short(expectation.text)}”`;
    case 'markup-has':
      return `The markup has ${short(expectation.html)}`;
    case 'markup-lacks':
      return `The markup has no ${short(expectation.html)}`;
    case 'outline':
      return `The headings are ${expectation.is.map((line) => `h${line}`).join(' · ') || 'none'}`;
    case 'source':
      return `It is told as ${sourceName(expectation.is).toLowerCase()}`;
    case 'pictures-to-upload':
      return `${expectation.is} pictures have to be uploaded`;
  }
}

function nounOf(of: string): string {
  return of.startsWith('@') ? `${of.slice(1)} attributes` : of.startsWith('.') ? `elements of class ${of.slice(1)}` : `<${of}>`;
}

function short(text: string): string {
  return text.length > 90 ? `${text.slice(0, 88)}…` : text;
}

/** A pass that works in vain, in a sentence. */
export function overtakenWords({ pass, by, how }: Overtaken): string {
  const later = by === 'markup' ? 'the markup rules' : PASSES[by].label;
  return how === 'undone'
    ? `What ${PASSES[pass].label} does here, ${later} takes back.`
    : `What ${PASSES[pass].label} does here, ${later} would do anyway.`;
}

/** The number of a pass in the chapter: 3.1 is the source. */
export function passNumber(order: readonly PassId[], pass: PassId): string {
  return `3.${order.indexOf(pass) + 2}`;
}
