import { parseFragment } from '../html/parse';
import { renderedWords } from '../html/rendered-text';
import type { LedgerEntry } from '../ledger/entry';
import { clean, cleanWithoutLedger } from '../markup/clean';
import type { CompiledElement, CompiledRules, Demands } from '../markup/compiled';
import { missing } from '../reach/missing';

/** What a move of a stored text to another profile would do to it. */
export interface Move {
  /** The text as it is shown now: cleaned by the profile that it has. */
  before: string;
  /** The text as the other profile would leave it. */
  after: string;
  /** What the other profile would change or take, one entry for each thing. */
  ledger: LedgerEntry[];
  /** Words that readers would not see any more, in the order in which they stand. */
  wordsLost: string[];
  /** The text as far as it fits: what the other profile has no room for goes, but its words stay. */
  fitting: string;
  /** Words that go all the same, since their number is limited. */
  wordsLostFitting: string[];
}

/**
 * Works out what a move of a text to another profile would take, before anything happens.
 *
 * @param html the text as it is stored
 * @param from the rules of the profile that it has
 * @param to the rules of the profile to which it would be moved
 */
export function moveText(html: string, from: CompiledRules, to: CompiledRules): Move {
  const before = cleanWithoutLedger(html, from);
  const { html: after, ledger } = clean(before, to);
  const fitting = fitText(before, to);
  return { before, after, ledger, wordsLost: lostWords(before, after), fitting, wordsLostFitting: lostWords(before, fitting) };
}

/** Cleans markup so that the rules change nothing more of it, and the words of whatever they would drop stay where they can. */
export function fitText(html: string, rules: CompiledRules): string {
  return cleanWithoutLedger(cleanWithoutLedger(html, keepingWords(rules)), rules);
}

/** The words that a reader sees in one text and no more in another, each as often as it is missing. */
export function lostWords(before: string, after: string): string[] {
  return missing(wordsOf(before), wordsOf(after));
}

const wordsOf = (html: string): string[] => renderedWords(parseFragment(html).root);

/** The same rules, but what they drop is unwrapped. The safety floor stays as it is: what it drops holds no words of readers. */
function keepingWords(rules: CompiledRules): CompiledRules {
  return { ...rules, element: (name) => unwrapping(rules.element(name)), letters: null };
}

function unwrapping(element: CompiledElement): CompiledElement {
  const { outcome, by, demands } = element;
  const gentler = outcome === 'drop' && by.layer !== 'safety-floor' ? 'unwrap' : outcome;
  return { ...element, outcome: gentler, demands: demands === null ? null : unwrappingDemands(demands) };
}

function unwrappingDemands(demands: Demands): Demands {
  const gentler = <Otherwise extends string>(otherwise: Otherwise): Otherwise | 'unwrap' => (otherwise === 'drop' ? 'unwrap' : otherwise);
  return {
    ...demands,
    anyOf: demands.anyOf.map((one) => ({ ...one, otherwise: gentler(one.otherwise) as 'unwrap' })),
    required: demands.required.map((one) => ({ ...one, otherwise: gentler(one.otherwise) as 'unwrap' | 'add' })),
  };
}
