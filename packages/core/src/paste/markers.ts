/** What a list marker says: a bullet, or a number of some kind. */
export interface Marker {
  ordered: boolean;
  /** The `type` of the list (HTML, section 4.4.5): `1`, `a`, `A`, `i`, `I`; empty for bullets. */
  type: '' | '1' | 'a' | 'A' | 'i' | 'I';
  /** The number it stands for; 0 for bullets. */
  value: number;
}

const BULLET =
  /^[\u2022\u2023\u25aa\u25ab\u25cf\u25cb\u25e6\u25a0\u25a1\u2043\u2219\u00b7\u2013\u2014\u2756\u27a2\u2192\u2713\u2714\uf0a7\uf0b7\uf0d8\uf0fc\uf076o§*+-]$/u;
const NUMBERED = /^\(?(?:(\d{1,4}(?:\.\d{1,3})*)|([a-z]{1,2})|([A-Z]{1,2})|([ivxlcdm]+)|([IVXLCDM]+))(?:[.)\]:]|\.\))?$/u;
const ROMAN: Readonly<Record<string, number>> = { i: 1, v: 5, x: 10, l: 50, c: 100, d: 500, m: 1000 };

/** Reads a marker as it stands before a list item; null where it is none. `isRoman` settles what `i` and the like mean. */
export function readMarker(text: string, isRoman: boolean | null = null): Marker | null {
  const trimmed = text.replace(/[\s\u00a0]+/g, '');
  if (trimmed === '') return null;
  if (BULLET.test(trimmed)) return { ordered: false, type: '', value: 0 };
  const match = NUMBERED.exec(trimmed);
  if (match === null) return null;
  const word = trimmed.replace(/[().\]:]/g, '');
  if (match[1] !== undefined) return { ordered: true, type: '1', value: Number(match[1].split('.').at(-1)) };
  if (!/[.)\]:]$/.test(trimmed)) return null;
  const roman = fromRoman(word.toLowerCase());
  const isUpper = word === word.toUpperCase();
  if (roman !== null && (isRoman ?? (word.length > 1 || word.toLowerCase() === 'i')))
    return { ordered: true, type: isUpper ? 'I' : 'i', value: roman };
  if (word.length > 1) return null;
  return { ordered: true, type: isUpper ? 'A' : 'a', value: word.toLowerCase().charCodeAt(0) - 96 };
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

const TYPED = /^[\s\u00a0]*(?:([\u2022\u00b7\u25aa\u25cf\u25e6\u2013*+-])|(\(?(?:\d{1,3}|[a-zA-Z]|[ivxIVX]{1,4})[.)]))[\s\u00a0]+(?=\S|$)/u;

/** The marker that is typed at the begin of a line, and how long it is with the space behind it. */
export function typedMarker(text: string, before: Marker | null = null): { marker: Marker; length: number } | null {
  const match = TYPED.exec(text);
  if (match === null) return null;
  // What may be a letter or a Roman digit is read as what goes on from the one before.
  const isRoman = before === null || before.type === '' || before.type === '1' ? null : /i/i.test(before.type);
  const marker = readMarker(match[1] ?? match[2]!, isRoman);
  return marker === null ? null : { marker, length: match[0].length };
}
