import type { ButtonId } from '@typikon/core';
import { List, ListOrdered, type IconNode } from 'lucide';
import { liftListItem, wrapInList } from 'prosemirror-schema-list';
import { nodeNameOf } from '../schema/compile';
import { isInside } from '../selection';
import type { Button } from './button';

const list = (id: ButtonId, element: 'ul' | 'ol', icon: IconNode): Button => {
  const name = nodeNameOf(element);
  return {
    id,
    icon,
    command: ({ nodes }) => {
      const type = nodes[name];
      const item = nodes[nodeNameOf('li')];
      if (type === undefined || item === undefined) return null;
      const wrap = wrapInList(type);
      const lift = liftListItem(item);
      return (state, dispatch) => {
        if (isInside(state, name)) return lift(state, dispatch);
        // In a list of the other kind the list itself is changed, so that no item moves.
        const { $from } = state.selection;
        for (let depth = $from.depth; depth > 0; depth--) {
          const node = $from.node(depth);
          if (node.type.name !== nodeNameOf('ul') && node.type.name !== nodeNameOf('ol')) continue;
          dispatch?.(state.tr.setNodeMarkup($from.before(depth), type, { attributes: {} }));
          return true;
        }
        return wrap(state, dispatch);
      };
    },
    isActive: (state) => isInside(state, name),
  };
};

export const bulletedList = list('bulleted-list', 'ul', List);
export const numberedList = list('numbered-list', 'ol', ListOrdered);
