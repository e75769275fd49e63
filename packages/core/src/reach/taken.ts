import { parseFragment } from '../html/parse';
import { renderedText } from '../html/rendered-text';
import type { LedgerEntry } from '../ledger/entry';
import { groupEntries, type EntryGroup } from '../ledger/groups';
import type { GroupInBrief } from './groups';

/** What one rule did to a text in one step, told so that it can be kept after the text that it was done to is gone. */
export interface TakenLine extends Omit<GroupInBrief, 'origin'> {
  /** The profile that set the rule. */
  origin?: string | undefined;
  /** The words that went with it, as readers saw them, place by place; empty where none did. Cut after `LONGEST_WORDS`. */
  words: string;
  /** The source that stood at its first place. Cut after `LONGEST_SAMPLE`. */
  sample: string;
}

/** So many lines are kept of one step: what readers miss comes first. */
export const MOST_LINES = 200;
/** Letters of words, and of source, that are kept of a line. */
export const LONGEST_WORDS = 20_000;
export const LONGEST_SAMPLE = 300;
/** And of every other text: a name in markup may be as long as it likes. */
export const LONGEST_NAME = 500;
export const LONGEST_KEY = 2000;

/**
 * What a step did to a text, by rule, with the words that went.
 *
 * @param input the text that the ledger's offsets count in
 * @param ledger what was done to it
 * @returns what readers miss first; at most `MOST_LINES`
 */
export function takenLines(input: string, ledger: readonly LedgerEntry[]): TakenLine[] {
  return groupEntries(ledger)
    .slice(0, MOST_LINES)
    .map((group) => lineOf(input, ledger, group));
}

function lineOf(input: string, ledger: readonly LedgerEntry[], { places, origin, ...group }: EntryGroup): TakenLine {
  const { key, rule, element, attribute, property, after, hosts, names, details } = group;
  const name = (text: string): string => cut(text, LONGEST_NAME);
  return {
    ...group,
    key: cut(key, LONGEST_KEY),
    rule: name(rule),
    ...(origin === undefined ? {} : { origin: name(origin) }),
    element: name(element),
    attribute: name(attribute),
    property: name(property),
    after: name(after),
    hosts: hosts.map(name),
    names: names.map(name),
    details: details.map(name),
    places: places.length,
    words: group.textLost > 0 ? wordsAt(input, ledger, places) : '',
    sample: cut(ledger[places[0]!]!.before, LONGEST_SAMPLE),
  };
}

/** The words that went at some places of a text, in order. What stands in another of the places is told once. */
function wordsAt(input: string, ledger: readonly LedgerEntry[], places: readonly number[]): string {
  const words: string[] = [];
  let [length, end] = [0, 0];
  for (const entry of places.map((place) => ledger[place]!).sort((one, other) => one.start - other.start || other.end - one.end)) {
    if (entry.textLost <= 0 || (entry.end <= end && entry.start < end)) continue;
    end = Math.max(end, entry.end);
    const text = wordsOf(input, entry);
    if (text === '') continue;
    words.push(text);
    length += text.length + 1;
    if (length > LONGEST_WORDS) break;
  }
  return cut(words.join('\n'), LONGEST_WORDS);
}

function wordsOf(input: string, { start, end, subject }: LedgerEntry): string {
  if (subject.kind === 'attribute' || subject.kind === 'property') return subject.value ?? '';
  const source = input.slice(start, end);
  // Without a table a row is nothing but its words, in a row.
  return (subject.kind === 'text' ? source : renderedText(parseFragment(source).root)).replace(/[\s\u00a0]+/g, ' ').trim();
}

function cut(text: string, most: number): string {
  if (text.length <= most) return text;
  // Half a character is nothing that can be kept.
  const isHalf = /[\ud800-\udbff]/.test(text[most - 2]!);
  return `${text.slice(0, most - (isHalf ? 2 : 1))}…`;
}
