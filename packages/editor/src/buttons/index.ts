import type { ButtonId } from '@typikon/core';
import { blockQuote } from './block-quote';
import type { Button } from './button';
import { clearFormatting } from './clear-formatting';
import { heading2, heading3, heading4 } from './heading';
import { redo, undo } from './history';
import { link, unlink } from './link';
import { bulletedList, numberedList } from './list';
import { bold, italic, underline } from './mark';
import { paragraph } from './paragraph';

const ALL = [
  paragraph,
  heading2,
  heading3,
  heading4,
  bold,
  italic,
  underline,
  bulletedList,
  numberedList,
  blockQuote,
  link,
  unlink,
  clearFormatting,
  undo,
  redo,
];

/** What each button does, by its id. */
export const EDITOR_BUTTONS: ReadonlyMap<ButtonId, Button> = new Map(ALL.map((button) => [button.id, button]));
