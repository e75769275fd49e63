import { InjectionToken, type InputSignal, type Type } from '@angular/core';
import type { FormField, Json, JsonObject } from '@typikon/core';

/** Who set a setting. */
export interface SettingOrigin {
  /** In a word or a name: here, a parent, the default, the house limits. */
  setBy: string;
  isHere: boolean;
  /** Whether something stricter holds in its place. */
  isCapped?: boolean;
  /** Whether what is above can hold again. */
  canReset: boolean;
}

/** The document that a form is about: what holds in it, who said so, and how it is changed. */
export abstract class SettingsSource {
  /** A section as it holds, with every default filled in; null while there is none. Read in a reactive context. */
  abstract section(at: readonly string[]): JsonObject | null;
  /** Null where nobody else could have set it. */
  abstract origin(keys: readonly string[]): SettingOrigin | null;
  /**
   * One step that can be undone; undefined takes away what is there.
   *
   * @returns why it cannot be so beside the other settings, in a sentence; nothing where it is
   */
  abstract set(keys: readonly string[], value: Json | undefined, label: string): string | void;
  abstract reset(keys: readonly string[], label: string): void;
  /** What the way back is called: in a word, and in full. */
  readonly wayBack: { word: string; sentence: string } = { word: 'Follow', sentence: 'Follow the parent again' };
  /** What the setting does to what is on the bench, in a few words; empty where nothing. */
  effect(_keys: readonly string[]): string {
    return '';
  }
  /** How often each attribute occurs on the bench, on an element or, for null, on any; null where there is no bench. */
  attributeCounts(_element: string | null): Readonly<Record<string, number>> | null {
    return null;
  }
}

/** An editor of one setting that its type does not suffice for; it plugs into a form by the name that the schema gives. */
export interface SpecialEditor {
  field: InputSignal<FormField>;
  /** Keys from the document's root. */
  keys: InputSignal<readonly string[]>;
  value: InputSignal<Json | undefined>;
  /** Takes a new value; tells what is wrong with it, or gives the empty text. */
  take: InputSignal<(value: Json | undefined) => string>;
}

export const SPECIAL_EDITORS = new InjectionToken<Readonly<Record<string, Type<SpecialEditor>>>>('editors of single settings, by name', {
  factory: () => ({}),
});

/** What a schema finds wrong with the whole that a setting would make, in sentences. */
export const refusalOf = (issues: readonly { message: string }[]): string =>
  issues
    .map(({ message }) => (message.startsWith('must ') ? `It ${message}.` : `${message.slice(0, 1).toUpperCase()}${message.slice(1)}.`))
    .join(' ');
