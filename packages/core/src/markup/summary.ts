import type { Authority } from '../ledger/ledger';
import { ELEMENT_CATALOGUE } from './catalogue';
import type { CompiledElement, CompiledRules, Outcome } from './compiled';
import { headingTarget } from './headings';

/** What becomes of one element, as data. */
export interface ElementSummary {
  outcome: Outcome;
  /** The name under which it stays. */
  name: string;
  by: Authority;
  /** What the policy for headings makes of it where that is the same in every document; null where it does nothing. */
  becomes: string | null;
  /** The attributes that may stay on it; none where it does not stay. */
  attributes: readonly string[];
}

/** What compiled rules come to, as data: it can be sent to a screen, which shows it without compiling anything. */
export interface RulesSummary {
  elements: Readonly<Record<string, ElementSummary>>;
  /** Who decides what becomes of headings as a whole; null where the rule of each level does. */
  headings: Authority | null;
  /** The settings in whose place something of the house limits holds (RFC 6901). */
  capped: readonly string[];
}

const CATALOGUED: readonly string[] = ELEMENT_CATALOGUE.flatMap(({ elements }) => elements.map(({ name }) => name));

/**
 * Sums up compiled rules.
 *
 * @param names elements of which to tell beside those of HTML
 */
export function summarizeRules(rules: CompiledRules, names: Iterable<string> = []): RulesSummary {
  const { comments, nesting, elements, letters, headings, ids, hardSpaces, emptyParagraphs } = rules;
  const all = new Set([...CATALOGUED, ...names]);
  return {
    elements: Object.fromEntries([...all].map((name) => [name, elementSummary(name, rules.element(name), rules)])),
    headings: headings?.by ?? null,
    capped: [comments, nesting, elements, letters, headings, ids, hardSpaces, emptyParagraphs].flatMap((setting) =>
      setting?.by.layer === 'house-limits' ? [setting.by.rule] : [],
    ),
  };
}

function elementSummary(name: string, { outcome, name: target, by, attributes }: CompiledElement, rules: CompiledRules): ElementSummary {
  return {
    outcome,
    name: target,
    by,
    becomes: /^h[1-6]$/.test(name) ? headingTarget(name, rules) : null,
    attributes: outcome === 'keep' ? [...attributes.keys()] : [],
  };
}
