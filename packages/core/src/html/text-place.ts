import { TextNode, type Stretch } from './node';
import type { Range } from './positions';

/*
 * Where the characters of a text were read. A text mostly stands in the input as it is; where it does not (references,
 * carriage returns, tags between that the parser left out, changes by a stage), its stretches tell.
 */

/**
 * The place in the input of a part of a text.
 *
 * @param from UTF-16 offset into the value
 * @param to behind the part; an empty part stands where the character before it ends
 * @returns null for text that a stage made
 */
export function placeOfText(text: TextNode, from = 0, to = text.value.length): Range | null {
  if (text.start < 0) return null;
  const stretches = stretchesOf(text);
  if (to <= from) {
    const at = endIn(text, stretches, from);
    return { start: at, end: at };
  }
  return spanOf(stretches, text.value.length, from, to);
}

/** A part of a text as a text of its own, which knows where its characters were read. */
export function partOfText(text: TextNode, from: number, to: number): TextNode {
  const part = new TextNode(text.value.slice(from, to));
  if (text.start < 0) return part;
  const kept: Stretch[] = [];
  addPart(kept, stretchesOf(text), text.value.length, from, to, -from);
  placeBy(part, kept);
  return part;
}

/** A part of a text and what takes its place: UTF-16 offsets into the value. */
export interface TextChange {
  start: number;
  end: number;
  text: string;
}

/** Puts other words in the place of a part of a text; they take the place of that part in the input. */
export function replaceText(text: TextNode, start: number, end: number, by: string): void {
  replaceParts(text, [{ start, end, text: by }]);
}

/**
 * Puts other words in the place of parts of a text, in time linear to its length.
 *
 * @param changes in the order of the text, not overlapping
 */
export function replaceParts(text: TextNode, changes: readonly TextChange[]): void {
  const { value } = text;
  const { length } = value;
  const stretches = text.start < 0 ? null : stretchesOf(text);
  const kept: Stretch[] = [];
  let out = '';
  let from = 0;
  const keep = (to: number): void => {
    if (stretches !== null && to > from) addPart(kept, stretches, length, from, to, out.length - from);
    out += value.slice(from, to);
  };
  for (const { start, end, text: by } of changes) {
    keep(start);
    if (stretches !== null && by !== '') kept.push({ at: out.length, ...placeIn(text, stretches, length, start, end) });
    out += by;
    from = end;
  }
  keep(length);
  text.value = out;
  placeBy(text, kept);
}

/** Notes where the stretches of a text were read; one without any stays where it was. */
function placeBy(text: TextNode, kept: Stretch[]): void {
  const [first] = kept;
  if (first === undefined) return;
  text.start = first.start;
  text.end = first.end;
  for (const { start, end } of kept) {
    if (start < text.start) text.start = start;
    if (end > text.end) text.end = end;
  }
  text.stretches = kept.length === 1 && first.end - first.start === text.value.length ? null : kept;
}

function stretchesOf({ stretches, start, end }: TextNode): Stretch[] {
  return stretches ?? [{ at: 0, start, end }];
}

function placeIn(text: TextNode, stretches: readonly Stretch[], length: number, from: number, to: number): Range {
  if (to > from) return spanOf(stretches, length, from, to);
  const at = from === 0 ? text.start : offsetIn(stretches, length, from - 1, 'end');
  return { start: at, end: at };
}

/** From the first to the last place that characters of the value were read at, which the parser may have moved (HTML, section 13.2.6.1 "foster parenting"). */
function spanOf(stretches: readonly Stretch[], length: number, from: number, to: number): Range {
  let start = offsetIn(stretches, length, from, 'start');
  let end = offsetIn(stretches, length, to - 1, 'end');
  for (let i = stretchAt(stretches, from), last = stretchAt(stretches, to - 1); i < last; i++) {
    start = Math.min(start, stretches[i + 1]!.start);
    end = Math.max(end, stretches[i]!.end);
  }
  return { start, end };
}

function endIn(text: TextNode, stretches: readonly Stretch[], offset: number): number {
  return offset === 0 ? stretches[0]!.start : offsetIn(stretches, text.value.length, offset - 1, 'end');
}

/** Where a character of the value begins or ends in the input. */
function offsetIn(stretches: readonly Stretch[], length: number, offset: number, edge: 'start' | 'end'): number {
  const index = stretchAt(stretches, offset);
  const { at, start, end } = stretches[index]!;
  const until = stretches[index + 1]?.at ?? length;
  if (until - at !== end - start) return edge === 'start' ? start : end;
  return start + offset - at + (edge === 'start' ? 0 : 1);
}

function stretchAt(stretches: readonly Stretch[], offset: number): number {
  let low = 0;
  let high = stretches.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (stretches[middle]!.at <= offset) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** Adds the stretches of a part of a value, with offsets that are moved. */
function addPart(kept: Stretch[], stretches: readonly Stretch[], length: number, from: number, to: number, by: number): void {
  for (let i = stretchAt(stretches, from); i < stretches.length && stretches[i]!.at < to; i++) {
    const { at, start, end } = stretches[i]!;
    const until = stretches[i + 1]?.at ?? length;
    const [first, last] = [Math.max(at, from), Math.min(until, to)];
    if (last <= first) continue;
    const isWhole = until - at !== end - start;
    kept.push(isWhole ? { at: first + by, start, end } : { at: first + by, start: start + first - at, end: start + last - at });
  }
}
