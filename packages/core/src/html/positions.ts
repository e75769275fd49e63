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
 * The place of every attribute in a start tag, read anew from the tag's source (HTML, section 13.2.5, the attribute
 * states of the tokenizer). Done only for tags that have something to report, which is far cheaper than keeping the
 * place of every attribute of every tag. Of a name given twice the first counts, as for the parser.
 */
export function attributeRanges(input: string, tagStart: number, tagEnd: number): Map<string, Range> {
  const ranges = new Map<string, Range>();
  readAttributes(input, tagStart, tagEnd, (name, range) => {
    if (!ranges.has(name)) ranges.set(name, range);
  });
  return ranges;
}

/** The places of the attributes of a start tag whose name stood in it before. */
export function repeatedAttributes(input: string, tagStart: number, tagEnd: number): (Range & { name: string })[] {
  const names = new Set<string>();
  const repeated: (Range & { name: string })[] = [];
  readAttributes(input, tagStart, tagEnd, (name, range) => {
    if (names.has(name)) repeated.push({ ...range, name });
    names.add(name);
  });
  return repeated;
}

function readAttributes(input: string, tagStart: number, tagEnd: number, onAttribute: (name: string, range: Range) => void): void {
  let at = tagStart + 1;
  while (at < tagEnd && !endsName(input.charCodeAt(at))) at++;
  for (;;) {
    while (at < tagEnd && (isBlank(input.charCodeAt(at)) || input.charCodeAt(at) === SOLIDUS)) at++;
    if (at >= tagEnd || input.charCodeAt(at) === GREATER_THAN) return;
    const start = at++;
    while (at < tagEnd && !endsName(input.charCodeAt(at)) && input.charCodeAt(at) !== EQUALS) at++;
    const name = input.slice(start, at).toLowerCase().replace(/\0/g, '\ufffd');
    let end = at;
    while (at < tagEnd && isBlank(input.charCodeAt(at))) at++;
    if (input.charCodeAt(at) === EQUALS && at < tagEnd) {
      at++;
      while (at < tagEnd && isBlank(input.charCodeAt(at))) at++;
      const quote = input.charCodeAt(at);
      if (quote === QUOTATION || quote === APOSTROPHE) {
        const close = input.indexOf(input[at]!, at + 1);
        at = close === -1 || close >= tagEnd ? tagEnd : close + 1;
      } else while (at < tagEnd && !isBlank(input.charCodeAt(at)) && input.charCodeAt(at) !== GREATER_THAN) at++;
      end = at;
    }
    onAttribute(name, { start, end });
  }
}

const SOLIDUS = 0x2f;
const EQUALS = 0x3d;
const GREATER_THAN = 0x3e;
const QUOTATION = 0x22;
const APOSTROPHE = 0x27;

function isBlank(code: number): boolean {
  return code === 0x20 || code === 0x0a || code === 0x09 || code === 0x0c || code === 0x0d;
}

function endsName(code: number): boolean {
  return isBlank(code) || code === SOLIDUS || code === GREATER_THAN;
}
