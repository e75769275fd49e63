import { withAsciiDigits } from './scripts';

/** What a list marker says: a bullet, or a number of some kind. */
export interface Marker {
  ordered: boolean;
  /** The `type` of the list (HTML, section 4.4.5): `1`, `a`, `A`, `i`, `I`; empty for bullets. */
  type: '' | '1' | 'a' | 'A' | 'i' | 'I';
  /** The number it stands for; 0 for bullets. */
  value: number;
  /** Whether the number was not written but counted on. */
  isGuessed?: boolean;
}

/** Signs that nobody types for another purpose; a line that begins with one needs no space behind it. */
const SIGNS =
  '\\u2022\\u2023\\u25aa\\u25ab\\u25cf\\u25cb\\u25e6\\u25a0\\u25a1\\u2043\\u2219\\u00b7\\u2756\\u27a2\\u2713\\u2714\\uf0a7\\uf0b7\\uf0d8\\uf0fc\\uf076';
const BULLET = new RegExp(`^[${SIGNS}\\u2013\\u2014\\u2192o§*+-]$`, 'u');
const NUMBERED = /^\(?(?:(\d{1,4}(?:\.\d{1,3})*)|([a-z]{1,2})|([A-Z]{1,2})|([ivxlcdm]{1,9})|([IVXLCDM]{1,9}))(?:[.)\]:]|\.\))?$/u;
const ROMAN: Readonly<Record<string, number>> = { i: 1, v: 5, x: 10, l: 50, c: 100, d: 500, m: 1000 };

/**
 * Reads a marker as it stands before a list item; null where it is none.
 *
 * @param isRoman settles what `i` and the like mean; null where nothing is known
 * @param before the marker of the item before: where nothing is known, what counts on from it is right
 */
export function readMarker(text: string, isRoman: boolean | null = null, before: Marker | null = null): Marker | null {
  const trimmed = withAsciiDigits(text)
    .replace(/[\s\u00a0]+/g, '')
    .replace(/\uff08/g, '(')
    .replace(/[\uff0e\u3001]$/, '.')
    .replace(/\uff09$/, ')')
    .replace(/^\u30fb$/, '\u2022');
  if (trimmed === '' || trimmed.length > 20) return null;
  if (BULLET.test(trimmed)) return { ordered: false, type: '', value: 0 };
  const match = NUMBERED.exec(trimmed);
  if (match === null) return null;
  const word = trimmed.replace(/[().\]:]/g, '');
  if (match[1] !== undefined) return { ordered: true, type: '1', value: Number(match[1].split('.').at(-1)) };
  if (!/[.)\]:]$/.test(trimmed)) return null;
  const lower = word.toLowerCase();
  const isUpper = word !== lower;
  const roman = fromRoman(lower);
  const letter = word.length === 1 ? lower.charCodeAt(0) - 96 : /^(.)\1$/.test(lower) ? lower.charCodeAt(0) - 70 : null;
  const asRoman: Marker | null = roman === null ? null : { ordered: true, type: isUpper ? 'I' : 'i', value: roman };
  const asLetter: Marker | null = letter === null ? null : { ordered: true, type: isUpper ? 'A' : 'a', value: letter };
  if (asRoman === null || asLetter === null) return asRoman ?? asLetter;
  if (isRoman !== null) return isRoman ? asRoman : asLetter;
  if (before?.ordered === true) {
    if (before.value + 1 === asLetter.value && /a/i.test(before.type)) return asLetter;
    if (before.value + 1 === asRoman.value && /i/i.test(before.type)) return asRoman;
  }
  return word.length > 1 || lower === 'i' ? asRoman : asLetter;
}

/** The number that Roman digits write; null for what is none. */
export function fromRoman(text: string): number | null {
  if (!/^m{0,3}(cm|cd|d?c{0,3})(xc|xl|l?x{0,3})(ix|iv|v?i{0,3})$/.test(text) || text === '') return null;
  let sum = 0;
  for (let i = 0; i < text.length; i++) {
    const value = ROMAN[text[i]!]!;
    sum += value < (ROMAN[text[i + 1] ?? ''] ?? 0) ? -value : value;
  }
  return sum;
}

const TYPED = new RegExp(
  '^[\\s\\u00a0]{0,80}(?:' +
    `([${SIGNS}])[\\s\\u00a0]*` +
    '|([\\u2013\\u2014\\u2192*+-])[\\s\\u00a0]+' +
    '|([o§])[\\t\\u00a0][\\s\\u00a0]*' +
    '|(\\(?(?:\\d{1,3}|[a-zA-Z]|[ivx]{1,5}|[IVX]{1,5})[.)]\\)?)[\\s\\u00a0]+' +
    '|(\\d{1,3}(?:\\.\\d{1,3}){1,4})\\.?[\\s\\u00a0]+' +
    ')(?=\\S|$)',
  'u',
);

/** Bullets and numbers as East Asian texts have them, with no space behind: `・`, `1．`, `（1）`, `1、`. */
const EAST_ASIAN = /^[\s\u00a0\u3000]{0,80}(?:(\u30fb)|([\uff08(]?\d{1,3}[\uff0e\u3001\uff09]))[\s\u00a0\u3000]*(?=\S)/u;

/** The marker that is typed at the begin of a line, and how long it is with the space around it. */
export function typedMarker(written: string, before: Marker | null = null): { marker: Marker; length: number; prefix: string } | null {
  const text = withAsciiDigits(written);
  const match = TYPED.exec(text) ?? EAST_ASIAN.exec(text);
  if (match === null) return null;
  const [whole, ...groups] = match;
  const word = groups.find((part) => part !== undefined)!;
  const marker = readMarker(word, null, before);
  const dot = groups[4]?.lastIndexOf('.') ?? -1;
  return marker === null ? null : { marker, length: whole.length, prefix: dot === -1 ? '' : word.slice(0, dot) };
}
