import { Heading2, Heading3, Heading4, type IconNode } from 'lucide';
import { setBlockType } from 'prosemirror-commands';
import { nodeNameOf } from '../schema/compile';
import { isInBlock } from '../selection';
import type { Button } from './button';

const heading = (level: 2 | 3 | 4, icon: IconNode): Button => {
  const name = nodeNameOf(`h${level}`);
  return {
    id: `heading-${level}`,
    icon,
    command: ({ nodes }) => {
      const type = nodes[name];
      if (type === undefined) return null;
      const paragraph = nodes[nodeNameOf('p')];
      const make = setBlockType(type);
      // Pressed on a heading of its level, the button gives the paragraph back.
      return (state, dispatch) =>
        isInBlock(state, name) && paragraph !== undefined ? setBlockType(paragraph)(state, dispatch) : make(state, dispatch);
    },
    isActive: (state) => isInBlock(state, name),
  };
};

export const heading2 = heading(2, Heading2);
export const heading3 = heading(3, Heading3);
export const heading4 = heading(4, Heading4);
