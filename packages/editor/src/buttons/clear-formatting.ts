import { RemoveFormatting } from 'lucide';
import { markNameOf } from '../schema/compile';
import type { Button } from './button';

/** Takes every mark but links off the selection. */
export const clearFormatting: Button = {
  id: 'clear-formatting',
  icon: RemoveFormatting,
  command:
    ({ marks }) =>
    (state, dispatch) => {
      const { from, to, empty } = state.selection;
      if (empty) return false;
      const tr = state.tr;
      for (const type of Object.values(marks)) if (type.name !== markNameOf('a')) tr.removeMark(from, to, type);
      dispatch?.(tr.setStoredMarks([]).scrollIntoView());
      return true;
    },
};
