import type { CensusOfAll } from '@typikon/core';
import {
  ELEMENT_CATALOGUE,
  HIDDEN_ELEMENTS,
  arrangeToolbar,
  buttonOf,
  originOf,
  riskOfElement,
  toPointer,
  type ElementRule,
  type ElementSummary,
  type ResolvedProfile,
  type RulesSummary,
} from '@typikon/core/settings';
import type { RuleGroup, RuleRow } from '../../shared/rules/rule-table';
import type { Proof } from '../../state/types';

/** One element as the markup chapter shows it. */
export interface MarkupRow extends RuleRow {
  /** What becomes of it, all layers taken together. */
  outcome: 'kept' | 'capped' | 'floor' | 'gone';
  /** The rule as it stands in the resolved profile, if there is one. */
  rule: ElementRule | undefined;
  /** How often it occurs in the markup on the bench. */
  count: number;
  /** How many of the ledger's entries are about it. */
  changes: number;
  /** How often it occurs in all stored documents. */
  stored: number;
  setBy: string;
  /** Whether a layer above every profile decides. */
  isCapped: boolean;
  /** Whether this profile's own document says something about it. */
  isHere: boolean;
  /** Whether there is a parent to follow again. */
  canReset: boolean;
  neededBy: string[];
}

export type MarkupGroup = RuleGroup<MarkupRow>;

/** Of an element that has just turned up nothing is known yet; no rule names it. */
const UNKNOWN: ElementSummary = { outcome: 'unwrap', name: '', by: { layer: 'profile', rule: '' }, becomes: null, attributes: [] };

const ruleOf = ({ profile }: ResolvedProfile, name: string): ElementRule | undefined =>
  Object.hasOwn(profile.markup.elements, name) ? profile.markup.elements[name] : undefined;
const allows = (rule: ElementRule | undefined): boolean => rule !== undefined && (rule.outcome ?? 'keep') === 'keep';

/**
 * Works out the rows of the markup chapter, by meaning. Elements that only a rule or the sample knows come in a last group.
 *
 * @param summarized the state of the profile that the summary is of; the draft may be ahead of it
 */
export function markupGroups(
  resolved: ResolvedProfile,
  summary: RulesSummary,
  summarized: ResolvedProfile,
  proof: Proof | null,
  names: ReadonlyMap<string, string>,
  census: CensusOfAll | null = null,
): MarkupGroup[] {
  const known = new Set(ELEMENT_CATALOGUE.flatMap(({ elements }) => elements.map(({ name }) => name)));
  const others = [
    ...new Set([
      ...Object.keys(resolved.profile.markup.elements),
      ...Object.keys(proof?.census.elements ?? {}),
      ...Object.keys(census?.elements ?? {}),
    ]),
  ]
    .filter((name) => !known.has(name))
    .sort();
  const changes = changesByElement(proof);
  const needs = buttonsByElement(resolved);
  const row = ({ name, meaning }: { name: string; meaning: string }): MarkupRow => {
    const rule = ruleOf(resolved, name);
    const compiled = Object.hasOwn(summary.elements, name) ? summary.elements[name]! : UNKNOWN;
    const isAllowed = allows(rule);
    const pointer = toPointer(['markup', 'elements', name]);
    const origin = originOf(resolved.chain, pointer);
    const target = compiled.becomes;
    const policy = target === null ? null : summary.headings;
    // A rule that was just changed: what comes of it is being worked out.
    const isOpen = isAllowed !== allows(ruleOf(summarized, name));
    const outcome =
      compiled.by.layer === 'safety-floor'
        ? 'floor'
        : isOpen
          ? 'gone'
          : compiled.outcome === 'keep' && compiled.name === name
            ? 'kept'
            : isAllowed
              ? 'capped'
              : 'gone';
    return {
      name,
      meaning,
      outcome,
      isAllowed,
      isFixed: outcome === 'floor',
      rule,
      summary:
        isOpen && outcome !== 'floor' ? '…' : target === null ? summaryOf(name, outcome, rule, compiled.outcome) : `becomes ${target}`,
      attributes: outcome === 'kept' ? Object.keys(rule?.attributes ?? {}) : [],
      count: proof?.census.elements[name] ?? 0,
      changes: changes.get(name) ?? 0,
      stored: census?.elements[name] ?? 0,
      risk: riskOfElement(name),
      setBy:
        outcome === 'floor'
          ? 'Safety floor'
          : policy !== null && policy.layer !== 'house-limits'
            ? policy.origin === resolved.id
              ? 'here'
              : (names.get(policy.origin ?? '') ?? '')
            : compiled.by.layer === 'house-limits' && !isOpen
              ? 'House limits'
              : origin === undefined
                ? 'no rule'
                : origin === resolved.id
                  ? 'here'
                  : (names.get(origin) ?? origin),
      isCapped: outcome === 'floor' || (!isOpen && (policy ?? compiled.by).layer === 'house-limits'),
      isHere: origin === resolved.id,
      canReset: origin === resolved.id && resolved.chain.length > 1,
      neededBy: needs.get(name) ?? [],
    };
  };
  const groups = ELEMENT_CATALOGUE.map(({ id, name, gloss, elements }) => ({ id, name, gloss, rows: elements.map(row) }));
  return others.length === 0
    ? groups
    : [
        ...groups,
        {
          id: 'others',
          name: 'Other names',
          gloss: 'not elements of HTML',
          rows: others.map((name) => row({ name, meaning: 'not an element of HTML' })),
        },
      ];
}

function summaryOf(name: string, outcome: MarkupRow['outcome'], rule: ElementRule | undefined, compiled: string): string {
  if (outcome === 'floor') return compiled === 'drop' ? 'always goes with its content' : 'always goes, its content stays';
  if (outcome === 'capped') return 'allowed here, but the house limits remove it';
  if (outcome === 'kept') return Object.keys(rule?.attributes ?? {}).length === 0 ? 'stays, without attributes of its own' : '';
  if (rule?.outcome === 'rename') return `becomes ${rule.to ?? 'nothing'}`;
  // What a hidden element holds was never shown, so it goes along.
  return compiled === 'drop' || (compiled === 'unwrap' && HIDDEN_ELEMENTS.has(name))
    ? 'goes with its content'
    : compiled === 'text'
      ? 'its tags are shown as text'
      : 'goes, its content stays';
}

function changesByElement(proof: Proof | null): Map<string, number> {
  const counts = new Map<string, number>();
  for (const { path } of proof?.ledger ?? []) {
    const name = path.slice(path.lastIndexOf(' ') + 1).replace(/:nth-child\(\d+\)$/, '');
    counts.set(name, (counts.get(name) ?? 0) + 1);
  }
  return counts;
}

/** For each element, the labels of the buttons on the toolbar that make it or need it. */
function buttonsByElement({ profile }: ResolvedProfile): ReadonlyMap<string, string[]> {
  const found = new Map<string, string[]>();
  for (const { label, needs } of arrangeToolbar(profile.toolbar).flatMap(({ buttons }) => buttons.map(buttonOf)))
    for (const element of new Set(needs(profile.toolbar.options).map((need) => need.element)))
      found.set(element, [...(found.get(element) ?? []), label]);
  return found;
}
