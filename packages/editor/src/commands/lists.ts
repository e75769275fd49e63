import { Fragment, type Node } from 'prosemirror-model';
import { liftListItem, sinkListItem, splitListItem, wrapInList } from 'prosemirror-schema-list';
import { Selection, TextSelection, type Command, type EditorState, type Transaction } from 'prosemirror-state';
import { nodeNameOf } from '../schema/compile';
import { ancestor, selectedTextBlocks } from '../selection';

const isList = (node: Node): boolean => ['ul', 'ol'].includes(node.type.spec['element'] as string);
const listAround = (state: EditorState) => ancestor(state, isList);

/** Turns blocks into a list, a list of the other kind into this one, and a list of this kind back into blocks. */
export function toggleList(element: 'ul' | 'ol'): Command {
  return (state, dispatch) => {
    const type = state.schema.nodes[nodeNameOf(element)];
    const item = state.schema.nodes[nodeNameOf('li')];
    if (type === undefined || item === undefined) return false;
    const around = listAround(state);
    if (around === null) return wrapInList(type)(state, dispatch && ((tr) => dispatch(itemsAsLines(tr))));
    if (around.node.type === type) return liftListItem(item)(state, dispatch);
    // In a list of the other kind the list itself is changed, so that no item moves.
    dispatch?.(state.tr.setNodeMarkup(around.at, type, { attributes: {} }).scrollIntoView());
    return true;
  };
}

const withItem =
  (make: (item: NonNullable<EditorState['schema']['nodes'][string]>) => Command): Command =>
  (state, dispatch, view) => {
    const item = state.schema.nodes[nodeNameOf('li')];
    return item !== undefined && make(item)(state, dispatch, view);
  };

/** Items that hold one plain paragraph hold its words alone: what is new is written the short way. */
export function itemsAsLines(tr: Transaction): Transaction {
  const { $from, $to } = tr.selection;
  const range = $from.blockRange($to, (node) => isList(node) || node.type.name === 'doc');
  if (range === null) return tr;
  const places: number[] = [];
  tr.doc.nodesBetween(range.start, range.end, (node, at) => {
    const only = node.childCount === 1 ? node.firstChild! : null;
    const isPlain = only?.type.spec['element'] === 'p' && Object.keys(only.attrs['attributes'] as object).length === 0;
    if (node.type.spec['element'] === 'li' && isPlain) places.push(at + 1);
  });
  for (const at of places) tr.setNodeMarkup(at, tr.doc.type.schema.nodes['line']);
  return tr;
}

/** A new item begins with the kind of block that the old one has. */
export const splitItem: Command = withItem((item) => (state, dispatch, view) => {
  const { type, attrs } = state.selection.$from.parent;
  return splitListItem(item)(
    state,
    dispatch &&
      ((tr) => {
        const { $from } = tr.selection;
        if (type.spec['element'] === 'p' && $from.parent.type.name === 'line' && $from.parent.content.size === 0)
          tr.setNodeMarkup($from.before(), type, attrs);
        dispatch(tr);
      }),
    view,
  );
});
export const sinkItem: Command = withItem((item) => sinkListItem(item));
export const liftItem: Command = withItem((item) => liftListItem(item));

/** Gives the list around the selection another kind of number and another begin. */
export function setNumbers(attributes: Readonly<Record<string, string>>): Command {
  return (state, dispatch) => {
    const around = ancestor(state, (node) => node.type.spec['element'] === 'ol');
    if (around === null) return false;
    const { start: _start, type: _type, ...rest } = around.node.attrs['attributes'] as Record<string, string>;
    dispatch?.(state.tr.setNodeMarkup(around.at, null, { attributes: { ...rest, ...attributes } }).scrollIntoView());
    return true;
  };
}

/** Turns the selected blocks into terms, each with an explanation to be written. */
export const makeTermList: Command = (state, dispatch) => {
  const { schema } = state;
  const [list, term, words] = ['dl', 'dt', 'dd'].map((name) => schema.nodes[nodeNameOf(name)]);
  if (list === undefined || term === undefined || words === undefined) return false;
  const range = state.selection.$from.blockRange(state.selection.$to);
  if (range === null || !range.parent.canReplaceWith(range.startIndex, range.endIndex, list)) return false;
  const line = schema.nodes['line']!;
  const parts = selectedTextBlocks(state).flatMap(({ node }) => [
    term.create(null, line.create(null, node.content)),
    words.create(null, line.create()),
  ]);
  if (dispatch !== undefined) {
    const tr = state.tr.replaceWith(range.start, range.end, list.create(null, Fragment.from(parts)));
    tr.setSelection(Selection.near(tr.doc.resolve(range.start + 2), 1));
    dispatch(tr.scrollIntoView());
  }
  return true;
};

/** In a term list Enter goes from the term to its explanation, and from there to the next term; in an empty term it ends the list. */
export const splitTerm: Command = (state, dispatch) => {
  const part = ancestor(state, (node) => ['dt', 'dd'].includes(node.type.spec['element'] as string));
  const { $from, empty } = state.selection;
  if (part === null || !empty || !$from.parent.isTextblock || $from.depth !== part.depth + 1) return false;
  const { schema } = state;
  const line = schema.nodes['line']!;
  const isTerm = part.node.type.spec['element'] === 'dt';
  const list = $from.node(part.depth - 1);
  const end = part.at + part.node.nodeSize;
  if (part.node.content.size <= 2 && isTerm && list.childCount > 1 && $from.index(part.depth - 1) === list.childCount - 1) {
    const paragraph = schema.nodes[nodeNameOf('p')] ?? line;
    if (dispatch !== undefined) {
      const after = $from.after(part.depth - 1);
      const tr = state.tr.insert(after, paragraph.create()).delete(part.at, end);
      tr.setSelection(Selection.near(tr.doc.resolve(tr.mapping.map(after, -1) + 1), 1));
      dispatch(tr.scrollIntoView());
    }
    return true;
  }
  const next = schema.nodes[nodeNameOf(isTerm ? 'dd' : 'dt')];
  if (next === undefined) return false;
  if (dispatch !== undefined) {
    const rest = $from.parent.slice($from.parentOffset).content;
    const tr = state.tr.insert(end, next.create(null, line.create(null, rest)));
    if (rest.size > 0) tr.delete($from.pos, $from.end());
    tr.setSelection(TextSelection.create(tr.doc, tr.mapping.map(end, -1) + 2));
    dispatch(tr.scrollIntoView());
  }
  return true;
};
