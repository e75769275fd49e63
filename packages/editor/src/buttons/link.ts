import { Link, Unlink } from 'lucide';
import { markNameOf } from '../schema/compile';
import { hasMark, markRange } from '../selection';
import type { Button } from './button';

const name = markNameOf('a');

/** Asks for an address and links the selected words to it. */
export const link: Button = {
  id: 'link',
  icon: Link,
  ask: 'address',
  command: ({ marks }) => (marks[name] === undefined ? null : (state) => !state.selection.empty || hasMark(state, name)),
  isActive: (state) => hasMark(state, name),
};

/** Takes a link away and keeps its words. */
export const unlink: Button = {
  id: 'unlink',
  icon: Unlink,
  command: ({ marks }) => {
    const type = marks[name];
    if (type === undefined) return null;
    return (state, dispatch) => {
      if (!hasMark(state, name)) return false;
      const { from, to } = state.selection.empty ? markRange(state, type) : state.selection;
      dispatch?.(state.tr.removeMark(from, to, type).scrollIntoView());
      return true;
    };
  },
};
