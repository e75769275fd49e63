import { Pilcrow } from 'lucide';
import { setBlockType } from 'prosemirror-commands';
import { isInBlock } from '../selection';
import { nodeNameOf } from '../schema/compile';
import type { Button } from './button';

const name = nodeNameOf('p');

/** Turns a heading back into a paragraph. */
export const paragraph: Button = {
  id: 'paragraph',
  icon: Pilcrow,
  command: ({ nodes }) => (nodes[name] === undefined ? null : setBlockType(nodes[name])),
  isActive: (state) => isInBlock(state, name),
};
