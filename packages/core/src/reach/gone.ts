import { diffArrays } from 'diff';
import { parseFragment } from '../html/parse';
import { renderedText, renderedWords } from '../html/rendered-text';
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

/** A stretch of a text beside another: in both, only in the one before, or only in the one after. */
export interface TextChange {
  kind: 'same' | 'gone' | 'new';
  text: string;
}

/**
 * Two texts side by side, told as one: what they share, what went and what came, in the order in which a reader meets it.
 *
 * @param way `words`: as readers see them; `source`: the markup, tag by tag and word by word
 * @returns null where they differ in so much that they can only stand beside each other
 */
export function textChanges(before: string, after: string, way: 'words' | 'source'): TextChange[] | null {
  const [one, other] = [before, after].map((html) => partsOf(html, way)) as [string[], string[]];
  const changes = diffArrays(one, other, { maxEditLength: MOST_DIFFERENCES });
  return changes === undefined ? null : togetherIn(changes, way === 'words');
}

/** A word with the space behind it, so that what is changed stands together; of markup also each tag. */
const partsOf = (html: string, way: 'words' | 'source'): string[] =>
  way === 'words'
    ? (renderedText(parseFragment(html).root).match(/\s*\S+\s*|\s+/g) ?? [])
    : (html.match(/<[^<>]*>|[^\s<>]+\s*|\s+|[<>]/g) ?? []);

/** So few words that both share between two changes are no more than chance. */
const FEW = 2;
const SHORT = 12;

/** Changes with what is shared by chance among them: what went as a whole, then what came. */
function togetherIn(changes: readonly { added: boolean; removed: boolean; value: string[] }[], isOfWords: boolean): TextChange[] {
  const told: TextChange[] = [];
  let [gone, come] = ['', ''];
  const end = (): void => {
    if (gone !== '') told.push({ kind: 'gone', text: gone });
    if (come !== '') told.push({ kind: 'new', text: come });
    [gone, come] = ['', ''];
  };
  changes.forEach(({ added, removed, value }, at) => {
    const text = value.join('');
    if (removed) gone += text;
    else if (added) come += text;
    else if (isOfWords && gone !== '' && come !== '' && isChance(value, text) && isBetweenBoth(changes, at)) {
      gone += text;
      come += text;
    } else {
      end();
      told.push({ kind: 'same', text });
    }
  });
  end();
  return told;
}

const isChance = (parts: readonly string[], text: string): boolean =>
  parts.length <= FEW && text.trim().length <= SHORT && !text.includes('\n');
/** Whether something went and something came behind it, too. */
const isBetweenBoth = (changes: readonly { added: boolean; removed: boolean }[], at: number): boolean => {
  const [next, then] = [changes[at + 1], changes[at + 2]];
  return (next?.removed === true && then?.added === true) || (next?.added === true && then?.removed === true);
};
