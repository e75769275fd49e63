import { diffArrays } from 'diff';
import { parseFragment } from '../html/parse';
import { renderedWords } from '../html/rendered-text';
import { missing } from './missing';

/** Texts that differ in more words than this are not told word by word: it would take too long. */
const MOST_DIFFERENCES = 2000;

/**
 * The words that readers see of one text and not of another, as they stood together.
 *
 * @param before clean markup
 * @param after clean markup
 * @param explained words of which it is known how they went; each is left out as often as it is in here
 * @returns phrases in the order in which they stood. All of them together have each word as often as it is missing
 */
export function phrasesGone(before: string, after: string, explained: readonly string[] = []): string[] {
  if (before === after) return [];
  const [words, then] = [before, after].map((html) => renderedWords(parseFragment(html).root)) as [string[], string[]];
  const gone = missing(missing(words, then), explained);
  if (gone.length === 0) return [];
  const left = new Map<string, number>();
  for (const word of gone) left.set(word, (left.get(word) ?? 0) + 1);
  const take = (word: string): boolean => {
    const count = left.get(word) ?? 0;
    if (count > 0) left.set(word, count - 1);
    return count > 0;
  };
  const phrases: string[] = [];
  for (const { removed, value } of diffArrays(words, then, { maxEditLength: MOST_DIFFERENCES }) ?? []) {
    if (!removed) continue;
    const phrase = value.filter(take).join(' ');
    if (phrase !== '') phrases.push(phrase);
  }
  // What stands elsewhere now, and once less; or all, where there are too many differences.
  const rest = gone.filter(take).join(' ');
  return rest === '' ? phrases : [...phrases, rest];
}
