import { AllSelection, NodeSelection, Plugin, TextSelection, type Command, type EditorState, type Transaction } from 'prosemirror-state';
import { ReplaceStep } from 'prosemirror-transform';
import { nodeNameOf } from '../schema/compile';

const isOfWords = ({ selection }: EditorState): boolean =>
  !selection.empty && (selection instanceof TextSelection || selection instanceof AllSelection);

const isDeletion = ({ steps }: Transaction): boolean => steps.every((step) => step instanceof ReplaceStep && step.slice.size === 0);

/**
 * Keeps the cursor among words. Where everything between two things that hold none was deleted, one of those would be
 * selected next, and the letter typed then would overwrite it: an empty block takes the place of what went.
 */
export function cursorAmongWords(): Plugin {
  return new Plugin({
    appendTransaction(transactions, before, state) {
      if (!isOfWords(before) || !transactions.some(({ docChanged }) => docChanged) || !transactions.every(isDeletion)) return null;
      if (!(state.selection instanceof NodeSelection)) return null;
      const at = transactions.reduce((place, { mapping }) => mapping.map(place, -1), before.selection.from);
      const $at = state.doc.resolve(at);
      const type = state.schema.nodes[nodeNameOf('p')] ?? state.schema.nodes['line']!;
      if ($at.parent.isTextblock || !$at.parent.canReplaceWith($at.index(), $at.index(), type)) return null;
      const tr = state.tr.insert(at, type.create());
      return tr.setSelection(TextSelection.create(tr.doc, at + 1));
    },
  });
}

/** Deletes what is selected where no words would be left at the cursor, so that nothing could be split there. */
export const deleteWhole: Command = (state, dispatch) => {
  if (!isOfWords(state)) return false;
  const tr = state.tr.deleteSelection();
  if (tr.selection.$from.parent.isTextblock) return false;
  dispatch?.(tr.scrollIntoView());
  return true;
};
