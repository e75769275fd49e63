import { parseFragment, type ChildNode } from '@typikon/core';
import { chainCommands, deleteSelection, joinBackward, lift, selectAll, setBlockType, splitBlock, toggleMark } from 'prosemirror-commands';
import { history, undo } from 'prosemirror-history';
import type { MarkType, Node, Schema } from 'prosemirror-model';
import { EditorState, TextSelection, type Command } from 'prosemirror-state';
import { cursorAmongWords, deleteWhole } from '../src/plugins/cursor';
import { lines, singleSpaces } from '../src/plugins/lines';
import { OPAQUE_BLOCK, OPAQUE_INLINE } from '../src/schema/compile';
import { readDocument } from '../src/schema/read';
import type { Source } from '../src/schema/source';
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
  EditorState.create({ schema, doc, plugins: [history({ newGroupDelay: 0 }), lines(), singleSpaces(), cursorAmongWords()] });

/** The ends of all lines and blocks of words. */
export const placesToType = (doc: Node): number[] => {
  const places: number[] = [];
  doc.descendants((node, at) => void (node.isTextblock && places.push(at + 1 + node.content.size)));
  return places;
};

/** Whether the blocks of the top level before and behind the one that a letter was typed in stand as they did. */
function staysAround(doc: Node, source: Source, place: number, written: string): boolean {
  const index = doc.resolve(place).index(0);
  const piece = source.top.pieces.find(({ node }) => node === doc.child(index));
  if (piece === undefined) return true;
  return written.startsWith(source.html.slice(0, piece.start)) && written.endsWith(source.html.slice(piece.end));
}

/**
 * Whatever is done and undone to the start leaves the same bytes.
 *
 * @param dice numbers from 0 to 1 that choose what is done, and where
 */
export function undoGivesBack(html: string, schema: Schema, dice: readonly number[]): string | null {
  const { doc, source } = readDocument(html, schema);
  let state = stateOf(doc, schema);
  const done: string[] = [];
  const run = (name: string, command: Command): void => void (command(state, (tr) => (state = state.apply(tr))) && done.push(name));
  for (let i = 0; i + 2 < dice.length; i += 3) {
    const [what, from, to] = [dice[i]!, dice[i + 1]!, dice[i + 2]!].map((die) => Math.min(die, 0.999_999)) as [number, number, number];
    const at = [from, to].map((die) => Math.floor(die * (state.doc.content.size + 1))).sort((a, b) => a - b) as [number, number];
    const [$from, $to] = [state.doc.resolve(at[0]), state.doc.resolve(at[1])];
    state = state.apply(state.tr.setSelection(TextSelection.between($from, $to)));
    const [name, command] = one(EDITS, what)!;
    run(name, command((what * EDITS.length) % 1));
    state.doc.check();
  }
  for (let i = 0; i < 200 && undo(state, (tr) => (state = state.apply(tr))); i++);
  const written = writeDocument(state.doc, source);
  return written === html ? null : `after ${done.join(', ')} were undone it is ${written}`;
}

const one = <T>(of: readonly T[], die: number): T | undefined => of[Math.floor(die * of.length)];

/** What an author does to a selection; a number from 0 to 1 chooses where there is a choice. */
const EDITS: readonly (readonly [string, (die: number) => Command])[] = [
  ['typing', () => (state, dispatch) => (dispatch?.(state.tr.insertText('X')), true)],
  ['deleting', () => deleteSelection],
  ['splitting', () => chainCommands(deleteWhole, splitBlock)],
  ['joining', () => joinBackward],
  ['lifting', () => lift],
  ['selecting all', () => selectAll],
  [
    'a mark',
    (die) => (state, dispatch) => {
      const here: MarkType[] = [];
      state.doc.nodesBetween(state.selection.from, state.selection.to, ({ marks }) => void here.push(...marks.map(({ type }) => type)));
      const mark = one([...here, ...Object.values(state.schema.marks)], die);
      return mark !== undefined && toggleMark(mark)(state, dispatch);
    },
  ],
  [
    'another block',
    (die) => (state, dispatch) => {
      const type = one(
        Object.values(state.schema.nodes).filter(({ isTextblock, name }) => isTextblock && name !== 'line'),
        die,
      );
      return type !== undefined && setBlockType(type)(state, dispatch);
    },
  ],
];

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
    if (!staysAround(doc, source, place, written)) return `a letter typed changed what stands around it: ${written}`;
    const takenBack = writeDocument(typed.apply(typed.tr.delete(place, place + 1)).doc, source);
    if (takenBack !== html) return `with a letter typed and taken back it is ${takenBack}`;
  }
  return null;
}
