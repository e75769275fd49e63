import { TextNode, type Stretches } from './node';
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
  if (text.stretches === null && text.end - text.start === text.value.length) {
    // It stands in the input as it is, and so does each part of it.
    if (to > from) {
      part.start = text.start + from;
      part.end = text.start + to;
    }
    return part;
  }
  const kept: Stretches = [];
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
  const { length } = text.value;
  if (by === '' && text.stretches === null && text.start >= 0 && text.end - text.start === length && (start === 0) !== (end === length)) {
    // What is left of a text that stands in the input as it is stands there as it is.
    if (start === 0) {
      text.value = text.value.slice(end);
      text.start += end;
    } else {
      text.value = text.value.slice(0, start);
      text.end = text.start + start;
    }
    return;
  }
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
  const kept: Stretches = [];
  let out = '';
  let from = 0;
  const keep = (to: number): void => {
    if (stretches !== null && to > from) addPart(kept, stretches, length, from, to, out.length - from);
    out += value.slice(from, to);
  };
  for (const { start, end, text: by } of changes) {
    keep(start);
    if (stretches !== null && by !== '') {
      const place = placeIn(text, stretches, length, start, end);
      kept.push(out.length, place.start, place.end);
    }
    out += by;
    from = end;
  }
  keep(length);
  text.value = out;
  placeBy(text, kept);
}

/** Notes where the stretches of a text were read; one without any stays where it was. */
function placeBy(text: TextNode, kept: Stretches): void {
  if (kept.length === 0) return;
  let start = kept[1]!;
  let end = kept[2]!;
  const isOne = kept.length === 3 && end - start === text.value.length;
  for (let i = 3; i < kept.length; i += 3) {
    if (kept[i + 1]! < start) start = kept[i + 1]!;
    if (kept[i + 2]! > end) end = kept[i + 2]!;
  }
  text.start = start;
  text.end = end;
  text.stretches = isOne ? null : kept;
}

function stretchesOf({ stretches, start, end }: TextNode): Stretches {
  return stretches ?? [0, start, end];
}

function placeIn(text: TextNode, stretches: Readonly<Stretches>, length: number, from: number, to: number): Range {
  if (to > from) return spanOf(stretches, length, from, to);
  const at = from === 0 ? text.start : offsetIn(stretches, length, from - 1, 'end');
  return { start: at, end: at };
}

/** From the first to the last place that characters of the value were read at, which the parser may have moved (HTML, section 13.2.6.1 "foster parenting"). */
function spanOf(stretches: Readonly<Stretches>, length: number, from: number, to: number): Range {
  let start = offsetIn(stretches, length, from, 'start');
  let end = offsetIn(stretches, length, to - 1, 'end');
  for (let i = stretchAt(stretches, from), last = stretchAt(stretches, to - 1); i < last; i += 3) {
    start = Math.min(start, stretches[i + 4]!);
    end = Math.max(end, stretches[i + 2]!);
  }
  return { start, end };
}

function endIn(text: TextNode, stretches: Readonly<Stretches>, offset: number): number {
  return offset === 0 ? stretches[1]! : offsetIn(stretches, text.value.length, offset - 1, 'end');
}

/** Where a character of the value begins or ends in the input. */
function offsetIn(stretches: Readonly<Stretches>, length: number, offset: number, edge: 'start' | 'end'): number {
  const index = stretchAt(stretches, offset);
  const [at, start, end] = [stretches[index]!, stretches[index + 1]!, stretches[index + 2]!];
  const until = index + 3 < stretches.length ? stretches[index + 3]! : length;
  if (until - at !== end - start) return edge === 'start' ? start : end;
  return start + offset - at + (edge === 'start' ? 0 : 1);
}

/** Where the numbers of the stretch begin in which an offset into the value lies. */
function stretchAt(stretches: Readonly<Stretches>, offset: number): number {
  let low = 0;
  let high = stretches.length / 3 - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (stretches[middle * 3]! <= offset) low = middle;
    else high = middle - 1;
  }
  return low * 3;
}

/** Adds the stretches of a part of a value, with offsets that are moved. */
function addPart(kept: Stretches, stretches: Readonly<Stretches>, length: number, from: number, to: number, by: number): void {
  for (let i = stretchAt(stretches, from); i < stretches.length && stretches[i]! < to; i += 3) {
    const at = stretches[i]!;
    const start = stretches[i + 1]!;
    const end = stretches[i + 2]!;
    const until = i + 3 < stretches.length ? stretches[i + 3]! : length;
    const first = at > from ? at : from;
    const last = until < to ? until : to;
    if (last <= first) continue;
    if (until - at !== end - start) kept.push(first + by, start, end);
    else kept.push(first + by, start + first - at, start + last - at);
  }
}
