/** A button that a toolbar can hold, and what it needs of the markup rules. What it does is in the editor package. */
export interface ButtonDeclaration {
  id: string;
  /** What the button is called, in the toolbar and in the designer. */
  label: string;
  /** What it does to the author's content, in a sentence. */
  effect: string;
  /** The element it makes; null for a button that makes no markup. */
  makes: string | null;
  /** Further elements and attributes without which its markup cannot be kept. */
  needs: readonly { element: string; attribute?: string }[];
  /** Its key, in the notation of ProseMirror's keymaps (`Mod` is Ctrl, or Cmd on a Mac); null where it has none. */
  key: string | null;
}

type Named<Id extends string> = ButtonDeclaration & { id: Id };

const mark = <Id extends string>(id: Id, label: string, effect: string, element: string, key: string | null): Named<Id> => ({
  id,
  label,
  effect,
  makes: element,
  needs: [{ element }],
  key,
});

const heading = <Level extends 2 | 3 | 4>(level: Level): Named<`heading-${Level}`> =>
  mark(`heading-${level}`, `Heading ${level}`, `Turns the paragraph into a heading of level ${level}.`, `h${level}`, `Mod-Alt-${level}`);

const list = <Id extends string>(id: Id, label: string, element: string, key: string): Named<Id> => ({
  id,
  label,
  effect: `Turns paragraphs into a ${label.toLowerCase()}, and back.`,
  makes: element,
  needs: [{ element }, { element: 'li' }],
  key,
});

const plain = <Id extends string>(id: Id, label: string, effect: string, key: string | null): Named<Id> => ({
  id,
  label,
  effect,
  makes: null,
  needs: [],
  key,
});

const link: Named<'link'> = {
  id: 'link',
  label: 'Link',
  effect: 'Links the selected words to an address.',
  makes: 'a',
  needs: [{ element: 'a' }, { element: 'a', attribute: 'href' }],
  key: 'Mod-k',
};

const BUTTON_LIST = [
  mark('paragraph', 'Paragraph', 'Turns a heading back into a paragraph.', 'p', 'Mod-Alt-0'),
  heading(2),
  heading(3),
  heading(4),
  mark('bold', 'Bold', 'Marks words as important.', 'strong', 'Mod-b'),
  mark('italic', 'Italic', 'Stresses words.', 'em', 'Mod-i'),
  mark('underline', 'Underline', 'Underlines words, which readers may take for a link.', 'u', 'Mod-u'),
  list('bulleted-list', 'Bulleted list', 'ul', 'Mod-Shift-8'),
  list('numbered-list', 'Numbered list', 'ol', 'Mod-Shift-7'),
  mark('block-quote', 'Block quote', 'Sets paragraphs apart as a quotation.', 'blockquote', 'Mod-Shift-9'),
  link,
  plain('unlink', 'Remove link', 'Takes the link away and keeps its words.', 'Mod-Shift-k'),
  plain('clear-formatting', 'Clear formatting', 'Takes bold, italic and the like off the selection.', 'Mod-\\'),
  plain('undo', 'Undo', 'Takes back the last change.', 'Mod-z'),
  plain('redo', 'Redo', 'Does again what was taken back.', 'Mod-Shift-z'),
];

/** Every button there is, in the order in which the designer offers them. */
export const BUTTONS: readonly ButtonDeclaration[] = BUTTON_LIST;

export type ButtonId = (typeof BUTTON_LIST)[number]['id'];

export const BUTTON_IDS = BUTTON_LIST.map(({ id }) => id) as [ButtonId, ...ButtonId[]];

const byId = new Map<string, ButtonDeclaration>(BUTTONS.map((button) => [button.id, button]));

/** The declaration of a button; throws for an id that no button has. */
export function buttonOf(id: ButtonId): ButtonDeclaration {
  const button = byId.get(id);
  if (button === undefined) throw new Error(`No button has the id "${id}".`);
  return button;
}
