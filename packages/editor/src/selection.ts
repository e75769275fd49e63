import { AllSelection, NodeSelection, TextSelection, type EditorState } from 'prosemirror-state';
import type { MarkType, Node } from 'prosemirror-model';
import { nodeNameOf } from './schema/compile';

/** Whether the selection's text block is of a node type. */
export function isInBlock({ selection }: EditorState, nodeName: string): boolean {
  return selection.$from.parent.type.name === nodeName;
}

/** Whether the selection begins inside a node of a type, at any depth. */
export function isInside(state: EditorState, nodeName: string): boolean {
  return ancestor(state, (node) => node.type.name === nodeName) !== null;
}

/** The nearest node around the selection that fits, with the position before it. */
export function ancestor(
  { selection: { $from } }: EditorState,
  fits: (node: Node) => boolean,
): { node: Node; at: number; depth: number } | null {
  for (let depth = $from.depth; depth > 0; depth--) {
    const node = $from.node(depth);
    if (fits(node)) return { node, at: $from.before(depth), depth };
  }
  return null;
}

/** The node that is selected as a whole, where it is of an element. */
export function selectedElement({ selection }: EditorState, element: string): { node: Node; at: number } | null {
  return selection instanceof NodeSelection && selection.node.type.name === nodeNameOf(element)
    ? { node: selection.node, at: selection.from }
    : null;
}

/** Whether the words at the selection carry a mark, or the next typed letter would. */
export function hasMark(state: EditorState, markName: string): boolean {
  const type = state.schema.marks[markName];
  if (type === undefined) return false;
  const { from, to, empty, $from } = state.selection;
  if (empty) return type.isInSet(state.storedMarks ?? $from.marks()) !== undefined;
  return state.doc.rangeHasMark(from, to, type);
}

/** The whole stretch of a mark around the cursor; empty where the cursor is not in one. */
export function markRange({ selection: { $from } }: EditorState, type: MarkType): { from: number; to: number } {
  const mark = type.isInSet($from.marks());
  const nowhere = { from: $from.pos, to: $from.pos };
  if (mark === undefined) return nowhere;
  const runs: { from: number; to: number }[] = [];
  $from.parent.forEach((node, offset) => {
    if (!mark.isInSet(node.marks)) return;
    const from = $from.start() + offset;
    const last = runs[runs.length - 1];
    if (last?.to === from) last.to = from + node.nodeSize;
    else runs.push({ from, to: from + node.nodeSize });
  });
  return runs.find(({ from, to }) => from <= $from.pos && $from.pos <= to) ?? nowhere;
}

/** The word that the cursor stands in; empty where it stands in none. */
export function wordAround({ selection: { $from } }: EditorState): { from: number; to: number; text: string } {
  const text = $from.parent.textBetween(0, $from.parent.content.size, undefined, '\ufffc');
  const isLetter = (character: string | undefined): boolean => character !== undefined && /[\p{L}\p{N}'’-]/u.test(character);
  let start = $from.parentOffset;
  let end = start;
  while (isLetter(text[start - 1])) start--;
  while (isLetter(text[end])) end++;
  return { from: $from.start() + start, to: $from.start() + end, text: text.slice(start, end) };
}

/** Every text block that the selection touches, with its position. */
export function selectedTextBlocks({ selection, doc }: EditorState): { node: Node; at: number }[] {
  const blocks: { node: Node; at: number }[] = [];
  if (selection instanceof TextSelection || selection instanceof AllSelection)
    doc.nodesBetween(selection.from, Math.max(selection.to, selection.from + (selection.empty ? 0 : 1)), (node, at) => {
      if (node.isTextblock) blocks.push({ node, at });
      return !node.isTextblock;
    });
  if (blocks.length === 0 && selection.$from.parent.isTextblock)
    blocks.push({ node: selection.$from.parent, at: selection.$from.before() });
  return blocks;
}
