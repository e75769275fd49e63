import type { CompiledRules, Demands } from '../markup/compiled';
import { STRUCTURE, type AttributeFeature } from './features';
import { isEverybodys } from './needs';
import { Wholeness, type WholeFeatures } from './verdict';

/** What a change of rules does to a document: it comes out differently, or the same; or that has to be seen by cleaning it. */
export type Certainty = 'touched' | 'same' | 'open';

/** What a change does to one thing that documents hold; of a document that holds several, all of it. */
export type Effects = number;

/** The rules before keep it as it is, those after take it from every document. */
const LOSES = 1;
/** The other way round. */
const GAINS = 2;
/** By the rules before, what stands in it may go with it, or something else may come to be called as it is. */
const FELLS_BEFORE = 4;
/** The same by the rules after. */
const FELLS_AFTER = 8;
/** One of both may do something to it. */
const CHANGES = 16;

/**
 * Tells by what documents hold whether a change of rules touches them, for documents that come out the same by rules that allow what
 * they hold (see {@link byItself}).
 *
 * The reason: what one side keeps as it is stands in its result, where nothing that may hold it goes with what it holds; what the
 * other side takes from every document stands in none of its results. Where both keep everything as it is, both leave the document.
 */
export class CertainReach {
  private readonly before: Wholeness;
  private readonly after: Wholeness;
  private readonly isWrittenAlike: boolean;

  constructor(
    private readonly from: CompiledRules,
    private readonly to: CompiledRules,
  ) {
    this.before = new Wholeness(from);
    this.after = new Wholeness(to);
    this.isWrittenAlike =
      from.output.layout === to.output.layout && from.output.characters === to.output.characters && from.comments.keep === to.comments.keep;
  }

  /** @param feature one thing of those that `everyFeature` gives */
  ofFeature(feature: AttributeFeature): Effects {
    const [before, after] = [this.before.ofFeature(feature), this.after.ofFeature(feature)];
    let effects = before === 'keeps' && after === 'keeps' ? 0 : CHANGES;
    if (after === 'takes' && (before === 'keeps' || stands(this.from, feature))) effects |= LOSES;
    if (before === 'takes' && (after === 'keeps' || stands(this.to, feature))) effects |= GAINS;
    if (feature.attribute !== '' && feature.attribute !== STRUCTURE.bare) return effects;
    if (mayFell(this.from, feature.element)) effects |= FELLS_BEFORE;
    if (mayFell(this.to, feature.element)) effects |= FELLS_AFTER;
    return effects;
  }

  /** @param effects of all that the document holds, together */
  of(effects: Effects, whole: WholeFeatures): Certainty {
    if ((effects & LOSES) !== 0 && (effects & FELLS_BEFORE) === 0 && !this.before.isOpen(whole)) return 'touched';
    if ((effects & GAINS) !== 0 && (effects & FELLS_AFTER) === 0 && !this.after.isOpen(whole)) return 'touched';
    const isKept = (effects & CHANGES) === 0 && this.isWrittenAlike && !this.before.isOpen(whole) && !this.after.isOpen(whole);
    return isKept ? 'same' : 'open';
  }
}

/** Whether an element as such stays, whatever is added to it. */
const stands = (rules: CompiledRules, { element, attribute }: AttributeFeature): boolean =>
  attribute === '' && !(rules.headings !== null && /^h[1-6]$/.test(element)) && !mayFell(rules, element);

/** Whether, where an element stands, something else than its own attributes may go, or come to be called otherwise. */
function mayFell(rules: CompiledRules, element: string): boolean {
  if (isEverybodys(element)) return true;
  const { outcome, name, demands } = rules.element(element);
  return outcome !== 'keep' || name !== element || (demands !== null && mayTakeElement(demands));
}

/** Whether what is demanded of an element can be missing from it so that it goes. What is added to it takes nothing. */
function mayTakeElement({ anyOf, required, empty, parents, depth }: Demands): boolean {
  return (
    anyOf.length > 0 ||
    required.some(({ otherwise }) => otherwise !== 'add') ||
    empty?.outcome === 'remove' ||
    parents.length > 0 ||
    depth !== null
  );
}
