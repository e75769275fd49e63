import type { ToolbarOptions } from '@typikon/core';

/** One thing that can be chosen of a button. */
export interface OptionField {
  /** Keys below the button's part of the toolbar's options. */
  keys: readonly string[];
  label: string;
  kind: 'choice' | 'flag' | 'number' | 'text' | 'words' | 'numbers' | 'colours';
  options?: readonly (readonly [value: string, words: string])[];
  /** What can be written, as it follows "must be". */
  hint?: string;
  placeholder?: string;
}

const flag = (key: string, label: string): OptionField => ({ keys: [key], label, kind: 'flag' });
const number = (key: string, label: string, hint: string, placeholder = ''): OptionField => ({
  keys: [key],
  label,
  kind: 'number',
  hint,
  placeholder,
});
const text = (keys: string, label: string, placeholder = ''): OptionField => ({
  keys: keys.split('.'),
  label,
  kind: 'text',
  hint: 'one class name, such as align-right',
  placeholder,
});
const colours: OptionField = {
  keys: ['colours'],
  label: 'Colours offered, each a name and a value',
  kind: 'colours',
  hint: 'lines such as “Sea: #17475c”',
};

/** What can be chosen of each button, in the order shown. */
export const OPTION_FIELDS: Readonly<Record<keyof ToolbarOptions, readonly OptionField[]>> = {
  'block-kind': [{ keys: ['levels'], label: 'Heading levels offered', kind: 'numbers', hint: 'whole numbers from 1 to 6' }],
  bold: [
    {
      keys: ['element'],
      label: 'Makes',
      kind: 'choice',
      options: [
        ['strong', 'strong: the words are important'],
        ['b', 'b: the words only look bold'],
      ],
    },
  ],
  italic: [
    {
      keys: ['element'],
      label: 'Makes',
      kind: 'choice',
      options: [
        ['em', 'em: the words are stressed'],
        ['i', 'i: another voice or tongue'],
      ],
    },
  ],
  strike: [
    {
      keys: ['element'],
      label: 'Makes',
      kind: 'choice',
      options: [
        ['s', 's: holds no longer'],
        ['del', 'del: was deleted'],
      ],
    },
  ],
  'text-colour': [colours],
  'background-colour': [colours],
  align: [
    text('left', 'Class for left'),
    text('centre', 'Class for the middle'),
    text('right', 'Class for right'),
    text('justify', 'Class for both sides'),
  ],
  indent: [{ keys: ['classes'], label: 'Classes, the least step first', kind: 'words', hint: 'class names, such as indent-1 indent-2' }],
  'block-quote': [flag('askSource', 'Asks for the address of the source')],
  link: [{ keys: ['kinds'], label: 'May lead to, in this order', kind: 'words', hint: 'some of page, heading, address, mail, telephone' }],
  picture: [
    { keys: ['folders'], label: 'Folders of the library that authors see', kind: 'words', placeholder: 'all', hint: 'names of folders' },
    flag('upload', 'Authors may bring pictures of their own'),
    number('largestKb', 'Largest file, in kB', 'a whole number from 10 to 8192'),
    number('widestPx', 'Wider pictures are made smaller to, in pixels', 'a whole number from 50 to 6000'),
    flag('caption', 'Offers a caption, in a figure'),
    text('placements.left', 'Class for left', 'not offered'),
    text('placements.right', 'Class for right', 'not offered'),
    text('placements.centre', 'Class for the middle', 'not offered'),
    text('placements.full', 'Class for full width', 'not offered'),
  ],
  table: [
    number('maxRows', 'Most rows', 'a whole number from 1 to 500'),
    number('maxColumns', 'Most columns', 'a whole number from 1 to 60'),
    flag('headerRow', 'A new table begins with a header row'),
  ],
  'special-characters': [{ keys: ['characters'], label: 'Come first', kind: 'words', hint: 'signs with spaces between them' }],
  language: [{ keys: ['languages'], label: 'Languages offered', kind: 'words', hint: 'language tags, such as cy or de' }],
  date: [
    {
      keys: ['form'],
      label: 'Written',
      kind: 'choice',
      options: [
        ['long', 'in words: 3 March 2026'],
        ['short', 'in figures: 2026-03-03'],
      ],
    },
  ],
  'summary-break': [text('class', 'Class of the rule')],
  'word-count': [number('most', 'Tells the author above so many characters', 'a whole number, or nothing', 'never')],
};
