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

/** Moves the list item or block of the selection past its neighbour. */
export function moveBlock(direction: -1 | 1): Command {
  return (state, dispatch) => {
    const { $from } = state.selection;
    const selected = state.selection instanceof NodeSelection && state.selection.node.isBlock;
    let depth = selected ? $from.depth + 1 : $from.depth;
    const item = ancestor(state, (node) => ['li', 'dt', 'dd', 'tr'].includes(node.type.spec['element'] as string));
    if (item !== null && !selected) ({ depth } = item);
    for (; depth > 0; depth--) {
      const parent = $from.node(depth - 1);
      const index = $from.index(depth - 1);
      const other = index + direction;
      if (other < 0 || other >= parent.childCount) {
        if (item !== null) return false;
        continue;
      }
      const nodes: Node[] = [];
      parent.forEach((node) => nodes.push(node));
      [nodes[index], nodes[other]] = [nodes[other]!, nodes[index]!];
      const fragment = Fragment.from(nodes);
      if (!parent.type.validContent(fragment)) return false;
      if (dispatch !== undefined) {
        const first = Math.min(index, other);
        const start = $from.posAtIndex(first, depth - 1);
        const end = $from.posAtIndex(first + 2 > parent.childCount ? parent.childCount : first + 2, depth - 1);
        const shift = direction === -1 ? -parent.child(other).nodeSize : parent.child(other).nodeSize;
        const tr = state.tr.replaceWith(start, end, nodes.slice(first, first + 2));
        const { selection } = state;
        tr.setSelection(
          selection instanceof NodeSelection
            ? NodeSelection.create(tr.doc, selection.from + shift)
            : TextSelection.create(tr.doc, selection.anchor + shift, selection.head + shift),
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
