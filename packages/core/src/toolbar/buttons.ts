import type { ToolbarOptions } from '../profile/toolbar-schema';
import { BUTTON_IDS, type ButtonId } from '../profile/button-ids';

/** Something that the markup rules must keep for a button's work to last. */
export interface Need {
  element: string;
  attribute?: string;
  /** Values that the attribute must be allowed to have; without any, that it may be there at all is enough. */
  values?: readonly string[];
  /** The test that a rule for the attribute begins with where there is none. */
  test?: Readonly<Record<string, unknown>>;
}

/** What buttons are for; the palette is sorted by it. */
export const PURPOSES = {
  blocks: 'Paragraphs and headings',
  words: 'Words',
  lists: 'Lists',
  places: 'Links and places',
  things: 'Pictures, tables, embeds',
  characters: 'Characters',
  work: 'Working on the text',
} as const;

export type Purpose = keyof typeof PURPOSES;

/** A button that a toolbar can hold, and what it needs of the markup rules. What it does is in the editor package. */
export interface ButtonDeclaration {
  id: ButtonId;
  /** What the button is called, in the toolbar and in the designer. */
  label: string;
  /** What it does to the author's content, in a sentence. */
  effect: string;
  purpose: Purpose;
  /** The element it makes; null for a button that makes none. */
  makes: string | null;
  /** Elements and attributes without which its markup cannot be kept. */
  needs: (options: ToolbarOptions) => readonly Need[];
  /** Its key, in the notation of ProseMirror's keymaps (`Mod` is Ctrl, or Cmd on a Mac); null where it has none. */
  key: string | null;
  /** How many acts of an author it takes, from the press on. */
  acts: number;
  /** The part of the toolbar's options that belongs to it. */
  options?: keyof ToolbarOptions;
}

type Rest = Partial<Omit<ButtonDeclaration, 'id' | 'label' | 'effect' | 'purpose'>>;

const list: ButtonDeclaration[] = [];

function declare(purpose: Purpose, id: ButtonId, label: string, effect: string, rest: Rest = {}): void {
  list.push({ id, label, effect, purpose, makes: null, needs: () => [], key: null, acts: 1, ...rest });
}

/** Of one element, and perhaps more. */
const makes = (element: string, ...more: Need[]): Rest => ({ makes: element, needs: () => [{ element }, ...more] });
const classes = (element: string, values: readonly string[]): Need => ({
  element,
  attribute: 'class',
  values,
  test: { test: 'tokens', values: [...values] },
});

declare('blocks', 'block-kind', 'Kind of block', 'A menu of paragraph and heading levels.', {
  makes: 'p',
  needs: ({ 'block-kind': { levels } }) => [{ element: 'p' }, ...levels.map((level) => ({ element: `h${level}` }))],
  acts: 2,
  options: 'block-kind',
});
declare('blocks', 'paragraph', 'Paragraph', 'Turns a heading back into a paragraph.', { ...makes('p'), key: 'Mod-Alt-0' });
for (const level of [2, 3, 4, 5, 6] as const)
  declare('blocks', `heading-${level}`, `Heading ${level}`, `Turns the paragraph into a heading of level ${level}.`, {
    ...makes(`h${level}`),
    key: `Mod-Alt-${level}`,
  });
declare('blocks', 'block-quote', 'Block quote', 'Sets paragraphs apart as a quotation.', {
  makes: 'blockquote',
  needs: ({ 'block-quote': { askSource } }) => [
    { element: 'blockquote' },
    ...(askSource ? [{ element: 'blockquote', attribute: 'cite', test: { test: 'url' } }] : []),
  ],
  key: 'Mod-Shift-9',
  options: 'block-quote',
});
declare('blocks', 'preformatted', 'Preformatted', 'Keeps spaces and line ends as they are typed.', makes('pre'));
declare('blocks', 'details', 'Details', 'Folds blocks away under a line that readers can open.', makes('details', { element: 'summary' }));
declare('blocks', 'rule', 'Rule', 'Draws a line between two parts.', makes('hr'));
declare('blocks', 'summary-break', 'End of the teaser', 'Marks where the teaser ends that lists show.', {
  makes: 'hr',
  needs: ({ 'summary-break': option }) => [{ element: 'hr' }, classes('hr', [option.class])],
  options: 'summary-break',
});
for (const [side, words] of [
  ['left', 'to the left'],
  ['centre', 'in the middle'],
  ['right', 'to the right'],
  ['justify', 'to both sides'],
] as const)
  declare('blocks', `align-${side}`, side === 'justify' ? 'Justify' : `Align ${side}`, `Sets the lines of a block ${words}, by a class.`, {
    needs: ({ align }) => [classes('p', [align[side]])],
    options: 'align',
  });
declare('blocks', 'text-direction', 'Text direction', 'Sets a block from right to left, or back.', {
  needs: () => [{ element: 'p', attribute: 'dir', values: ['rtl'], test: { test: 'list', values: ['ltr', 'rtl', 'auto'] } }],
});
declare('blocks', 'move-up', 'Move block up', 'Moves the block or list item before the one above it.', { key: 'Alt-Shift-ArrowUp' });
declare('blocks', 'move-down', 'Move block down', 'Moves the block or list item behind the one below it.', { key: 'Alt-Shift-ArrowDown' });

declare('words', 'styles', 'Styles', 'A menu of the styles that this profile names.', { acts: 2 });
declare('words', 'bold', 'Bold', 'Marks words as important.', {
  makes: 'strong',
  needs: ({ bold: { element } }) => [{ element }],
  key: 'Mod-b',
  options: 'bold',
});
declare('words', 'italic', 'Italic', 'Stresses words.', {
  makes: 'em',
  needs: ({ italic: { element } }) => [{ element }],
  key: 'Mod-i',
  options: 'italic',
});
declare('words', 'underline', 'Underline', 'Underlines words, which readers may take for a link.', { ...makes('u'), key: 'Mod-u' });
declare('words', 'strike', 'Strike through', 'Strikes words that hold no longer.', {
  makes: 's',
  needs: ({ strike: { element } }) => [{ element }],
  key: 'Mod-Shift-x',
  options: 'strike',
});
declare('words', 'subscript', 'Subscript', 'Sets words lower, as in a formula.', { ...makes('sub'), key: 'Mod-,' });
declare('words', 'superscript', 'Superscript', 'Sets words higher, as for an ordinal.', { ...makes('sup'), key: 'Mod-.' });
declare('words', 'small', 'Small print', 'Marks side comments, such as terms and conditions.', makes('small'));
declare('words', 'highlight', 'Highlight', 'Marks words as one would with a pen.', { ...makes('mark'), key: 'Mod-Shift-h' });
declare('words', 'code', 'Code', 'Marks words as computer text.', { ...makes('code'), key: 'Mod-e' });
for (const [id, label, property, effect] of [
  ['text-colour', 'Text colour', 'color', 'Gives words one of the colours that the profile names.'],
  ['background-colour', 'Background colour', 'background-color', 'Puts one of the colours that the profile names behind words.'],
] as const)
  declare('words', id, label, effect, {
    makes: 'span',
    needs: (options) => {
      const values = options[id].colours.map(({ value }) => value);
      return [
        { element: 'span' },
        {
          element: 'span',
          attribute: 'style',
          values: values.map((value) => `${property}: ${value}`),
          test: { test: 'style', properties: values.length === 0 ? {} : { [property]: { test: 'colour', values } } },
        },
      ];
    },
    acts: 2,
    options: id,
  });
declare('words', 'abbreviation', 'Abbreviation', 'Says what an abbreviation stands for.', {
  ...makes('abbr', { element: 'abbr', attribute: 'title', test: { test: 'text' } }),
  acts: 2,
});
declare('words', 'language', 'Language', 'Says that a passage is in another language, so that it is read out rightly.', {
  makes: 'span',
  needs: () => [{ element: 'span' }, { element: 'span', attribute: 'lang', values: ['fr'], test: { test: 'language' } }],
  acts: 2,
  options: 'language',
});
declare('words', 'date', 'Date', 'Puts in a date that programs can read too.', {
  ...makes('time', { element: 'time', attribute: 'datetime', values: ['2026-03-03'], test: { test: 'text', maxLength: 40 } }),
  acts: 2,
  options: 'date',
});
declare('words', 'clear-formatting', 'Clear formatting', 'Takes bold, italic and the like off the selection.', { key: 'Mod-\\' });

const item: Need = { element: 'li' };
declare('lists', 'bulleted-list', 'Bulleted list', 'Turns paragraphs into a bulleted list, and back.', {
  ...makes('ul', item),
  key: 'Mod-Shift-8',
});
declare('lists', 'numbered-list', 'Numbered list', 'Turns paragraphs into a numbered list, and back.', {
  ...makes('ol', item),
  key: 'Mod-Shift-7',
});
declare('lists', 'list-numbers', 'Numbers of the list', 'Sets how a list counts and where it begins.', {
  ...makes(
    'ol',
    { element: 'ol', attribute: 'start', values: ['3'], test: { test: 'integer', min: 1, max: 999 } },
    { element: 'ol', attribute: 'type', values: ['a'], test: { test: 'list', values: ['1', 'a', 'A', 'i', 'I'] } },
  ),
  acts: 2,
});
declare(
  'lists',
  'definition-list',
  'Term list',
  'Lists terms, each with its explanation.',
  makes('dl', { element: 'dt' }, { element: 'dd' }),
);
declare('lists', 'indent', 'Indent', 'Puts a list item below the one above it; sets other blocks in by a class.', {
  needs: ({ indent }) => [classes('p', indent.classes)],
  key: 'Mod-]',
  options: 'indent',
});
declare('lists', 'outdent', 'Outdent', 'Takes a list item or block one step out again.', { key: 'Mod-[' });

declare('places', 'link', 'Link', 'Links the selected words to a page, a heading, an address, a mailbox or a telephone.', {
  ...makes('a', { element: 'a', attribute: 'href', test: { test: 'url' } }),
  key: 'Mod-k',
  acts: 3,
  options: 'link',
});
declare('places', 'unlink', 'Remove link', 'Takes the link away and keeps its words.', { key: 'Mod-Shift-k' });
declare('places', 'anchor', 'Anchor', 'Names a place, so that links can lead to it.', {
  ...makes('a', { element: 'a', attribute: 'id', values: ['place'], test: { test: 'text', maxLength: 80 } }),
  acts: 2,
});

declare('things', 'picture', 'Picture', 'Puts in a picture from the library or from the author’s computer.', {
  makes: 'img',
  needs: ({ picture: { caption, placements } }) => {
    const used = Object.values(placements).filter((name) => name !== '');
    return [
      { element: 'img' },
      { element: 'img', attribute: 'src', test: { test: 'url' } },
      { element: 'img', attribute: 'alt', values: [''], test: { test: 'text', maxLength: 300 } },
      ...(caption ? [{ element: 'figure' }, { element: 'figcaption' }] : []),
      ...(used.length === 0 ? [] : [classes(caption ? 'figure' : 'img', used)]),
    ];
  },
  acts: 4,
  options: 'picture',
});
declare('things', 'table', 'Table', 'Puts in a table, and changes its rows, columns and cells.', {
  ...makes('table', { element: 'tbody' }, { element: 'tr' }, { element: 'td' }, { element: 'th' }),
  acts: 2,
  options: 'table',
});
declare('things', 'embed', 'Embed', 'Shows a page of an allowed host within this one, such as a camera or a film.', {
  ...makes(
    'iframe',
    { element: 'iframe', attribute: 'src', test: { test: 'url', hosts: ['cams.example'] } },
    { element: 'iframe', attribute: 'title', test: { test: 'text', maxLength: 200 } },
  ),
  acts: 3,
});

declare('characters', 'special-characters', 'Special characters', 'Finds signs that are not on the keyboard, by their names.', {
  acts: 2,
  options: 'special-characters',
});
declare('characters', 'line-break', 'Line break', 'Begins a line within the same paragraph.', makes('br'));
declare('characters', 'hard-space', 'Hard space', 'Keeps two words on one line, such as a number and its unit.', {
  key: 'Mod-Shift-Space',
});
declare('characters', 'soft-hyphen', 'Soft hyphen', 'Shows where a long word may be broken.', { key: 'Mod-Shift--' });

declare('work', 'undo', 'Undo', 'Takes back the last change.', { key: 'Mod-z' });
declare('work', 'redo', 'Redo', 'Does again what was taken back.', { key: 'Mod-Shift-z' });
declare('work', 'paste-text', 'Paste as text', 'Pastes the words alone.', { key: 'Mod-Shift-v' });
declare('work', 'find-replace', 'Find and replace', 'Finds words, and puts others in their place.', { key: 'Mod-f', acts: 2 });
declare('work', 'spelling', 'Spelling', 'Marks words that no dictionary has, and offers others.');
declare('work', 'outline', 'Outline', 'Lists the headings, with gaps between levels marked.', { acts: 1 });
declare('work', 'structure', 'Structure', 'Shows what kind of block each part is.');
declare('work', 'source', 'Source', 'Shows the markup, to be changed by hand.', { acts: 2 });
declare('work', 'full-window', 'Full window', 'Gives the editor the whole window.', { key: 'Mod-Alt-f' });
declare('work', 'word-count', 'Words and characters', 'Counts words and characters.', { options: 'word-count' });
declare('work', 'keyboard-help', 'Keyboard help', 'Lists the keys and marks that work here.', { key: 'Alt-0' });

/** Every button there is, in the order in which the designer offers them. */
export const BUTTONS: readonly ButtonDeclaration[] = [...list].sort((a, b) => BUTTON_IDS.indexOf(a.id) - BUTTON_IDS.indexOf(b.id));

const byId = new Map<string, ButtonDeclaration>(BUTTONS.map((button) => [button.id, button]));

/** The declaration of a button; throws for an id that no button has. */
export function buttonOf(id: ButtonId): ButtonDeclaration {
  const button = byId.get(id);
  if (button === undefined) throw new Error(`No button has the id "${id}".`);
  return button;
}
