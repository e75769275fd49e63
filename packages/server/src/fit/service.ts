import {
  compiledFit,
  compileRules,
  FitCorpus,
  grantsOf,
  isWhole,
  needsOf,
  needsOfFeature,
  parseFragment,
  weightOfNeed,
  Wholeness,
  type CompiledRules,
  type CompileOptions,
  type FitStep,
  type FitWay,
  type HouseLimits,
  type JsonObject,
  type NeedWithValue,
} from '@typikon/core';
import type { Sequelize } from 'sequelize';
import { lastEdition, resolveChain } from '../editions/repository';
import { houseLimits, stateOfHouse } from '../rules';
import { DocumentModel } from '../db/document-models';
import { heldFeatures, heldTexts, markupOf, type HeldFeature, type HeldText, type Whose } from '../features/held';
import { stateOfTexts } from '../features/state';

/** So many texts are named for a step. */
const MOST_SAMPLES = 3;
/** So long texts are cleaned for the present profile, in milliseconds; after it the number is estimated. */
const LONGEST_MS = 2500;

export interface PresentFit {
  profile: string;
  edition: number;
  risk: number;
  rules: number;
  whole: number;
  kept: number;
  /** Null where it is counted. */
  estimate: { least: number; most: number; cleaned: number; open: number } | null;
}

export interface ToldFit {
  texts: number;
  most: number;
  steps: (FitStep & { samples: { document: string; field: string; title: string }[] })[];
  present: PresentFit | null;
}

/** A way that was found, with the texts that it is for. */
interface Found {
  key: string;
  texts: readonly HeldText[];
  features: ReadonlyMap<number, HeldFeature>;
  way: FitWay;
}

/** The last way that was found, for whoever opens one of its steps. */
let kept: Found | null = null;

/** The least rules that keep stored texts whole, from what the index says of them. */
export class FitService {
  constructor(private readonly sequelize: Sequelize) {}

  /** @returns null where there is no such profile */
  async look(whose: Whose): Promise<ToldFit | null> {
    const beside = whose.profile ?? whose.beside;
    const edition = beside === undefined ? null : await lastEdition(beside);
    if (beside !== undefined && edition === null) return null;
    const { texts, features, way } = await this.find(whose);
    const samples = way.samples(MOST_SAMPLES).map((numbers) => numbers.map((at) => texts[at]!));
    const ids = samples.flat().map(({ document }) => document);
    const named = await DocumentModel.findAll({ where: { id: ids }, attributes: ['id', 'title'], raw: true });
    const titles = new Map(named.map(({ id, title }) => [id, title]));
    const present = edition === null ? null : await this.present(edition, texts, features);
    return {
      texts: texts.length,
      most: way.most,
      steps: way.steps.map((step, at) => ({
        ...step,
        samples: samples[at]!.map(({ document, field }) => ({ document, field, title: titles.get(document) ?? document })),
      })),
      present,
    };
  }

  /** The profile of one step; null where the way has none. */
  async profileAt(whose: Whose, step: number, name: string): Promise<{ document: JsonObject; whole: number; texts: number } | null> {
    const { texts, way } = await this.find(whose);
    const of = way.steps[step];
    return of === undefined ? null : { document: way.at(step, name), whole: of.whole, texts: texts.length };
  }

  private async find(whose: Whose): Promise<Found> {
    const key = JSON.stringify([{ ...whose, beside: '' }, await stateOfHouse(), await stateOfTexts(this.sequelize, null)]);
    if (kept?.key === key) return kept;
    const texts = await heldTexts(this.sequelize, whose);
    const features = await heldFeatures(this.sequelize, texts);
    for (const text of texts) text.isKnown &&= text.features.every((id) => features.get(id)?.isCut === false);
    const corpus = await this.corpusOf(texts, features);
    const everything = corpus.everything('Everything');
    const judge = new Judge((above) => compiledFit(everything, above), await houseLimits(), features);
    const open: { text: HeldText; at: number }[] = [];
    texts.forEach((text, at) => {
      const verdict = judge.of(text);
      if (verdict === 'open') open.push({ text, at });
      else corpus.settle(at, verdict === 'whole');
    });
    for await (const [{ text, at }, html] of markupOf(
      this.sequelize,
      open.map((one) => ({ ...one, document: one.text.document, field: one.text.field })),
    ))
      corpus.settle(at, isWhole(html, judge.rulesFor(text.role)));
    kept = { key, texts, features, way: corpus.way() };
    return kept;
  }

  /** The texts by what they need, in their order; those of which the index does not know all are read. */
  private async corpusOf(texts: readonly HeldText[], features: ReadonlyMap<number, HeldFeature>): Promise<FitCorpus> {
    const needs = new Map([...features].map(([id, feature]): [number, NeedWithValue[]] => [id, [...needsOfFeature(feature)]]));
    const unknown = texts.filter(({ isKnown }) => !isKnown);
    const read = new Map<HeldText, NeedWithValue[]>();
    for await (const [text, html] of markupOf(this.sequelize, unknown)) read.set(text, [...needsOf(parseFragment(html).root)]);
    const corpus = new FitCorpus();
    for (const text of texts) corpus.add(read.get(text) ?? everyNeed(text.features, needs));
    return corpus;
  }

  /** How many of the texts the last edition of a profile keeps whole: counted, or estimated where it would take too long. */
  private async present(
    { profileId, number, chain }: { profileId: string; number: number; chain: Parameters<typeof resolveChain>[0] },
    texts: readonly HeldText[],
    features: ReadonlyMap<number, HeldFeature>,
  ): Promise<PresentFit | null> {
    const resolution = resolveChain(chain);
    if (!resolution.ok) return null;
    const grants = grantsOf(resolution.resolved);
    const judge = new Judge((above) => compileRules(resolution.resolved, above), await houseLimits(), features);
    const open: HeldText[] = [];
    let whole = 0;
    for (const text of texts) {
      const verdict = judge.of(text);
      if (verdict === 'open') open.push(text);
      else if (verdict === 'whole') whole++;
    }
    const begin = performance.now();
    let [cleaned, among] = [0, 0];
    for await (const [{ role }, html] of markupOf(this.sequelize, shuffled(open))) {
      if (isWhole(html, judge.rulesFor(role))) among++;
      cleaned++;
      if (performance.now() - begin > LONGEST_MS) break;
    }
    const told = whole + (cleaned === 0 ? 0 : Math.round((open.length * among) / cleaned));
    return {
      profile: profileId,
      edition: number,
      risk: grants.reduce((sum, grant) => sum + weightOfNeed(grant), 0),
      rules: grants.length,
      whole: told,
      kept: texts.length === 0 ? 1 : told / texts.length,
      estimate:
        cleaned === open.length ? null : { least: whole + among, most: whole + among + open.length - cleaned, cleaned, open: open.length },
    };
  }
}

function* everyNeed(features: Iterable<number>, needs: ReadonlyMap<number, readonly NeedWithValue[]>): Generator<NeedWithValue> {
  for (const id of features) yield* needs.get(id)!;
}

/** Tells by what texts hold whether rules keep them whole. */
class Judge {
  private readonly byRole = new Map<string, { rules: CompiledRules; wholeness: Wholeness; verdicts: Map<number, string> }>();

  constructor(
    private readonly compile: (above: CompileOptions) => CompiledRules,
    private readonly house: HouseLimits | undefined,
    private readonly features: ReadonlyMap<number, HeldFeature>,
  ) {}

  rulesFor(role: string): CompiledRules {
    return this.for(role).rules;
  }

  of(text: HeldText): 'whole' | 'not' | 'open' {
    if (!text.isKnown) return 'open';
    if (!text.isWholeByItself) return 'not';
    const { wholeness, verdicts } = this.for(text.role);
    let isOpen = !text.isSameByItself || wholeness.isOpen(text);
    for (const id of text.features) {
      let verdict = verdicts.get(id);
      if (verdict === undefined) verdicts.set(id, (verdict = wholeness.ofFeature(this.features.get(id)!)));
      if (verdict === 'takes') return 'not';
      isOpen ||= verdict === 'open';
    }
    return isOpen ? 'open' : 'whole';
  }

  private for(role: string) {
    let of = this.byRole.get(role);
    if (of === undefined) {
      const rules = this.compile({ ...(this.house === undefined ? {} : { house: this.house }), ...(role === '' ? {} : { role }) });
      this.byRole.set(role, (of = { rules, wholeness: new Wholeness(rules), verdicts: new Map() }));
    }
    return of;
  }
}

/** In an order that has nothing to do with what they say, the same each time. */
function shuffled(texts: readonly HeldText[]): HeldText[] {
  const mixed = [...texts];
  let state = 1;
  for (let at = mixed.length - 1; at > 0; at--) {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    const other = state % (at + 1);
    [mixed[at], mixed[other]] = [mixed[other]!, mixed[at]!];
  }
  return mixed;
}
