import type { MarkType } from 'prosemirror-model';
import type { EditorState } from 'prosemirror-state';

/** Whether the selection's text block is of a node type. */
export function isInBlock({ selection }: EditorState, nodeName: string): boolean {
  return selection.$from.parent.type.name === nodeName;
}

/** Whether the selection begins inside a node of a type, at any depth. */
export function isInside({ selection: { $from } }: EditorState, nodeName: string): boolean {
  for (let depth = $from.depth; depth > 0; depth--) if ($from.node(depth).type.name === nodeName) return true;
  return false;
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
