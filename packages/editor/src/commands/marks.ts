import { toggleMark } from 'prosemirror-commands';
import type { Mark } from 'prosemirror-model';
import type { Command, EditorState } from 'prosemirror-state';
import { markNameOf } from '../schema/compile';
import type { HtmlAttributes } from '../schema/dom';
import { hasMark, markRange, wordAround } from '../selection';

/** Gives words an element or takes it off; with only a cursor, what is typed next. */
export function toggleElement(element: string): Command {
  return (state, dispatch, view) => {
    const type = state.schema.marks[markNameOf(element)];
    return type !== undefined && toggleMark(type)(state, dispatch, view);
  };
}

export const isElementOn =
  (element: string) =>
  (state: EditorState): boolean =>
    hasMark(state, markNameOf(element));

/** The words a mark is given to: the selection, else the stretch of that mark, else the word at the cursor. */
export function wordsToMark(state: EditorState, element: string): { from: number; to: number } {
  const { selection } = state;
  if (!selection.empty) return selection;
  const type = state.schema.marks[markNameOf(element)];
  const stretch = type === undefined ? selection : markRange(state, type);
  return stretch.from < stretch.to ? stretch : wordAround(state);
}

/** The marks of an element that words of a range carry. */
export function marksIn(state: EditorState, element: string, { from, to }: { from: number; to: number }): Mark[] {
  const type = state.schema.marks[markNameOf(element)];
  const found: Mark[] = [];
  if (type === undefined) return found;
  state.doc.nodesBetween(from, to, (node) => {
    for (const mark of node.marks) if (mark.type === type && !found.some((other) => other.eq(mark))) found.push(mark);
  });
  return found;
}

/**
 * Gives words of a range an element with attributes, in place of marks of that element that `replaces` says.
 * Null attributes only take those away.
 */
export function setElement(
  element: string,
  range: { from: number; to: number },
  attributes: HtmlAttributes | null,
  replaces: (old: HtmlAttributes) => boolean = () => true,
): Command {
  return (state, dispatch) => {
    const type = state.schema.marks[markNameOf(element)];
    if (type === undefined || range.from >= range.to) return false;
    if (dispatch !== undefined) {
      const { tr } = state;
      for (const mark of marksIn(state, element, range))
        if (replaces(mark.attrs['attributes'] as HtmlAttributes)) tr.removeMark(range.from, range.to, mark);
      if (attributes !== null) tr.addMark(range.from, range.to, type.create({ attributes }));
      dispatch(tr.scrollIntoView());
    }
    return true;
  };
}
