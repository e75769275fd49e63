import { isBlankCode } from './blank';

/** Turns offsets into lines and columns. The table of line begins is made at the first question and then kept. */
export class Lines {
  private begins: number[] | null = null;
  /** The line that was asked for last: questions mostly come in the order of the text. */
  private last = 0;
  constructor(private readonly text: string) {}

  /** The line and the column (both from 1, in UTF-16 units) of an offset; an offset outside the text is taken to its nearest end. */
  at(offset: number): { line: number; column: number } {
    const begins = (this.begins ??= lineBegins(this.text));
    const place = Math.min(Math.max(offset, 0), this.text.length);
    const { last } = this;
    if (begins[last]! <= place && (last + 1 === begins.length || begins[last + 1]! > place))
      return { line: last + 1, column: place - begins[last]! + 1 };
    let low = 0;
    let high = begins.length - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (begins[middle]! <= place) low = middle;
      else high = middle - 1;
    }
    this.last = low;
    return { line: low + 1, column: place - begins[low]! + 1 };
  }
}

function lineBegins(text: string): number[] {
  const begins = [0];
  if (!text.includes('\r')) {
    for (let at = text.indexOf('\n'); at !== -1; at = text.indexOf('\n', at + 1)) begins.push(at + 1);
    return begins;
  }
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (code === 0x0a || (code === 0x0d && text.charCodeAt(i + 1) !== 0x0a)) begins.push(i + 1);
  }
  return begins;
}

export interface Range {
  /** UTF-16 offsets into the input. */
  start: number;
  end: number;
}

/**
 * The place of an attribute in a start tag, found anew in the tag's source (HTML, section 13.2.5, the attribute states of the
 * tokenizer). Done only for what there is to report, which is far cheaper than keeping the place of every attribute of every tag.
 * Of a name given twice the first counts, as for the parser.
 *
 * @param name as the parser reads it
 * @returns undefined where the tag has none of the name
 */
export function attributeRange(input: string, tagStart: number, tagEnd: number, name: string): Range | undefined {
  for (let at = firstAttribute(input, tagStart, tagEnd); readAttribute(input, at, tagEnd); at = found.end)
    if (isName(input, found.start, found.nameEnd, name)) return { start: found.start, end: found.end };
  return undefined;
}

/** The places of all attributes of a start tag; of a name given twice the first counts. */
export function attributeRanges(input: string, tagStart: number, tagEnd: number): Map<string, Range> {
  const ranges = new Map<string, Range>();
  for (let at = firstAttribute(input, tagStart, tagEnd); readAttribute(input, at, tagEnd); at = found.end) {
    const { start, nameEnd, end } = found;
    const name = nameAt(input, start, nameEnd);
    if (!ranges.has(name)) ranges.set(name, { start, end });
  }
  return ranges;
}

/** A name between two offsets as the parser reads it. */
function nameAt(input: string, from: number, to: number): string {
  return input.slice(from, to).toLowerCase().replace(/\0/g, '\ufffd');
}

/** The places of attributes in the tags of a text, for those who ask of one tag again and again: in time linear to its length. */
export class Tags {
  private start = -1;
  private asked = 0;
  private all: ReadonlyMap<string, Range> | null = null;

  constructor(private readonly input: string) {}

  /** The same as `attributeRange`. */
  attribute(tagStart: number, tagEnd: number, name: string): Range | undefined {
    if (this.start !== tagStart) {
      this.start = tagStart;
      this.asked = 0;
      this.all = null;
    }
    if (++this.asked <= ONE_BY_ONE) return attributeRange(this.input, tagStart, tagEnd, name);
    return (this.all ??= attributeRanges(this.input, tagStart, tagEnd)).get(name);
  }
}

/** As many attributes of a tag are looked for one by one. */
const ONE_BY_ONE = 6;

/** The places of the attributes of a start tag whose name stood in it before. */
export function repeatedAttributes(input: string, tagStart: number, tagEnd: number): (Range & { name: string })[] {
  const names = new Set<string>();
  const repeated: (Range & { name: string })[] = [];
  for (let at = firstAttribute(input, tagStart, tagEnd); readAttribute(input, at, tagEnd); at = found.end) {
    const { start, nameEnd, end } = found;
    const name = nameAt(input, start, nameEnd);
    if (names.has(name)) repeated.push({ start, end, name });
    names.add(name);
  }
  return repeated;
}

/** Behind the name of a tag. */
function firstAttribute(input: string, tagStart: number, tagEnd: number): number {
  let at = tagStart + 1;
  while (at < tagEnd && !endsName(input.charCodeAt(at))) at++;
  return at;
}

/** The attribute that was read last: one for all, since a tag is read thousands of times. */
const found = { start: 0, nameEnd: 0, end: 0 };

/** Reads the attribute that comes next; false where there is none. */
function readAttribute(input: string, from: number, tagEnd: number): boolean {
  let at = from;
  while (at < tagEnd && (isBlankCode(input.charCodeAt(at)) || input.charCodeAt(at) === SOLIDUS)) at++;
  if (at >= tagEnd || input.charCodeAt(at) === GREATER_THAN) return false;
  found.start = at++;
  while (at < tagEnd && !endsName(input.charCodeAt(at)) && input.charCodeAt(at) !== EQUALS) at++;
  found.nameEnd = found.end = at;
  while (at < tagEnd && isBlankCode(input.charCodeAt(at))) at++;
  if (input.charCodeAt(at) !== EQUALS || at >= tagEnd) return true;
  at++;
  while (at < tagEnd && isBlankCode(input.charCodeAt(at))) at++;
  const quote = input.charCodeAt(at);
  if (quote === QUOTATION || quote === APOSTROPHE) {
    const close = input.indexOf(quote === QUOTATION ? '"' : "'", at + 1);
    at = close === -1 || close >= tagEnd ? tagEnd : close + 1;
  } else while (at < tagEnd && !isBlankCode(input.charCodeAt(at)) && input.charCodeAt(at) !== GREATER_THAN) at++;
  found.end = at;
  return true;
}

/** Whether a name stands between two offsets, in capitals or not; the parser reads a null character as a mark. */
function isName(input: string, from: number, to: number, name: string): boolean {
  if (to - from !== name.length) return false;
  for (let i = 0; i < name.length; i++) {
    const code = input.charCodeAt(from + i);
    const read = code >= 0x41 && code <= 0x5a ? code + 0x20 : code === 0 ? 0xfffd : code;
    if (read !== name.charCodeAt(i)) return false;
  }
  return true;
}

const SOLIDUS = 0x2f;
const EQUALS = 0x3d;
const GREATER_THAN = 0x3e;
const QUOTATION = 0x22;
const APOSTROPHE = 0x27;

function endsName(code: number): boolean {
  return isBlankCode(code) || code === SOLIDUS || code === GREATER_THAN;
}
