import type { CompiledRules } from '../markup/compiled';
import { isAttributeForbidden } from '../markup/floor';
import { isReference } from '../markup/ids';
import { IMPLIED_BY } from '../markup/parts';
import { STRUCTURE, type AttributeFeature, type Features } from './features';
import { isEverybodys } from './needs';
import { DEEPEST } from './least-profile';
import { isBlankAttribute } from './whole';

/** Whether rules let something stay as it is wherever it stands, take it from every document, or neither can be told by it alone. */
export type Verdict = 'keeps' | 'takes' | 'open';

/** What is asked of a document as a whole. */
export type WholeFeatures = Pick<Features, 'nodes' | 'depth' | 'length' | 'hasHardSpaces' | 'hasBlanks'>;

const HEADING = /^h[1-6]$/;

/**
 * Tells by what documents hold whether rules keep them whole (see {@link isWhole}), for documents that are whole by themselves and
 * come out the same by rules that allow what they hold: where everything is kept, the document is whole; where one thing is taken, it
 * is not; where neither can be told, it has to be cleaned.
 */
export class Wholeness {
  constructor(private readonly rules: CompiledRules) {}

  /** @param feature one thing of those that `everyFeature` gives */
  ofFeature({ element, attribute, value }: AttributeFeature): Verdict {
    const { rules } = this;
    const rule = rules.element(element);
    const isKept = rule.outcome === 'keep' && rule.name === element;
    if (attribute === STRUCTURE.made) return isKept && rule.demands === null ? 'keeps' : 'open';
    if (isEverybodys(element)) return 'keeps';
    if (HEADING.test(element) && rules.headings !== null) return 'open';
    if (attribute === '' || attribute === STRUCTURE.bare) {
      if (isKept) return rule.demands === null ? 'keeps' : 'open';
      return IMPLIED_BY[element] === undefined ? 'takes' : 'open';
    }
    if (isAttributeForbidden(attribute, element) || isBlankAttribute(attribute, value)) return 'keeps';
    // Where its tag goes, all goes that it has; where something is demanded, what is taken may be put back.
    if (!isKept || rule.demands !== null) return 'open';
    if (rules.ids !== null && isReference(element, attribute, value)) return 'open';
    const tests = rule.attributes.get(attribute)?.tests;
    if (tests === undefined) return 'takes';
    let kept = value;
    for (const { judge } of tests) {
      const verdict = judge(kept);
      if ('refuse' in verdict) return 'takes';
      kept = verdict.keep;
    }
    return kept === value ? 'keeps' : 'open';
  }

  /** Whether what holds for the document as a whole can keep it from being whole. */
  isOpen({ nodes, depth, length, hasHardSpaces, hasBlanks }: WholeFeatures): boolean {
    const { elements, letters, nesting, hardSpaces, seesEmpty } = this.rules;
    if (elements !== null && nodes >= elements.limit) return true;
    if (letters !== null && length >= letters.limit) return true;
    if (nesting.limit < DEEPEST && depth >= nesting.limit) return true;
    return (hardSpaces !== null && hasHardSpaces) || (seesEmpty && hasBlanks);
  }
}
