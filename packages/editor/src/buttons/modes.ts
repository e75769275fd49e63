import { ClipboardPaste, Maximize2, Search, SpellCheck, SquareDashed, TableOfContents, WholeWord } from 'lucide';
import type { Button } from './button';

export const pasteText: Button = { id: 'paste-text', icon: ClipboardPaste, mode: 'paste-text' };
export const findReplace: Button = { id: 'find-replace', icon: Search, mode: 'find' };
export const spelling: Button = { id: 'spelling', icon: SpellCheck, mode: 'spelling' };
export const outline: Button = { id: 'outline', icon: TableOfContents, mode: 'outline' };
export const structure: Button = { id: 'structure', icon: SquareDashed, mode: 'structure' };
export const fullWindow: Button = { id: 'full-window', icon: Maximize2, mode: 'full-window' };
export const wordCount: Button = { id: 'word-count', icon: WholeWord, mode: 'word-count' };
