import { decodeHTMLStrict } from 'entities';
import type { Stretches } from './node';

export const GREATER_THAN = 0x3e;
export const SOLIDUS = 0x2f;
export const EQUALS = 0x3d;
export const QUOTATION = 0x22;
export const APOSTROPHE = 0x27;
export const EXCLAMATION = 0x21;
export const QUESTION = 0x3f;
export const LINE_FEED = 0x0a;

/** White space as the parser counts it (Infra, "ASCII whitespace"), without the carriage return. */
export const isSpace = (code: number): boolean => code === 0x20 || (code >= 0x09 && code <= 0x0c && code !== 0x0b);
export const isCapital = (code: number): boolean => code >= 0x41 && code <= 0x5a;
export const isLetter = (code: number): boolean => (code >= 0x61 && code <= 0x7a) || isCapital(code);
/** What names of elements and attributes are made of, as far as the quick reader reads them. */
export const isNamePart = (code: number): boolean =>
  isLetter(code) || (code >= 0x30 && code <= 0x3a) || code === 0x2d || code === 0x2e || code === 0x5f;

/** A name between two offsets, in lower case. */
export function nameAt(input: string, from: number, to: number): string {
  for (let at = from; at < to; at++) if (isCapital(input.charCodeAt(at))) return input.slice(from, to).toLowerCase();
  return input.slice(from, to);
}

/** Names of attributes, so that each is held once. */
const attributeNames = new Map<string, string>();
const MOST_NAMES = 500;

export function attributeName(name: string): string {
  const known = attributeNames.get(name);
  if (known !== undefined) return known;
  if (attributeNames.size < MOST_NAMES) attributeNames.set(name, name);
  return name;
}

const REFERENCE = /&(?:([a-zA-Z][a-zA-Z0-9]{1,30})|#(?:x([0-9a-f]{1,6})|(\d{1,7})));/iy;

/** What named references stand for that were met. */
const named = new Map<string, string | null>([['amp', '&']]);

/** The characters of a named reference; null where there is none of the name. */
function namedReference(name: string): string | null {
  const known = named.get(name);
  if (known !== undefined) return known;
  const written = `&${name};`;
  const read = decodeHTMLStrict(written);
  const characters = read === written || read.includes(';') ? null : read;
  if (named.size < MOST_NAMES) named.set(name, characters);
  return characters;
}

/** The characters that a reference stands for, and where it ends; null for one that is read otherwise than it looks. */
function referenceAt(input: string, at: number): { character: string; end: number } | null {
  REFERENCE.lastIndex = at;
  const match = REFERENCE.exec(input);
  if (match === null) return null;
  const [, name, hexadecimal, decimal] = match;
  const end = REFERENCE.lastIndex;
  if (name !== undefined) {
    const character = namedReference(name);
    return character === null ? null : { character, end };
  }
  const code = hexadecimal === undefined ? Number(decimal) : Number.parseInt(hexadecimal, 16);
  // Others are read as other characters, or as none (HTML, section 13.2.5.80 "Numeric character reference end state").
  const isPlain =
    (code >= 0x20 && code < 0x7f) ||
    (code >= 0xa0 && code < 0xd800) ||
    (code > 0xdfff && code <= 0xfffd) ||
    (code >= 0x1_0000 && code <= 0x10_fffd);
  return isPlain ? { character: String.fromCodePoint(code), end } : null;
}

/** What stands between two offsets with its references read; null where one of them is not known here. */
export function decoded(input: string, from: number, to: number, firstAmpersand: number, stretches: Stretches | null): string | null {
  let value = '';
  let at = from;
  for (let ampersand = firstAmpersand; ampersand !== -1 && ampersand < to; ampersand = input.indexOf('&', at)) {
    const reference = referenceAt(input, ampersand);
    if (reference === null || reference.end > to) return null;
    if (ampersand > at) {
      stretches?.push(value.length, at, ampersand);
      value += input.slice(at, ampersand);
    }
    stretches?.push(value.length, ampersand, reference.end);
    value += reference.character;
    at = reference.end;
  }
  if (to > at) {
    stretches?.push(value.length, at, to);
    value += input.slice(at, to);
  }
  return value;
}

/** Whether nothing but white space stands between two offsets. */
export function isBlank(input: string, from: number, to: number): boolean {
  for (let at = from; at < to; at++) if (!isSpace(input.charCodeAt(at))) return false;
  return true;
}
