import type { ParentNode } from '../html/node';
import { renderedWords } from '../html/rendered-text';
import { visibleLetters } from '../html/text';
import { elementsOf } from '../html/transform';
import type { LedgerEntry } from '../ledger/entry';
import { clean } from '../markup/clean';
import type { CompiledRules } from '../markup/compiled';
import { missing } from './missing';

/** Things a reader would miss, beside words: how many of each are there by the one rules and not by the others. */
export interface ThingsLost {
  /** Pictures, by their `src`. */
  pictures: number;
  /** Links, by their `href`. */
  links: number;
  /** Frames, by their `src`. */
  frames: number;
}

/** What a change of rules does to one document that comes out differently. */
export interface DocumentReach {
  /** The document as the rules before leave it. */
  before: string;
  /** The same by the rules after. */
  after: string;
  /** Letters that readers see less of: UTF-16 units that are not white space. Never below 0. */
  textLost: number;
  /** Letters that readers see more of. One of the two is 0. */
  textGained: number;
  /** Words that are not seen any more, each as often as it is missing, in the order in which they stood. */
  wordsLost: string[];
  /** Words that are seen now and were not. */
  wordsGained: string[];
  lost: ThingsLost;
  gained: ThingsLost;
  /** What the rules after do to the document and those before do not, in the order of the document. */
  entries: LedgerEntry[];
  /** What the rules before do to it and those after do not. */
  settled: LedgerEntry[];
}

/**
 * Works out what a change of rules does to a document.
 *
 * @param html the document as it is stored; never trusted
 * @param from the rules before the change
 * @param to the rules after it
 * @returns null for a document that the change does not touch: one that comes out the same, to the letter
 */
export function reachOf(html: string, from: CompiledRules, to: CompiledRules): DocumentReach | null {
  const before = clean(html, from);
  const after = clean(html, to);
  if (before.html === after.html) return null;
  const [lettersBefore, lettersAfter] = [visibleLetters(before.root), visibleLetters(after.root)];
  const words = { before: renderedWords(before.root), after: renderedWords(after.root) };
  const things = { before: thingsIn(before.root), after: thingsIn(after.root) };
  return {
    before: before.html,
    after: after.html,
    textLost: Math.max(0, lettersBefore - lettersAfter),
    textGained: Math.max(0, lettersAfter - lettersBefore),
    wordsLost: missing(words.before, words.after),
    wordsGained: missing(words.after, words.before),
    lost: thingsMissing(things.before, things.after),
    gained: thingsMissing(things.after, things.before),
    entries: differing(after.ledger, before.ledger),
    settled: differing(before.ledger, after.ledger),
  };
}

/**
 * What one ledger says that the other does not. What was done to things inside of one that the other took as a whole, or to attributes
 * of one whose tag the other took, is no difference of its own.
 */
function differing(ledger: readonly LedgerEntry[], other: readonly LedgerEntry[]): LedgerEntry[] {
  const own = missing(ledger, other, deed);
  if (own.length === 0) return own;
  const taken = missing(other, ledger, deed)
    .filter(({ action, subject }) => (action === 'removed' || action === 'unwrapped') && subject.kind === 'element')
    .sort((one, next) => one.start - next.start);
  return own.filter((entry) => !isWithin(entry, taken[lastUpTo(taken, entry.start)]));
}

function isWithin({ start, end, subject }: LedgerEntry, taken: LedgerEntry | undefined): boolean {
  if (taken === undefined || start < taken.start) return false;
  if (subject.kind === 'attribute' || subject.kind === 'property') {
    const within = taken.action === 'removed' ? taken.end : taken.start + taken.before.length;
    return end <= within;
  }
  return taken.action === 'removed' && end <= taken.end && (start > taken.start || end < taken.end);
}

/** The place of the last entry that begins at an offset or before it; -1 where none does. */
function lastUpTo(entries: readonly LedgerEntry[], start: number): number {
  let [low, high] = [0, entries.length];
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (entries[middle]!.start <= start) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}

/** What an entry says was done, whoever did it: the same thing done by another rule is no difference to a document. */
const deed = ({ start, end, action, reason, subject, after }: LedgerEntry): string =>
  JSON.stringify([start, end, action, reason, subject.attribute ?? '', subject.property ?? '', after]);

type Things = Readonly<Record<keyof ThingsLost, readonly string[]>>;

const SOURCES: readonly [kind: keyof ThingsLost, element: string, attribute: string][] = [
  ['pictures', 'img', 'src'],
  ['links', 'a', 'href'],
  ['frames', 'iframe', 'src'],
];

function thingsIn(root: ParentNode): Things {
  const things: Record<keyof ThingsLost, string[]> = { pictures: [], links: [], frames: [] };
  for (const node of elementsOf(root))
    for (const [kind, element, attribute] of SOURCES) {
      const value = node.name === element ? node.attribute(attribute) : undefined;
      if (value !== undefined) things[kind].push(value);
    }
  return things;
}

const thingsMissing = (before: Things, after: Things): ThingsLost => ({
  pictures: missing(before.pictures, after.pictures).length,
  links: missing(before.links, after.links).length,
  frames: missing(before.frames, after.frames).length,
});
