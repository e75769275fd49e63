import type { SurfaceSettings } from '@typikon/core/editing';
import { baseKeymap, chainCommands, exitCode, liftEmptyBlock, newlineInCode, splitBlockAs } from 'prosemirror-commands';
import { undoInputRule } from 'prosemirror-inputrules';
import { keymap } from 'prosemirror-keymap';
import { AllSelection, Selection, TextSelection, type Command, type Plugin } from 'prosemirror-state';
import { changeTextBlocks, attributesOf, withClass } from '../commands/attributes';
import { liftItem, sinkItem, splitItem, splitTerm } from '../commands/lists';
import { emptyCells, tableAt, toCell } from '../commands/table';
import { deleteWhole } from './cursor';
import { nodeNameOf } from '../schema/compile';
import { ancestor, isInside } from '../selection';

export const lineBreak: Command = (state, dispatch) => {
  const type = state.schema.nodes[nodeNameOf('br')];
  if (type === undefined || !state.selection.$from.parent.inlineContent) return false;
  dispatch?.(state.tr.replaceSelectionWith(type.create()).scrollIntoView());
  return true;
};

const paragraph: Command = (state, dispatch, view) => {
  const type = state.schema.nodes[nodeNameOf('p')];
  return type !== undefined && splitBlockAs(() => ({ type }))(state, dispatch, view);
};

/**
 * Begins a paragraph beside a block of words, or beside a thing that is selected. In quotes, boxes and the like words might
 * stand without one as well, so what the schema would begin there is not asked.
 */
const newParagraph: Command = (state, dispatch, view) => {
  const type = state.schema.nodes[nodeNameOf('p')];
  const { $from, $to, empty } = state.selection;
  if (type === undefined || state.selection instanceof AllSelection) return false;
  const insert = (at: number, goesIn: boolean): boolean => {
    const $at = state.doc.resolve(at);
    if (!$at.parent.canReplaceWith($at.index(), $at.index(), type)) return false;
    const tr = state.tr.insert(at, type.create());
    dispatch?.((goesIn ? tr.setSelection(TextSelection.create(tr.doc, at + 1)) : tr).scrollIntoView());
    return true;
  };
  if (!$from.parent.inlineContent && !$to.parent.inlineContent)
    return insert($from.parentOffset === 0 && $to.index() < $to.parent.childCount ? $from.pos : $to.pos, true);
  // Words without a paragraph become two, see `lines.ts`.
  if ($from.parent.type.name === 'line') return false;
  if (empty && $from.parentOffset === 0 && $from.parent.content.size > 0) return insert($from.before(), false);
  return splitBlockAs((_node, isAtEnd) => (isAtEnd ? { type } : null))(state, dispatch, view);
};

/** Begins a `div` with what stands behind the cursor: beside the one around it, or behind the block that the cursor is in. */
const block: Command = (state, dispatch) => {
  const type = state.schema.nodes[nodeNameOf('div')];
  const line = state.schema.nodes['line']!;
  const { tr } = state;
  if (!state.selection.empty) tr.deleteSelection();
  const { $from } = tr.selection;
  if (type === undefined || !$from.parent.isTextblock || $from.parent.type.spec.code === true) return false;
  const isAlone = $from.parent.type === line && $from.node(-1).type === type && $from.node(-1).childCount === 1;
  const depth = isAlone ? $from.depth - 1 : $from.depth;
  const index = $from.indexAfter(depth - 1);
  if (!$from.node(depth - 1).canReplaceWith(index, index, type)) return false;
  if (dispatch !== undefined) {
    const rest = $from.parent.slice($from.parentOffset).content;
    const after = $from.after(depth);
    tr.insert(after, type.create(null, line.create(null, rest))).delete($from.pos, $from.end());
    dispatch(tr.setSelection(Selection.near(tr.doc.resolve(after - rest.size + 2))).scrollIntoView());
  }
  return true;
};

/** In a caption or summary there is one block of words; Enter goes on behind it. */
const leavePart: Command = (state, dispatch, view) => {
  const part = ancestor(state, (node) => ['figcaption', 'caption', 'summary', 'legend'].includes(node.type.spec['element'] as string));
  if (part === null) return false;
  if (dispatch !== undefined) {
    const isSummary = part.node.type.spec['element'] === 'summary';
    const depth = isSummary ? part.depth : part.depth - 1;
    const after = state.selection.$from.after(depth);
    const { tr } = state;
    const $after = tr.doc.resolve(after);
    const type = state.schema.nodes[nodeNameOf('p')] ?? state.schema.nodes['line']!;
    if ($after.nodeAfter === null && $after.parent.canReplaceWith($after.index(), $after.index(), type)) tr.insert(after, type.create());
    dispatch(tr.setSelection(Selection.near(tr.doc.resolve(after), 1)).scrollIntoView());
    view?.focus();
  }
  return true;
};

/** The class that sets a block in by one step more or less. */
export function indentBlocks(by: 1 | -1, classes: readonly string[], may: (element: string, name: string) => boolean): Command {
  const next = (old: readonly string[]): string | null => {
    const step = classes.findIndex((name) => old.includes(name)) + by;
    return step < 0 ? null : (classes[Math.min(step, classes.length - 1)] ?? null);
  };
  return (state, dispatch) => {
    const isSome =
      by === 1 ||
      ancestor(state, (node) => classes.some((name) => (attributesOf(node)['class'] ?? '').split(/\s+/).includes(name))) !== null;
    return (
      isSome &&
      changeTextBlocks(
        (element) => classes.some((name) => may(element, name)),
        (node) => withClass(attributesOf(node), next((attributesOf(node)['class'] ?? '').split(/\s+/)), classes),
      )(state, dispatch)
    );
  };
}

/** What Enter, Shift and Enter, Tab and the deleting keys do. */
export function typingKeys({ enter, shiftEnter, tab }: SurfaceSettings, indent: Command, outdent: Command): Plugin[] {
  const enterBegins: Command = (state, dispatch, view) => {
    if (enter === 'break') return lineBreak(state, dispatch);
    return enter === 'block' && block(state, dispatch, view);
  };
  const spaces: Command = (state, dispatch) => {
    if (state.selection.$from.parent.type.spec.code !== true) return false;
    dispatch?.(state.tr.insertText('  ').scrollIntoView());
    return true;
  };
  const hardSpaces: Command = (state, dispatch) => {
    dispatch?.(state.tr.insertText('\u00a0\u00a0 ').scrollIntoView());
    return true;
  };
  const inList =
    (command: Command): Command =>
    (state, dispatch, view) =>
      isInside(state, nodeNameOf('li')) && command(state, dispatch, view);
  const inTable =
    (command: Command): Command =>
    (state, dispatch, view) =>
      tableAt(state) !== null && command(state, dispatch, view);
  return [
    keymap({
      Enter: chainCommands(deleteWhole, splitItem, splitTerm, leavePart, enterBegins, newlineInCode, liftEmptyBlock, newParagraph),
      'Shift-Enter':
        shiftEnter === 'nothing' ? () => true : chainCommands(deleteWhole, exitCode, shiftEnter === 'paragraph' ? paragraph : lineBreak),
      // A key that leaves the editor is a way out for people without a mouse; tables keep Tab for themselves, as everywhere.
      Tab: chainCommands(
        inTable(toCell(1)),
        ...(tab === 'leave' ? [] : [inList(sinkItem), spaces, ...(tab === 'indent' ? [indent] : [hardSpaces])]),
      ),
      'Shift-Tab': chainCommands(
        inTable(toCell(-1)),
        ...(tab === 'leave' ? [] : [inList(liftItem), ...(tab === 'indent' ? [outdent] : [])]),
      ),
      'Mod-]': sinkItem,
      'Mod-[': liftItem,
      // What typed signs made is taken back first: the signs were meant.
      Backspace: chainCommands(undoInputRule, emptyCells),
      Delete: emptyCells,
    }),
    keymap(baseKeymap),
  ];
}
