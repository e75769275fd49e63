import { parseFragment } from '../html/parse';
import { attributeRanges } from '../html/positions';
import { REPLACED_ELEMENTS } from '../html/elements';
import type { ChildNode, ElementNode, ParentNode, TextNode } from '../html/node';
import { hasLetters } from '../html/text';
import { placeOfText } from '../html/text-place';
import { hostOf } from '../markup/address';
import { looseDeclarations } from './declarations';

/** What kind of thing is counted. */
export type ThingKind = 'element' | 'attribute' | 'class' | 'style' | 'hard-space' | 'empty-paragraph' | 'link';

/** One kind of thing in some markup, and where it stands. */
export interface Thing {
  kind: ThingKind;
  /** The element, attribute, class, style property or host; empty where the kind says it all. */
  name: string;
  /** Of a style property the values it has there, most frequent first; of an attribute likewise. */
  values: string[];
  count: number;
  /** UTF-16 offsets into the markup, of the first thousand. */
  places: { start: number; end: number }[];
}

/** Attributes that have a kind of their own, or without which their element is nothing. */
const TOLD_OTHERWISE: ReadonlySet<string> = new Set(['class', 'style', 'href', 'src', 'alt']);
const MOST_PLACES = 1000;
const MOST_VALUES = 6;

/**
 * Counts what some markup holds beside plain words in paragraphs: elements, attributes, classes, style properties with
 * their values, hard spaces, empty paragraphs, and links by host.
 *
 * @returns one entry for each kind of thing, in the order of the kinds, the most frequent first
 */
export function takeInventory(html: string): Thing[] {
  const { root } = parseFragment(html);
  const things = new Map<string, Thing & { tally: Map<string, number> }>();
  const note = (kind: ThingKind, name: string, place: { start: number; end: number }, value = ''): void => {
    const key = `${kind} ${name}`;
    let thing = things.get(key);
    if (thing === undefined) things.set(key, (thing = { kind, name, values: [], count: 0, places: [], tally: new Map() }));
    thing.count++;
    if (thing.places.length < MOST_PLACES) thing.places.push(place);
    if (value !== '' && (thing.tally.has(value) || thing.tally.size < 200)) thing.tally.set(value, (thing.tally.get(value) ?? 0) + 1);
  };
  const stack: ParentNode[] = [root];
  for (let parent = stack.pop(); parent !== undefined; parent = stack.pop())
    for (let i = parent.children.length - 1; i >= 0; i--) {
      const child = parent.children[i]!;
      if (child.type === 'text') hardSpaces(child, note);
      if (child.type !== 'element') continue;
      noteElement(child, html, note);
      stack.push(child);
    }
  const order: readonly ThingKind[] = ['element', 'class', 'style', 'attribute', 'link', 'hard-space', 'empty-paragraph'];
  return [...things.values()]
    .map(({ tally, ...thing }) => ({
      ...thing,
      places: thing.places.sort((a, b) => a.start - b.start),
      values: [...tally]
        .sort((a, b) => b[1] - a[1])
        .slice(0, MOST_VALUES)
        .map(([value]) => value),
    }))
    .sort((a, b) => order.indexOf(a.kind) - order.indexOf(b.kind) || b.count - a.count || a.name.localeCompare(b.name));
}

type Note = (kind: ThingKind, name: string, place: { start: number; end: number }, value?: string) => void;

function noteElement(element: ElementNode, html: string, note: Note): void {
  const { name, attributes, start, startTagEnd } = element;
  // Elements that the parser added stand in no place.
  if (start < 0) return;
  const tag = { start, end: startTagEnd };
  if (name === 'p') {
    if (!element.children.some(shows)) note('empty-paragraph', '', { start, end: Math.max(startTagEnd, element.end) });
  } else note('element', name, tag);
  if (attributes.length === 0) return;
  const ranges = attributeRanges(html, start, startTagEnd);
  for (const { name: attribute, value } of attributes) {
    const place = ranges.get(attribute) ?? tag;
    if (attribute === 'class') for (const word of value.split(/\s+/)) if (word !== '') note('class', word, place);
    if (attribute === 'style') for (const { property, value: said } of looseDeclarations(value)) note('style', property, place, said);
    if (attribute === 'href') note('link', hostOf(value) ?? '', place, value);
    if (!TOLD_OTHERWISE.has(attribute)) note('attribute', attribute, place, value);
  }
}

function hardSpaces(text: TextNode, note: Note): void {
  if (!text.value.includes('\u00a0')) return;
  for (const { index } of text.value.matchAll(/\u00a0/g))
    note('hard-space', '', placeOfText(text, index, index + 1) ?? { start: 0, end: 0 });
}

/** Whether anything in a node shows: letters, pictures and the like. */
function shows(node: ChildNode): boolean {
  const stack: ChildNode[] = [node];
  for (let next = stack.pop(); next !== undefined; next = stack.pop()) {
    if (next.type === 'text' && hasLetters(next.value)) return true;
    if (next.type !== 'element') continue;
    if (next.name === 'hr' || next.name === 'table' || REPLACED_ELEMENTS.has(next.name)) return true;
    for (const child of next.children) stack.push(child);
  }
  return false;
}
