import type { ButtonId } from '@typikon/core';
import type { Schema } from 'prosemirror-model';
import type { Command, EditorState } from 'prosemirror-state';
import type { IconNode } from 'lucide';

/** What a button does in the editor. What it is called and needs is declared in the core (`BUTTONS`). */
export interface Button {
  id: ButtonId;
  icon: IconNode;
  /** The command behind the button; null where the schema cannot hold what it makes. */
  command(schema: Schema): Command | null;
  /** Whether what the button makes is there at the selection. */
  isActive?(state: EditorState): boolean;
  /** Asks the author for something first; the answer is a command. */
  ask?: 'address';
}
