import type { ButtonId, CompiledRules, Profile, ToolbarOptions } from '@typikon/core/editing';
import type { Schema } from 'prosemirror-model';
import type { Command } from 'prosemirror-state';
import type { EditorView } from 'prosemirror-view';
import type { MenuEntry } from './panels/menu';
import type { Dialog, DialogOptions } from './panels/dialog';
import type { EditorServices } from './services/index';

/** Views of the text that stay on until they are switched off. */
export type Mode = 'structure' | 'spelling' | 'outline' | 'find' | 'full-window' | 'word-count' | 'paste-text';

/** What a button knows of the profile. */
export interface ButtonContext {
  schema: Schema;
  rules: CompiledRules;
  options: ToolbarOptions;
  profile: Profile;
}

/** What a button can do with the editor that it stands on. */
export interface EditorContext extends ButtonContext {
  view: EditorView;
  /** The page around the editor. */
  host: Document;
  services: EditorServices;
  /** The content's language and the origin its addresses are read against. */
  baseAddress: string;
  /** The width of the page's column. */
  columnPx: number;
  run(command: Command): boolean;
  press(id: ButtonId): void;
  /** Why a button is of no use with the profile's rules; empty where it is of use. */
  blockedBy(id: ButtonId): string;
  isOn(mode: Mode): boolean;
  toggle(mode: Mode): void;
  /** Says something to people who see the page and to those who hear it. */
  say(message: string): void;
  menu(label: string, entries: readonly MenuEntry[], columns?: number): void;
  dialog(options: Omit<DialogOptions, 'root' | 'closed'>): Dialog;
  /** Takes markup in place of all that is there, as one step; what stays the same is not touched. */
  replaceAll(html: string): void;
}
