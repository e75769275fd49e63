import type { Stretch } from './node';

export const GREATER_THAN = 0x3e;
export const SOLIDUS = 0x2f;
export const EQUALS = 0x3d;
export const QUOTATION = 0x22;
export const EXCLAMATION = 0x21;
const HYPHEN = 0x2d;
export const LINE_FEED = 0x0a;

/** White space as the parser counts it (Infra, "ASCII whitespace"), without the carriage return. */
export const isSpace = (code: number): boolean => code === 0x20 || (code >= 0x09 && code <= 0x0c && code !== 0x0b);
export const isLetter = (code: number): boolean => code >= 0x61 && code <= 0x7a;
export const isNamePart = (code: number): boolean => isLetter(code) || (code >= 0x30 && code <= 0x39) || code === HYPHEN;
export const isAttributePart = (code: number): boolean => isNamePart(code) || code === 0x3a || code === 0x5f || code === 0x2e;

/** Names of attributes, so that each is held once. */
const attributeNames = new Map<string, string>();
const MOST_NAMES = 500;

export function attributeName(name: string): string {
  const known = attributeNames.get(name);
  if (known !== undefined) return known;
  if (attributeNames.size < MOST_NAMES) attributeNames.set(name, name);
  return name;
}

const REFERENCE = /&(?:(amp|lt|gt|quot|nbsp)|#(\d{2,7}));/y;
const NAMED: Readonly<Record<string, string>> = { amp: '&', lt: '<', gt: '>', quot: '"', nbsp: '\u00a0' };

/** The character that a reference stands for, and where it ends; null for one that is read otherwise than it looks, or is not known here. */
function referenceAt(input: string, at: number): { character: string; end: number } | null {
  REFERENCE.lastIndex = at;
  const match = REFERENCE.exec(input);
  if (match === null) return null;
  const [, name, number] = match;
  const end = REFERENCE.lastIndex;
  if (name !== undefined) return { character: NAMED[name]!, end };
  const code = Number(number);
  // Others are read as other characters, or as none (HTML, section 13.2.5.80 "Numeric character reference end state").
  const isPlain =
    (code >= 0x20 && code < 0x7f) ||
    (code >= 0xa0 && code < 0xd800) ||
    (code > 0xdfff && code <= 0xfffd) ||
    (code >= 0x1_0000 && code <= 0x10_fffd);
  return isPlain ? { character: String.fromCodePoint(code), end } : null;
}

/** What stands between two offsets with its references read; null where one of them is not known here. */
export function decoded(input: string, from: number, to: number, firstAmpersand: number, stretches: Stretch[] | null): string | null {
  let value = '';
  let at = from;
  for (let ampersand = firstAmpersand; ampersand !== -1 && ampersand < to; ampersand = input.indexOf('&', at)) {
    const reference = referenceAt(input, ampersand);
    if (reference === null || reference.end > to) return null;
    if (ampersand > at) {
      stretches?.push({ at: value.length, start: at, end: ampersand });
      value += input.slice(at, ampersand);
    }
    stretches?.push({ at: value.length, start: ampersand, end: reference.end });
    value += reference.character;
    at = reference.end;
  }
  if (to > at) {
    stretches?.push({ at: value.length, start: at, end: to });
    value += input.slice(at, to);
  }
  return value;
}

/** Whether nothing but white space stands between two offsets. */
export function isBlank(input: string, from: number, to: number): boolean {
  for (let at = from; at < to; at++) if (!isSpace(input.charCodeAt(at))) return false;
  return true;
}
