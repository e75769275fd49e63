import {
  APOSTROPHE,
  attributeName,
  decoded,
  EQUALS,
  GREATER_THAN,
  isLetter,
  isNamePart,
  isSpace,
  nameAt,
  QUESTION,
  QUOTATION,
  SOLIDUS,
} from './characters';
import { Is } from './known-elements';
import type { Attribute } from './node';

const NOT_ASKED = -2;

/** Goes through markup once, from its begin to its end, and reads what stands in tags. */
export class Scanner {
  /** The place that is read. */
  protected at = 0;
  /** The next ampersand at or behind the place that was asked for last; -1 for none. */
  private ampersand = NOT_ASKED;
  private asked = 0;

  constructor(protected readonly input: string) {}

  /** Goes on from a place, which mostly lies behind what was read. */
  protected goTo(place: number): void {
    this.at = place;
    if (place < this.asked) this.ampersand = NOT_ASKED;
  }

  /** Where the first ampersand stands at or behind a place; -1 for nowhere. What was found is kept, so that no stretch is searched twice. */
  protected ampersandFrom(place: number): number {
    this.asked = place;
    if (this.ampersand !== -1 && this.ampersand < place) this.ampersand = this.input.indexOf('&', place);
    return this.ampersand;
  }

  /** What stands in a comment, and where it ends; null for one that ends otherwise than it looks. */
  protected commentAt(open: number): { data: string; end: number } | null {
    const { input } = this;
    if (!input.startsWith('<!--', open)) return this.bogusCommentAt(open);
    const close = input.indexOf('-->', open + 4);
    if (close === -1) return null;
    const data = input.slice(open + 4, close);
    // What begins so, or has this in it (HTML, sections 13.2.5.43 to 13.2.5.52).
    const isOdd = data.startsWith('>') || data.startsWith('-') || data.includes('--!') || data.includes('<!-');
    return isOdd ? null : { data, end: close + 3 };
  }

  /** What office programs write for themselves: `<![if !supportLists]>`, `<?xml:namespace …>` (HTML, section 13.2.5.41). */
  private bogusCommentAt(open: number): { data: string; end: number } | null {
    const { input } = this;
    const isInstruction = input.charCodeAt(open + 1) === QUESTION;
    if (!isInstruction && (!input.startsWith('<![', open) || input.startsWith('<![CDATA[', open))) return null;
    const close = input.indexOf('>', open + 2);
    return close === -1 ? null : { data: input.slice(open + (isInstruction ? 1 : 2), close), end: close + 1 };
  }

  /** Reads attributes up to the end of the tag; null where something stands there that is read otherwise than it looks. */
  protected attributes(from: number, is: Is): Attribute[] | null {
    const { input } = this;
    const attributes: Attribute[] = [];
    let at = from;
    for (;;) {
      const before = at;
      while (isSpace(input.charCodeAt(at))) at++;
      const code = input.charCodeAt(at);
      if (code === GREATER_THAN) {
        this.at = at + 1;
        return attributes;
      }
      if (code === SOLIDUS && (is === Is.Void || is === Is.VoidBlock || is === Is.Column) && input.charCodeAt(at + 1) === GREATER_THAN) {
        this.at = at + 2;
        return attributes;
      }
      if (at === before || !isLetter(code)) return null;
      const begin = at;
      while (isNamePart(input.charCodeAt(at))) at++;
      const name = attributeName(nameAt(input, begin, at));
      let value = '';
      if (input.charCodeAt(at) === EQUALS) {
        const quote = input.charCodeAt(at + 1);
        const isQuoted = quote === QUOTATION || quote === APOSTROPHE;
        const valueAt = isQuoted ? at + 2 : at + 1;
        const end = isQuoted ? input.indexOf(quote === QUOTATION ? '"' : "'", valueAt) : endOfUnquoted(input, valueAt);
        if (end === -1) return null;
        const ampersand = this.ampersandFrom(valueAt);
        const read = ampersand === -1 || ampersand >= end ? input.slice(valueAt, end) : decoded(input, valueAt, end, ampersand, null);
        if (read === null) return null;
        value = read;
        at = isQuoted ? end + 1 : end;
      }
      for (const attribute of attributes) if (attribute.name === name) return null;
      attributes.push({ name, value });
    }
  }
}

/** Where a value without quotation marks ends; -1 where there is none (HTML, section 13.2.5.38). */
function endOfUnquoted(input: string, from: number): number {
  let at = from;
  while (at < input.length && !isSpace(input.charCodeAt(at)) && input.charCodeAt(at) !== GREATER_THAN) at++;
  return at === from || at === input.length ? -1 : at;
}

/** Where the end tag of an element begins whose text is read to the letter; -1 where there is none. */
export function endOfRawText(input: string, from: number, name: string): number {
  for (let at = input.indexOf('</', from); at !== -1; at = input.indexOf('</', at + 2)) {
    const end = at + 2 + name.length;
    const code = input.charCodeAt(end);
    if ((isSpace(code) || code === GREATER_THAN || code === SOLIDUS) && input.slice(at + 2, end).toLowerCase() === name) return at;
  }
  return -1;
}
