import { List, ListOrdered, ListTree } from 'lucide';
import { makeTermList, toggleList } from '../commands/lists';
import { unwrapBlock } from '../commands/blocks';
import { isInside } from '../selection';
import { nodeNameOf } from '../schema/compile';
import type { Button } from './button';

export const bulletedList: Button = {
  id: 'bulleted-list',
  icon: List,
  command: () => toggleList('ul'),
  isActive: (state) => isInside(state, nodeNameOf('ul')),
  whyNot: 'No list can stand here.',
};

export const numberedList: Button = {
  id: 'numbered-list',
  icon: ListOrdered,
  command: () => toggleList('ol'),
  isActive: (state) => isInside(state, nodeNameOf('ol')),
  whyNot: 'No list can stand here.',
};

/** Turns blocks into terms with explanations; pressed within one, it gives the blocks back. */
export const definitionList: Button = {
  id: 'definition-list',
  icon: ListTree,
  command: () => (state, dispatch, view) =>
    isInside(state, nodeNameOf('dl'))
      ? unwrapBlock((node) => node.type.spec['element'] === 'dl')(state, dispatch, view)
      : makeTermList(state, dispatch, view),
  isActive: (state) => isInside(state, nodeNameOf('dl')),
  whyNot: 'No list can stand here.',
};
