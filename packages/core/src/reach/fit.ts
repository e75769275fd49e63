import { parseFragment } from '../html/parse';
import { compileRules } from '../markup/compile';
import type { CompiledRules, CompileOptions } from '../markup/compiled';
import type { JsonObject } from '../profile/merge-patch';
import { resolveProfile } from '../profile/resolve';
import type { Group, Problem } from './closure';
import { isAllowable, leastProfile } from './least-profile';
import { keyOfNeed, needsOf, needWords, weightOfNeed, type Need } from './needs';
import { choicesOf, smallestFor, type Choice } from './smallest';
import { isWhole } from './whole';

/** One step from allowing nothing to allowing all that documents need. */
export interface FitStep {
  /** What it allows beside what the steps before do, in words that follow "Allow". */
  allows: string[];
  /** What all steps up to this one allow, weighed by risk. */
  risk: number;
  /** How many rules those are. */
  rules: number;
  /** Documents that are whole by then, and their share of all from 0 to 1. */
  whole: number;
  kept: number;
  /** Whether it is proven that nothing of less risk keeps as many whole. */
  isLeast: boolean;
}

/** The least rules that keep a share of documents whole. */
export interface Fit {
  /** The profile document. */
  profile: JsonObject;
  documents: number;
  /** Documents that are whole by the profile: counted by cleaning every one. */
  whole: number;
  /** Their share, from 0 to 1; less than asked for where the house limits and the safety floor allow no more. */
  kept: number;
  risk: number;
  rules: number;
  /** No rules whose risk is below this keep as many whole. */
  bound: number;
  /** How many documents any profile can keep whole. */
  most: number;
  /** From least privilege to everything. */
  curve: FitStep[];
}

export interface FitOptions extends CompileOptions {
  /** The share of the documents to keep whole, from 0 to 1. */
  keep: number;
  /** The name of the profile. */
  name?: string;
}

/**
 * Finds the least rules, weighed by risk, that keep a share of documents whole.
 *
 * @param documents gives the documents as they are stored, from the first to the last, whenever it is called; never trusted
 */
export function fitTo(documents: () => Iterable<string>, { keep, name = 'Least rules', ...above }: FitOptions): Fit {
  const corpus = new Corpus();
  for (const html of documents()) corpus.add(html);
  const everything = compiled(
    leastProfile(
      corpus.withValues(corpus.allNeeds(), () => true),
      name,
    ),
    above,
  );
  let number = 0;
  for (const html of documents()) corpus.settle(number++, isWhole(html, everything));
  const problem = corpus.problem();
  const choices = choicesOf(problem);
  const most = choices.at(-1)!.covered;
  const chosen = smallestFor(problem, choices, Math.min(most, Math.ceil(keep * number - 1e-9)));
  const profile = leastProfile(
    corpus.withValues(chosen.items, (at) => corpus.isCovered(at, chosen.items)),
    name,
  );
  const rules = compiled(profile, above);
  let whole = 0;
  for (const html of documents()) if (isWhole(html, rules)) whole++;
  return {
    profile,
    documents: number,
    whole,
    kept: share(whole, number),
    risk: chosen.weight,
    rules: chosen.items.size,
    bound: chosen.bound,
    most,
    curve: choices.map((choice, at) => stepOf(corpus, choice, choices[at - 1], number)),
  };
}

const share = (part: number, whole: number): number => (whole === 0 ? 1 : part / whole);

function stepOf(corpus: Corpus, { items, weight, covered, isLeast }: Choice, before: Choice | undefined, documents: number): FitStep {
  const allows = [...items].filter((item) => before?.items.has(item) !== true).map((item) => needWords(corpus.needs[item]!));
  return { allows, risk: weight, rules: items.size, whole: covered, kept: share(covered, documents), isLeast };
}

function compiled(profile: JsonObject, above: CompileOptions): CompiledRules {
  const resolution = resolveProfile('least', () => profile);
  if (!resolution.ok) throw new Error(resolution.problems.map(({ pointer, message }) => `${pointer}: ${message}`).join(' '));
  return compileRules(resolution.resolved, above);
}

/** Documents by what they need. */
class Corpus {
  readonly needs: Need[] = [];
  private readonly numbers = new Map<string, number>();
  /** By need, then by value: the documents that have it, each once. */
  private readonly values: Map<string, number[]>[] = [];
  private readonly documents: { needs: readonly number[]; isPossible: boolean }[] = [];

  add(html: string): void {
    const at = this.documents.length;
    const needs = new Set<number>();
    let isPossible = true;
    for (const { need, value } of needsOf(parseFragment(html).root)) {
      if (!isAllowable(need)) {
        isPossible = false;
        continue;
      }
      const number = this.numberOf(need);
      needs.add(number);
      if (value !== undefined) this.addValue(number, value, at);
    }
    this.documents.push({ needs: [...needs], isPossible });
  }

  /** Says whether a document is whole where all is allowed that any document needs. */
  settle(at: number, isWhole: boolean): void {
    this.documents[at]!.isPossible &&= isWhole;
  }

  allNeeds(): Set<number> {
    return new Set(this.needs.keys());
  }

  isCovered(at: number, items: ReadonlySet<number>): boolean {
    const { needs, isPossible } = this.documents[at]!;
    return isPossible && needs.every((need) => items.has(need));
  }

  /** Needs with the values that they have in some of the documents. */
  withValues(items: ReadonlySet<number>, isMeant: (at: number) => boolean) {
    const meant = this.documents.map((_, at) => isMeant(at));
    return [...items].map((item) => ({
      need: this.needs[item]!,
      values: [...this.values[item]!].filter(([, documents]) => documents.some((at) => meant[at])).map(([value]) => value),
    }));
  }

  problem(): Problem {
    const groups = new Map<string, { items: readonly number[]; count: number }>();
    for (const { needs, isPossible } of this.documents) {
      if (!isPossible) continue;
      const items = [...needs].sort((one, other) => one - other);
      const key = items.join(' ');
      const known = groups.get(key);
      if (known === undefined) groups.set(key, { items, count: 1 });
      else known.count++;
    }
    return { weights: this.needs.map(weightOfNeed), groups: [...groups.values()] satisfies Group[] };
  }

  private numberOf(need: Need): number {
    const key = keyOfNeed(need);
    let number = this.numbers.get(key);
    if (number === undefined) {
      this.numbers.set(key, (number = this.needs.length));
      this.needs.push(need);
      this.values.push(new Map());
    }
    return number;
  }

  private addValue(number: number, value: string, at: number): void {
    const of = this.values[number]!.get(value);
    if (of === undefined) this.values[number]!.set(value, [at]);
    else if (of[of.length - 1] !== at) of.push(at);
  }
}
