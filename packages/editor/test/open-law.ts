import { parseFragment, type ChildNode } from '@typikon/core';
import { history } from 'prosemirror-history';
import type { Node, Schema } from 'prosemirror-model';
import { EditorState } from 'prosemirror-state';
import { lines, singleSpaces } from '../src/plugins/lines';
import { OPAQUE_BLOCK, OPAQUE_INLINE } from '../src/schema/compile';
import { readDocument } from '../src/schema/read';
import { writeDocument } from '../src/schema/write';

/** Every letter of markup, whether a reader sees it or not. */
export const lettersOf = (html: string): string => {
  let text = '';
  const stack: ChildNode[] = parseFragment(html).root.children.slice().reverse();
  for (let node = stack.pop(); node !== undefined; node = stack.pop()) {
    if (node.type === 'text') text += node.value;
    if (node.type === 'element') stack.push(...(node.content ?? node).children.slice().reverse());
  }
  return text.replace(/[ \t\n\f\r\0]+/g, '');
};

/** Every letter that an author has before them: words, and what is kept as it is. */
export const lettersIn = (doc: Node): string => {
  let text = '';
  doc.descendants((node) => {
    if (node.isText) text += node.text!;
    else if (node.type.name === OPAQUE_BLOCK || node.type.name === OPAQUE_INLINE) text += lettersOf(node.attrs['markup'] as string);
  });
  return text.replace(/[ \t\n\f\r]+/g, '');
};

export const stateOf = (doc: Node, schema: Schema): EditorState =>
  EditorState.create({ schema, doc, plugins: [history({ newGroupDelay: 0 }), lines(), singleSpaces()] });

/** The ends of all lines and blocks of words. */
export const placesToType = (doc: Node): number[] => {
  const places: number[] = [];
  doc.descendants((node, at) => void (node.isTextblock && places.push(at + 1 + node.content.size)));
  return places;
};

/**
 * What opens has all the letters that were given, untouched it is the same bytes, and so it is once a letter was typed and
 * taken back. Says what is wrong, or null.
 */
export function opensWhole(html: string, schema: Schema): string | null {
  const { doc, source } = readDocument(html, schema);
  doc.check();
  if (lettersIn(doc) !== lettersOf(html)) return `opens with ${lettersIn(doc)} instead of ${lettersOf(html)}`;
  if (writeDocument(doc, source) !== html) return `untouched it is ${writeDocument(doc, source)}`;
  const places = placesToType(doc);
  if (places.length === 0) return 'there is no place to type';
  for (const place of [places[0]!, places[places.length >> 1]!, places[places.length - 1]!]) {
    const state = stateOf(doc, schema);
    const typed = state.apply(state.tr.insertText('X', place));
    const written = writeDocument(typed.doc, source);
    if (lettersOf(written).replace('X', '') !== lettersOf(html).replace('X', '')) return `with a letter typed it is ${written}`;
    const takenBack = writeDocument(typed.apply(typed.tr.delete(place, place + 1)).doc, source);
    if (takenBack !== html) return `with a letter typed and taken back it is ${takenBack}`;
  }
  return null;
}
