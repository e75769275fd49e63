import { linkedSignal, type Signal, type WritableSignal } from '@angular/core';

/** What is typed in a row is asked once, in milliseconds. */
const PAUSE_MS = 200;

/** Words that are typed, and asked for through the address once nobody types any more. */
export interface TypedWords {
  /** What stands in the field. */
  text: Signal<string>;
  type(text: string): void;
}

/**
 * Words of a field that the address keeps. What comes back by the address does not write over what is being typed: a space at the
 * end is not in it, nor what was typed since.
 *
 * @param words as the address has them
 * @param ask puts words into the address
 */
export function typedWords(words: Signal<string | undefined>, ask: (words: string) => void): TypedWords {
  let asked: string | null = null;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const text: WritableSignal<string> = linkedSignal<string, string>({
    source: () => words() ?? '',
    computation: (now, before) => {
      if (before !== undefined && now === asked) return before.value;
      // Somebody went elsewhere: going back to what was asked once is no answer to what is typed.
      asked = null;
      return now;
    },
  });
  return {
    text: text.asReadonly(),
    type(typed) {
      text.set(typed);
      clearTimeout(timer);
      timer = setTimeout(() => {
        asked = typed.trim();
        ask(asked);
      }, PAUSE_MS);
    },
  };
}
