import { Redo2, Undo2 } from 'lucide';
import { redo as redoCommand, undo as undoCommand } from 'prosemirror-history';
import type { Button } from './button';

export const undo: Button = { id: 'undo', icon: Undo2, command: () => undoCommand, whyNot: 'There is nothing to take back.' };
export const redo: Button = { id: 'redo', icon: Redo2, command: () => redoCommand, whyNot: 'Nothing was taken back.' };
