import nspell from 'nspell';

/**
 * Makes a dictionary for closing hyphens, of the two files of a Hunspell dictionary.
 *
 * @returns whether a word (in lower case) is known; words of fewer than three letters never are
 */
export function makeDictionary(aff: string, dic: string): (word: string) => boolean {
  const spell = nspell(aff, dic);
  return (word) => word.length > 2 && spell.correct(word);
}
