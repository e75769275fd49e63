import nspell from 'nspell';

/** A dictionary with the site's own words beside those of its files. */
export interface Speller {
  knows(word: string): boolean;
  /** Words that may have been meant, the likeliest first. */
  suggest(word: string): string[];
  add(word: string): void;
  remove(word: string): void;
}

/**
 * Makes a dictionary of the two files of a Hunspell dictionary.
 *
 * @param words further words that it is to know
 */
export function makeSpeller(aff: string, dic: string, words: readonly string[] = []): Speller {
  const spell = nspell(aff, dic);
  for (const word of words) spell.add(word);
  return {
    knows: (word) => spell.correct(word),
    suggest: (word) => spell.suggest(word),
    add: (word) => void spell.add(word),
    remove: (word) => void spell.remove(word),
  };
}

/**
 * Makes a dictionary for closing hyphens, of the two files of a Hunspell dictionary.
 *
 * @returns whether a word (in lower case) is known; words of fewer than three letters never are
 */
export function makeDictionary(aff: string, dic: string): (word: string) => boolean {
  const speller = makeSpeller(aff, dic);
  return (word) => word.length > 2 && speller.knows(word);
}
