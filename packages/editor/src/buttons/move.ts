import { ArrowDown, ArrowUp } from 'lucide';
import { moveBlock } from '../commands/blocks';
import type { Button } from './button';

export const moveUp: Button = { id: 'move-up', icon: ArrowUp, command: () => moveBlock(-1), whyNot: 'There is nothing above it.' };
export const moveDown: Button = { id: 'move-down', icon: ArrowDown, command: () => moveBlock(1), whyNot: 'There is nothing below it.' };
