import type { BoundTest, CompiledAttribute, CompiledElement, CompiledRules, Demands } from '../markup/compiled';
import { isReference } from '../markup/ids';
import { isMakeable } from '../markup/makeable';
import { MADE_WHOLES } from '../markup/parts';
import type { AttributeFeature, Features } from './features';

/** A change of rules as a question about what documents hold. */
export interface ReachQuestion {
  /** Why what documents hold cannot decide whom the change touches, so that all have to be looked at; empty where it can. */
  undecided: readonly string[];
  /** Whether an element by itself is treated differently, whatever attributes it has. */
  asksElement(name: string): boolean;
  /** Whether an element may be treated differently for some of its attributes: those that are named. */
  asksAttributes(element: string): ReadonlySet<string>;
  /** Whether an attribute may be treated differently with some value. */
  mayAskAttribute(element: string, attribute: string): boolean;
  /** Whether an attribute with a value is treated differently. */
  asksValue(feature: AttributeFeature): boolean;
  /** What is asked of the document as a whole. */
  whole: WholeQuestion;
}

/** A document for which one of these holds is asked for. */
export interface WholeQuestion {
  hasComments: boolean;
  hasHardSpaces: boolean;
  isBeyondAscii: boolean;
  /** Its markup is at least as long as this, in UTF-16 units; Infinity where its length is not asked. */
  length: number;
  /** It has at least so many nodes. */
  nodes: number;
}

/**
 * Makes the question whom a change of rules can touch. A document to which the answer is no comes out the same by both; one to which
 * it is yes may.
 *
 * The reason: cleaning asks rules about the elements and attributes of the document, about what those are renamed to, and about what
 * it makes itself (lists, paragraphs, line breaks, parts of tables); about nothing else. Where all these answers are the same, so is
 * the result.
 */
export function questionBetween(from: CompiledRules, to: CompiledRules): ReachQuestion {
  const [one, other] = [new Shapes(from), new Shapes(to)];
  const differs = (name: string): boolean => one.of(name) !== other.of(name);
  const headingsDiffer = areHeadingsDifferent(from, to, one, other);
  const idsDiffer = from.ids?.prefix !== to.ids?.prefix;
  const parts = new Map<string, ReadonlySet<string>>();
  // Under a policy for headings the attributes of one may be judged by the rule of another level, or by that of paragraphs.
  const rulesFor = (element: string): readonly string[] => (from.headings !== null && HEADING.test(element) ? HEADING_RULES : [element]);
  const asksAttributes = (element: string): ReadonlySet<string> => {
    let names = parts.get(element);
    if (names === undefined) {
      const all = rulesFor(element).flatMap((one) => [...differingAttributes(from.element(one), to.element(one))]);
      parts.set(element, (names = new Set(all)));
    }
    return names;
  };
  return {
    undecided: undecidedBetween(from, to, one, other),
    asksElement(name) {
      if (differs(name) || (headingsDiffer && HEADING.test(name))) return true;
      // What it becomes may be such a part as well.
      const becomes = [from.element(name).name, to.element(name).name];
      if ([name, ...becomes].some((part) => MADE_WHOLES[part] !== undefined && (differs('ul') || differs('dl')))) return true;
      if ([name, ...becomes].includes('rp') && differs('rt')) return true;
      if (
        [name, ...becomes].some((part) => TABLE_PARTS.has(part)) &&
        IMPLIED.some((part) => differs(part) || asksAttributes(part).size > 0)
      )
        return true;
      return isEmptinessDifferent(from, to) && ([name, ...becomes].includes('p') || HEADING.test(name));
    },
    asksAttributes,
    mayAskAttribute: (element, attribute) => asksAttributes(element).has(attribute) || (idsDiffer && isReference(element, attribute, '#')),
    asksValue({ element, attribute, value }) {
      if (idsDiffer && isReference(element, attribute, value)) return true;
      if (!asksAttributes(element).has(attribute)) return false;
      // What is asked of the name behind the prefix is another question.
      if (from.ids !== null && isReference(element, attribute, value)) return true;
      return rulesFor(element).some((one) => {
        const [before, after] = [from.element(one).attributes.get(attribute), to.element(one).attributes.get(attribute)];
        return outcomeOf(before, value) !== outcomeOf(after, value);
      });
    },
    whole: {
      hasComments: from.comments.keep !== to.comments.keep,
      hasHardSpaces: from.hardSpaces?.keep !== to.hardSpaces?.keep,
      isBeyondAscii: from.output.characters !== to.output.characters,
      length: leastChanged(from.letters, to.letters),
      // What is closed and opened again when it is read once more can come to stand as often as there are nodes.
      nodes: Math.max(0, Math.sqrt(Math.min(leastChanged(from.elements, to.elements), leastChanged(from.nesting, to.nesting))) - 2),
    },
  };
}

/** Whether the change can touch a document; where it cannot, both leave the same of it. */
export function mayTouch(question: ReachQuestion, features: Features): boolean {
  if (question.undecided.length > 0 || asksWhole(question.whole, features)) return true;
  for (const name of features.elements) if (question.asksElement(name)) return true;
  return features.attributes.some((feature) => question.asksValue(feature));
}

const asksWhole = (asked: WholeQuestion, { nodes, length, hasComments, hasHardSpaces, isBeyondAscii }: Features): boolean =>
  (asked.hasComments && hasComments) ||
  (asked.hasHardSpaces && hasHardSpaces) ||
  (asked.isBeyondAscii && isBeyondAscii) ||
  length >= asked.length ||
  nodes >= asked.nodes;

const HEADING = /^h[1-6]$/;
const HEADING_RULES = ['h1', 'h2', 'h3', 'h4', 'h5', 'h6', 'p'];

/** What the parser puts around parts of tables, and those parts (HTML, section 13.2.6.4.9). */
const IMPLIED = ['tbody', 'tr', 'colgroup'];
const TABLE_PARTS: ReadonlySet<string> = new Set('table caption colgroup col thead tbody tfoot tr td th'.split(' '));

/** The stricter one of two limits that are not the same; Infinity where they are. */
const leastChanged = (one: { limit: number } | null, other: { limit: number } | null): number =>
  one?.limit === other?.limit ? Infinity : Math.min(one?.limit ?? Infinity, other?.limit ?? Infinity);

const isEmptinessDifferent = (from: CompiledRules, to: CompiledRules): boolean => from.emptyParagraphs?.keep !== to.emptyParagraphs?.keep;

/** What of a change cannot be told by what documents hold. */
function undecidedBetween(from: CompiledRules, to: CompiledRules, one: Shapes, other: Shapes): string[] {
  const undecided: string[] = [];
  if (from.output.layout !== to.output.layout) undecided.push('white space between blocks');
  // These are made wherever something else goes.
  for (const made of ['p', 'br'])
    if (isMakeable(from, made) !== isMakeable(to, made)) undecided.push(`whether <${made}> can be made where words would run together`);
  // A block that shows nothing gets a line break to stand on.
  if (one.of('br') !== other.of('br') && isPlain(from, 'br') !== isPlain(to, 'br'))
    undecided.push('whether <br> can be put into what is empty');
  return undecided;
}

function isPlain(rules: CompiledRules, name: string): boolean {
  const { outcome, name: kept, demands } = rules.element(name);
  return outcome === 'keep' && kept === name && demands === null;
}

/** Under a policy one level may follow the rule of another, and a heading that of paragraphs. */
function areHeadingsDifferent(from: CompiledRules, to: CompiledRules, one: Shapes, other: Shapes): boolean {
  const policyOf = ({ headings }: CompiledRules): string =>
    headings === null ? '' : JSON.stringify([headings.others, headings.top, headings.levels]);
  if (policyOf(from) !== policyOf(to)) return true;
  return from.headings !== null && HEADING_RULES.some((name) => one.of(name) !== other.of(name));
}

/** Names of attributes of which two rules for an element do not say the same. */
function differingAttributes(one: CompiledElement, other: CompiledElement): ReadonlySet<string> {
  const names = new Set<string>();
  if (one.outcome !== 'keep' && other.outcome !== 'keep') return names;
  for (const name of [...one.attributes.keys(), ...other.attributes.keys()])
    if (madeFrom(one.attributes.get(name)) !== madeFrom(other.attributes.get(name))) names.add(name);
  return names;
}

const madeFrom = (attribute: CompiledAttribute | undefined): string =>
  attribute === undefined ? '' : JSON.stringify(attribute.tests.map((test: BoundTest) => test.madeFrom));

/** What tests leave of a value; null where they refuse it. */
function outcomeOf(attribute: CompiledAttribute | undefined, value: string): string | null {
  if (attribute === undefined) return null;
  let kept = value;
  for (const { judge } of attribute.tests) {
    const verdict = judge(kept);
    if ('refuse' in verdict) return null;
    kept = verdict.keep;
  }
  return kept;
}

/** What rules make of elements, but for their attributes, as texts that can be compared. */
class Shapes {
  private readonly known = new Map<string, string>();

  constructor(private readonly rules: CompiledRules) {}

  of(name: string): string {
    let shape = this.known.get(name);
    if (shape === undefined) this.known.set(name, (shape = this.made(this.rules.element(name))));
    return shape;
  }

  private made({ outcome, name, alternativeText, demands }: CompiledElement): string {
    if (outcome !== 'keep') return outcome;
    return JSON.stringify([name, alternativeText !== null, demands === null ? null : this.demandsShape(demands, name)]);
  }

  private demandsShape({ anyOf, required, forced, empty, parents, depth, ratio, newWindow, ownFrame }: Demands, element: string): unknown {
    // What is put there may get the prefix of ids.
    const isNamed = [...required, ...forced].some(({ name, value }) => isReference(element, name, value));
    return [
      anyOf.map(({ names, otherwise }) => [names, otherwise]),
      required.map(({ name, otherwise, value }) => [name, otherwise, value]),
      forced.map(({ name, value, isWords, when }) => [name, value, isWords, when]),
      empty?.outcome,
      parents.map(({ names }) => [...names].sort()),
      depth?.limit,
      ratio === null ? null : [ratio.min, ratio.max],
      newWindow === null ? null : [newWindow.policy, [...newWindow.ownHosts].sort()],
      ownFrame === null ? null : [...ownFrame.ownHosts].sort(),
      isNamed ? this.rules.ids?.prefix : null,
    ];
  }
}
