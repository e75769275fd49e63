import type { ButtonId } from '@typikon/core/editing';
import { Heading2, Heading3, Heading4, Heading5, Heading6, Pilcrow, SquareCode, type IconNode } from 'lucide';
import { isBlockActive, toggleBlock } from '../commands/blocks';
import type { Button } from './button';

const block = (id: ButtonId, icon: IconNode, element: string): Button => ({
  id,
  icon,
  command: () => toggleBlock(element),
  isActive: isBlockActive(element),
  whyNot: 'This kind of block cannot stand here.',
});

export const paragraph = block('paragraph', Pilcrow, 'p');
export const heading2 = block('heading-2', Heading2, 'h2');
export const heading3 = block('heading-3', Heading3, 'h3');
export const heading4 = block('heading-4', Heading4, 'h4');
export const heading5 = block('heading-5', Heading5, 'h5');
export const heading6 = block('heading-6', Heading6, 'h6');
export const preformatted = block('preformatted', SquareCode, 'pre');
