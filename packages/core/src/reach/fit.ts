import { parseFragment } from '../html/parse';
import { compileRules } from '../markup/compile';
import type { CompiledRules, CompileOptions } from '../markup/compiled';
import type { JsonObject } from '../profile/merge-patch';
import { resolveProfile } from '../profile/resolve';
import type { Group, Problem } from './closure';
import { isAllowable, leastProfile } from './least-profile';
import { keyOfNeed, needsOf, needWords, weightOfNeed, type Need, type NeedWithValue } from './needs';
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

/** The way from least privilege to everything. */
export interface FitWay {
  /** How many documents any profile can keep whole. */
  most: number;
  steps: FitStep[];
  /** The least profile that is found for a share of the documents, from 0 to 1, and what is known of it. */
  keeping(keep: number, name: string): { profile: JsonObject; risk: number; rules: number; whole: number; bound: number };
  /** The profile of one step: it allows what all steps up to it do. */
  at(step: number, name: string): JsonObject;
  /** For each step some of the documents that are whole by it and not by the one before, by their numbers. */
  samples(most: number): number[][];
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
  const corpus = new FitCorpus();
  for (const html of documents()) corpus.add(needsOf(parseFragment(html).root));
  const everything = compiledFit(corpus.everything(name), above);
  let number = 0;
  for (const html of documents()) corpus.settle(number++, isWhole(html, everything));
  const way = corpus.way();
  const { profile, ...chosen } = way.keeping(keep, name);
  const rules = compiledFit(profile, above);
  let whole = 0;
  for (const html of documents()) if (isWhole(html, rules)) whole++;
  return {
    profile,
    documents: number,
    whole,
    kept: share(whole, number),
    risk: chosen.risk,
    rules: chosen.rules,
    bound: chosen.bound,
    most: way.most,
    curve: way.steps,
  };
}

const share = (part: number, whole: number): number => (whole === 0 ? 1 : part / whole);

/** Compiles a profile that was made by a fit. */
export function compiledFit(profile: JsonObject, above: CompileOptions): CompiledRules {
  const resolution = resolveProfile('least', () => profile);
  if (!resolution.ok) throw new Error(resolution.problems.map(({ pointer, message }) => `${pointer}: ${message}`).join(' '));
  return compileRules(resolution.resolved, above);
}

/** Of what no rule can be written for. */
const NEVER = -1;

/** Documents by what they need. */
export class FitCorpus {
  private readonly needs: Need[] = [];
  private readonly numbers = new Map<string, number>();
  /** The same for needs that are told by the same object again. */
  private readonly known = new WeakMap<Need, number>();
  /** By need, then by value: the documents that have it, each once. */
  private readonly values: Map<string, number[]>[] = [];
  private readonly documents: { needs: readonly number[]; isPossible: boolean }[] = [];

  /** How many documents there are. */
  get size(): number {
    return this.documents.length;
  }

  /** Adds a document by what it needs, each thing once or more often; documents are numbered in this order, from 0. */
  add(needed: Iterable<NeedWithValue>): void {
    const at = this.documents.length;
    const needs = new Set<number>();
    let isPossible = true;
    for (const { need, value } of needed) {
      const number = this.known.get(need) ?? this.numberOf(need);
      if (number === NEVER) {
        isPossible = false;
        continue;
      }
      needs.add(number);
      if (value !== undefined) this.addValue(number, value, at);
    }
    this.documents.push({ needs: [...needs], isPossible });
  }

  /** Says whether a document is whole where all is allowed that any document needs. */
  settle(at: number, isWhole: boolean): void {
    this.documents[at]!.isPossible &&= isWhole;
  }

  /** Whether any rules can keep a document whole, as far as is known. */
  isPossible(at: number): boolean {
    return this.documents[at]!.isPossible;
  }

  /** A profile that allows all that any document needs. */
  everything(name: string): JsonObject {
    return leastProfile(
      this.withValues(new Set(this.needs.keys()), () => true),
      name,
    );
  }

  /** The way from allowing nothing to allowing all, once every document is settled. */
  way(): FitWay {
    const problem = this.problem();
    const choices = choicesOf(problem);
    const most = choices.at(-1)!.covered;
    return {
      most,
      steps: choices.map((choice, at) => this.stepOf(choice, choices[at - 1])),
      keeping: (keep, name) => {
        const wanted = Math.min(most, Math.ceil(keep * this.size - 1e-9));
        const { items, weight, covered, bound } = smallestFor(problem, choices, wanted);
        return { profile: this.profileOf(items, name), risk: weight, rules: items.size, whole: covered, bound };
      },
      at: (step, name) => this.profileOf(choices[step]!.items, name),
      samples: (most) => this.samples(choices, most),
    };
  }

  private profileOf(items: ReadonlySet<number>, name: string): JsonObject {
    return leastProfile(
      this.withValues(items, (at) => this.isCovered(at, items)),
      name,
    );
  }

  private isCovered(at: number, items: ReadonlySet<number>): boolean {
    const { needs, isPossible } = this.documents[at]!;
    return isPossible && needs.every((need) => items.has(need));
  }

  private samples(choices: readonly Choice[], most: number): number[][] {
    const first = new Map<number, number>();
    choices.forEach(({ items }, step) => {
      for (const item of items) if (!first.has(item)) first.set(item, step);
    });
    const samples: number[][] = choices.map(() => []);
    this.documents.forEach(({ needs, isPossible }, at) => {
      const step = needs.reduce((last, need) => Math.max(last, first.get(need) ?? Infinity), 0);
      if (isPossible && step < samples.length && samples[step]!.length < most) samples[step]!.push(at);
    });
    return samples;
  }

  private stepOf({ items, weight, covered, isLeast }: Choice, before: Choice | undefined): FitStep {
    const allows = [...items].filter((item) => before?.items.has(item) !== true).map((item) => needWords(this.needs[item]!));
    return { allows, risk: weight, rules: items.size, whole: covered, kept: share(covered, this.size), isLeast };
  }

  /** Needs with the values that they have in some of the documents. */
  private withValues(items: ReadonlySet<number>, isMeant: (at: number) => boolean) {
    const meant = this.documents.map((_, at) => isMeant(at));
    return [...items].map((item) => ({
      need: this.needs[item]!,
      values: [...this.values[item]!].filter(([, documents]) => documents.some((at) => meant[at])).map(([value]) => value),
    }));
  }

  private problem(): Problem {
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
      this.numbers.set(key, (number = isAllowable(need) ? this.needs.length : NEVER));
      if (number !== NEVER) {
        this.needs.push(need);
        this.values.push(new Map());
      }
    }
    this.known.set(need, number);
    return number;
  }

  private addValue(number: number, value: string, at: number): void {
    const of = this.values[number]!.get(value);
    if (of === undefined) this.values[number]!.set(value, [at]);
    else if (of[of.length - 1] !== at) of.push(at);
  }
}
