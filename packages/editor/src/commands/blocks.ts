import { setBlockType } from 'prosemirror-commands';
import { Fragment, type Node, type NodeType } from 'prosemirror-model';
import { NodeSelection, Selection, TextSelection, type Command } from 'prosemirror-state';
import { nodeNameOf } from '../schema/compile';
import { ancestor, isInBlock, selectedTextBlocks } from '../selection';

/** Turns text blocks into blocks of an element; pressed on blocks that are of it already, it gives paragraphs back. */
export function toggleBlock(element: string): Command {
  return (state, dispatch) => {
    const type = state.schema.nodes[nodeNameOf(element)];
    const paragraph = state.schema.nodes[nodeNameOf('p')];
    if (type === undefined) return false;
    const isOn = selectedTextBlocks(state).every(({ node }) => node.type === type);
    if (isOn && element === 'p') return true;
    return isOn && paragraph !== undefined ? setBlockType(paragraph)(state, dispatch) : setBlockType(type)(state, dispatch);
  };
}

export const isBlockActive =
  (element: string) =>
  (state: Parameters<Command>[0]): boolean =>
    isInBlock(state, nodeNameOf(element));

/** Puts a block in behind the block of the selection, or in place of it where it is empty. */
export function insertBlock(make: (schema: Parameters<Command>[0]['schema']) => Node | null, selectInside = false): Command {
  return (state, dispatch) => {
    const node = make(state.schema);
    if (node === null) return false;
    const { $from, $to } = state.selection;
    for (let depth = $to.depth; depth >= 0; depth--) {
      const parent = $to.node(depth);
      if (depth === $to.depth && parent.isTextblock) continue;
      const block = depth < $to.depth ? $to.node(depth + 1) : null;
      const isEmpty = block !== null && block.isTextblock && block.content.size === 0 && $from.depth === $to.depth;
      const index = $to.index(depth);
      const from = isEmpty ? index : index + (depth < $to.depth ? 1 : 0);
      const to = isEmpty ? index + 1 : from;
      if (!parent.canReplaceWith(from, to, node.type)) continue;
      if (dispatch !== undefined) {
        const start = isEmpty ? $to.before(depth + 1) : depth < $to.depth ? $to.after(depth + 1) : $to.pos;
        const end = isEmpty ? $to.after(depth + 1) : start;
        const tr = state.tr.replaceWith(start, end, node);
        const after = start + node.nodeSize;
        // There is always somewhere to go on typing.
        const paragraph = state.schema.nodes[nodeNameOf('p')] ?? state.schema.nodes['line']!;
        if (
          !selectInside &&
          tr.doc.resolve(after).nodeAfter === null &&
          tr.doc.resolve(after).parent.canReplaceWith(tr.doc.resolve(after).index(), tr.doc.resolve(after).index(), paragraph)
        )
          tr.insert(after, paragraph.create());
        tr.setSelection(selectInside ? Selection.near(tr.doc.resolve(start + 1), 1) : Selection.near(tr.doc.resolve(after), 1));
        dispatch(tr.scrollIntoView());
      }
      return true;
    }
    return false;
  };
}

/** Puts something in among words, in place of the selection. */
export function insertInline(make: (schema: Parameters<Command>[0]['schema']) => Node | null): Command {
  return (state, dispatch) => {
    const node = make(state.schema);
    const { $from } = state.selection;
    if (node === null || !$from.parent.inlineContent || !$from.parent.canReplaceWith($from.index(), $from.index(), node.type)) return false;
    dispatch?.(state.tr.replaceSelectionWith(node, true).scrollIntoView());
    return true;
  };
}

/** Moves the list items or blocks of the selection past their neighbour. */
export function moveBlock(direction: -1 | 1): Command {
  return (state, dispatch) => {
    const { selection } = state;
    const { $from, $to } = selection;
    const isNode = selection instanceof NodeSelection && selection.node.isBlock;
    // The deepest level at which all that is selected stands beside what it is moved past.
    const shared = isNode ? $from.depth + 1 : Math.min($from.depth, $from.sharedDepth($to.pos) + 1);
    const item = isNode ? null : ancestor(state, (node) => ['li', 'dt', 'dd', 'tr'].includes(node.type.spec['element'] as string));
    const isItem = item !== null && item.depth <= shared;
    for (let depth = isItem ? item.depth : shared; depth > 0; depth--) {
      const parent = $from.node(depth - 1);
      const first = $from.index(depth - 1);
      const last = isNode && depth === shared ? first : $to.index(depth - 1);
      const other = direction === -1 ? first - 1 : last + 1;
      if (other < 0 || other >= parent.childCount) {
        if (isItem) return false;
        continue;
      }
      const moved = Array.from({ length: last + 1 - first }, (_, offset) => parent.child(first + offset));
      const past = parent.child(other);
      const nodes = direction === -1 ? [...moved, past] : [past, ...moved];
      const [from, to] = [Math.min(first, other), Math.max(last, other) + 1];
      if (!parent.canReplace(from, to, Fragment.from(nodes))) return false;
      if (dispatch !== undefined) {
        const shift = direction * past.nodeSize;
        const tr = state.tr.replaceWith($from.posAtIndex(from, depth - 1), $from.posAtIndex(to, depth - 1), nodes);
        tr.setSelection(
          selection instanceof NodeSelection
            ? NodeSelection.create(tr.doc, selection.from + shift)
            : TextSelection.between(tr.doc.resolve(selection.anchor + shift), tr.doc.resolve(selection.head + shift)),
        );
        dispatch(tr.scrollIntoView());
      }
      return true;
    }
    return false;
  };
}

/** Puts the selected blocks into a new container, such as details with an empty summary before them. */
export function wrapBlocks(type: NodeType | undefined, first: (schema: Parameters<Command>[0]['schema']) => Node | null): Command {
  return (state, dispatch) => {
    if (type === undefined) return false;
    const range = state.selection.$from.blockRange(state.selection.$to);
    if (range === null) return false;
    const blocks: Node[] = [];
    for (let i = range.startIndex; i < range.endIndex; i++) blocks.push(range.parent.child(i));
    const head = first(state.schema);
    const content = Fragment.from(head === null ? blocks : [head, ...blocks]);
    if (!type.validContent(content) || !range.parent.canReplaceWith(range.startIndex, range.endIndex, type)) return false;
    if (dispatch !== undefined) {
      const tr = state.tr.replaceWith(range.start, range.end, type.create(null, content));
      tr.setSelection(Selection.near(tr.doc.resolve(range.start + 1), 1));
      dispatch(tr.scrollIntoView());
    }
    return true;
  };
}

/** Takes a container away and leaves what it holds. */
export function unwrapBlock(fits: (node: Node) => boolean): Command {
  return (state, dispatch) => {
    const found = ancestor(state, fits);
    if (found === null) return false;
    const paragraph = state.schema.nodes[nodeNameOf('p')];
    const blocks: Node[] = [];
    found.node.forEach((node) => {
      const isPart = ['summary', 'dt', 'dd', 'figcaption'].includes(node.type.spec['element'] as string);
      if (!isPart) blocks.push(node);
      else
        node.forEach((inner) =>
          blocks.push(inner.type.name === 'line' && paragraph !== undefined ? paragraph.create(null, inner.content) : inner),
        );
    });
    const $at = state.doc.resolve(found.at);
    if (!$at.parent.canReplace($at.index(), $at.index() + 1, Fragment.from(blocks))) return false;
    if (dispatch !== undefined) {
      const tr = state.tr.replaceWith(found.at, found.at + found.node.nodeSize, blocks);
      tr.setSelection(Selection.near(tr.doc.resolve(found.at + 1), 1));
      dispatch(tr.scrollIntoView());
    }
    return true;
  };
}
