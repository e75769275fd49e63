import type { ButtonId } from '@typikon/core/editing';
import type { Command, EditorState } from 'prosemirror-state';
import type { IconNode } from 'lucide';
import type { ButtonContext, EditorContext, Mode } from '../context';

/** What a button does in the editor. What it is called and needs is declared in the core (`BUTTONS`). */
export interface Button {
  id: ButtonId;
  icon: IconNode;
  /** What it does at once; a button without a command opens something or switches a mode. */
  command?: (context: ButtonContext) => Command;
  /** Opens a menu or a dialog. */
  open?: (context: EditorContext) => void;
  /** Switches a view of the text on and off. */
  mode?: Mode;
  /** Whether what the button makes is there at the selection. */
  isActive?: (state: EditorState, context: ButtonContext) => boolean;
  /** Whether it can be opened at the selection; absent for always. */
  isPossible?: (state: EditorState, context: ButtonContext) => boolean;
  /** Why it cannot be pressed at the selection. */
  whyNot?: string;
  /** Whether it is of use although the rules keep only the element that it makes, not all of its attributes and parts. */
  isTolerant?: boolean;
}
