/** Turns offsets into lines and columns. The table of line begins is made at the first question and then kept. */
export class Lines {
  private begins: number[] | null = null;
  constructor(private readonly text: string) {}

  /** The line and the column (both from 1, in UTF-16 units) of an offset; an offset outside the text is taken to its nearest end. */
  at(offset: number): { line: number; column: number } {
    const begins = (this.begins ??= lineBegins(this.text));
    const place = Math.min(Math.max(offset, 0), this.text.length);
    let low = 0;
    let high = begins.length - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (begins[middle]! <= place) low = middle;
      else high = middle - 1;
    }
    return { line: low + 1, column: place - begins[low]! + 1 };
  }
}

function lineBegins(text: string): number[] {
  const begins = [0];
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
  const source = input.slice(tagStart, tagEnd);
  const tagName = /^<[^\s/>]*/.exec(source)?.[0] ?? '';
  const attribute = /[\s/]*([^\s/>][^\s/>=]*)(?:\s*=\s*(?:"[^"]*"?|'[^']*'?|[^\s>"'][^\s>]*|))?/y;
  attribute.lastIndex = tagName.length;
  for (let match = attribute.exec(source); match !== null; match = attribute.exec(source)) {
    const name = match[1]!.toLowerCase().replace(/\0/g, '\ufffd');
    const start = tagStart + match.index + match[0].indexOf(match[1]!);
    if (!ranges.has(name)) ranges.set(name, { start, end: tagStart + attribute.lastIndex });
    if (match[0].length === 0) break;
  }
  return ranges;
}
