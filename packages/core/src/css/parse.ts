import { parse as parseWithin, type CssNode, type ParseOptions } from 'css-tree';

/** Brackets and blocks may stand in each other so deep; nobody writes more, and readers that go down one by one end there. */
export const DEEPEST_CSS = 64;

/**
 * Parses CSS (CSS Syntax Level 3) of any length and nesting. What is nested too deep is read as white space, so that every
 * offset still counts in the text that was given.
 */
export function parseCss(css: string, options: ParseOptions = {}): CssNode {
  return parseWithin(withoutDepths(css).css, options);
}

/** A text without what is nested too deep in it, and where that stood. */
export function withoutDepths(css: string): { css: string; depths: { start: number; end: number }[] } {
  const depths: { start: number; end: number }[] = [];
  let open = 0;
  let start = -1;
  for (let i = 0; i < css.length; i++) {
    const code = css.charCodeAt(i);
    const quiet = endOfQuiet(css, i, code);
    if (quiet !== -1) i = quiet;
    else if (code === PAREN || code === BRACKET || code === BRACE) {
      if (++open > DEEPEST_CSS && start === -1) start = i;
    } else if ((code === CLOSE_PAREN || code === CLOSE_BRACKET || code === CLOSE_BRACE) && open > 0) {
      if (open-- === DEEPEST_CSS + 1 && start !== -1) {
        depths.push({ start, end: i + 1 });
        start = -1;
      }
    }
  }
  if (start !== -1) depths.push({ start, end: css.length });
  if (depths.length === 0) return { css, depths };
  let out = '';
  let at = 0;
  for (const depth of depths) {
    out += css.slice(at, depth.start) + css.slice(depth.start, depth.end).replace(/[^\n]/g, ' ');
    at = depth.end;
  }
  return { css: out + css.slice(at), depths };
}

/** A declaration or a nested rule in the contents of a block, with the white space in front of it. */
export interface Piece {
  start: number;
  end: number;
  /** Where the block of a rule opens; -1 for a declaration. */
  block: number;
}

/** Takes the contents of a block apart; together the pieces are the whole text. */
export function* piecesOf(text: string): Iterable<Piece> {
  let depth = 0;
  let start = 0;
  let block = -1;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    const quiet = endOfQuiet(text, i, code);
    if (quiet !== -1) i = quiet;
    else if (code === PAREN || code === BRACKET || code === BRACE) {
      // A custom property may have any value, blocks too.
      if (code === BRACE && depth === 0 && block === -1 && !beginsCustomProperty(text, start)) block = i;
      depth++;
    } else if (code === CLOSE_PAREN || code === CLOSE_BRACKET || code === CLOSE_BRACE) {
      if (depth > 0) depth--;
      if (code === CLOSE_BRACE && depth === 0 && block !== -1) {
        yield { start, end: i + 1, block };
        [start, block] = [i + 1, -1];
      }
    } else if (code === SEMICOLON && depth === 0) {
      yield { start, end: i + 1, block: -1 };
      [start, block] = [i + 1, -1];
    }
  }
  if (start < text.length) yield { start, end: text.length, block };
}

function beginsCustomProperty(text: string, start: number): boolean {
  const pattern = /\s*--/y;
  pattern.lastIndex = start;
  return pattern.test(text);
}

/** Where what begins here and holds no brackets that count ends: an escape, a string, a comment; -1 where none begins. */
function endOfQuiet(css: string, at: number, code: number): number {
  if (code === BACKSLASH) return at + 1;
  if (code === QUOTATION || code === APOSTROPHE) return endOfString(css, at, code);
  if (code !== SOLIDUS || css.charCodeAt(at + 1) !== ASTERISK) return -1;
  const end = css.indexOf('*/', at + 2);
  return end === -1 ? css.length : end + 1;
}

/** A string that is not closed ends with its line (CSS Syntax Level 3, section 4.3.5). */
function endOfString(css: string, from: number, quote: number): number {
  for (let i = from + 1; i < css.length; i++) {
    const code = css.charCodeAt(i);
    if (code === BACKSLASH) i++;
    else if (code === quote || code === NEWLINE) return i;
  }
  return css.length;
}

const SEMICOLON = 0x3b;
const [NEWLINE, QUOTATION, APOSTROPHE, SOLIDUS, ASTERISK, BACKSLASH] = [0x0a, 0x22, 0x27, 0x2f, 0x2a, 0x5c];
const [PAREN, CLOSE_PAREN, BRACKET, CLOSE_BRACKET, BRACE, CLOSE_BRACE] = [0x28, 0x29, 0x5b, 0x5d, 0x7b, 0x7d];
