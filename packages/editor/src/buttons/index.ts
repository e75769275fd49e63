import type { ButtonId } from '@typikon/core/editing';
import { alignCentre, alignJustify, alignLeft, alignRight } from './align';
import { anchor } from './anchor';
import { heading2, heading3, heading4, heading5, heading6, paragraph, preformatted } from './block';
import { blockKind } from './block-kind';
import { blockQuote } from './block-quote';
import type { Button } from './button';
import { clearFormatting } from './clear-formatting';
import { backgroundColour, textColour } from './colour';
import { embed } from './embed';
import { redo, undo } from './history';
import { indent, outdent } from './indent';
import { foldedDetails, hardSpace, lineBreak, rule, softHyphen, summaryBreak } from './insert';
import { keyboardHelp } from './keyboard-help';
import { link, unlink } from './link';
import { bulletedList, definitionList, numberedList } from './list';
import { listNumbers } from './list-numbers';
import { bold, code, highlight, italic, small, strike, subscript, superscript, underline } from './mark';
import { findReplace, fullWindow, outline, pasteText, spelling, structure, wordCount } from './modes';
import { moveDown, moveUp } from './move';
import { abbreviation, date, language } from './phrase';
import { picture } from './picture';
import { source } from './source';
import { specialCharacters } from './special-characters';
import { styles } from './styles';
import { table } from './table';
import { textDirection } from './text-direction';

const ALL: readonly Button[] = [
  blockKind,
  paragraph,
  heading2,
  heading3,
  heading4,
  heading5,
  heading6,
  blockQuote,
  preformatted,
  foldedDetails,
  rule,
  summaryBreak,
  alignLeft,
  alignCentre,
  alignRight,
  alignJustify,
  textDirection,
  moveUp,
  moveDown,
  styles,
  bold,
  italic,
  underline,
  strike,
  subscript,
  superscript,
  small,
  highlight,
  code,
  textColour,
  backgroundColour,
  abbreviation,
  language,
  date,
  clearFormatting,
  bulletedList,
  numberedList,
  listNumbers,
  definitionList,
  indent,
  outdent,
  link,
  unlink,
  anchor,
  picture,
  table,
  embed,
  specialCharacters,
  lineBreak,
  hardSpace,
  softHyphen,
  undo,
  redo,
  pasteText,
  findReplace,
  spelling,
  outline,
  structure,
  source,
  fullWindow,
  wordCount,
  keyboardHelp,
];

/** What each button does, by its id. */
export const EDITOR_BUTTONS: ReadonlyMap<ButtonId, Button> = new Map(ALL.map((button) => [button.id, button]));
