import { find, generate, type CssNode } from 'css-tree';
import { HTML_NAMESPACE, type ElementNode } from '../html/node';
import { matcherOf, type Parts, type Test } from './chain';
import { parseCss } from './parse';
import { pseudoClass, SelectorMistake, type Compile } from './pseudo-class';
import { classesOf, parentOf } from './relations';
import { greatest, sum, type Specificity } from './specificity';

export { SelectorMistake } from './pseudo-class';

/** One complex selector, compiled: made once, asked for every element. */
export interface CompiledSelector {
  /** As it is written; `&` stands for the selectors around it. */
  text: string;
  specificity: Specificity;
  /** The pseudo-element that it styles; empty for the element itself. */
  pseudoElement: string;
  /** What an element must have for the selector to match, to find rules by; null for anything. */
  key: { kind: 'id' | 'class' | 'element'; name: string } | null;
  /** A class or id that some ancestor must have, such as `.page`; empty for none. Most elements are told by it at once. */
  above: string;
  matches: Test;
}

/**
 * The selectors of the rule around a nested one, for which `&` stands (CSS Nesting Level 1, section 3.1): what `:is()` of them
 * would match, with the greatest specificity among them. What was found of an element is kept, so that nesting costs each
 * element one look at each level, however often `&` is written.
 */
export interface Around {
  specificity: Specificity;
  key: CompiledSelector['key'];
  matches: Test;
}

export function aroundOf(selectors: readonly CompiledSelector[]): Around {
  const known = new WeakMap<ElementNode, boolean>();
  // A pseudo-element is no element that could have others in it.
  const elements = selectors.filter(({ pseudoElement }) => pseudoElement === '');
  const only = elements.length === 1 ? elements[0]! : null;
  return {
    specificity: greatest(elements),
    key: only?.key ?? null,
    matches(element) {
      let answer = known.get(element);
      if (answer === undefined) known.set(element, (answer = elements.some(({ matches }) => matches(element))));
      return answer;
    },
  };
}

interface Compound {
  tests: Test[];
  specificity: Specificity;
  key: CompiledSelector['key'];
  pseudoElement: string;
}

/** A selector of more parts than this is read by nobody. */
export const MOST_PARTS = 200;

const OLD_PSEUDO_ELEMENTS: ReadonlySet<string> = new Set(['before', 'after', 'first-line', 'first-letter']);
/** Attributes of HTML whose values match without regard to case (HTML, section 15.3.6 and 4.16.2). */
const CASELESS_ATTRIBUTES: ReadonlySet<string> = new Set(
  'accept accept-charset align alink axis bgcolor charset checked clear codetype color compact declare defer dir direction disabled enctype face frame hreflang http-equiv lang language link media method multiple nohref noresize noshade nowrap readonly rel rev rules scope scrolling selected shape target text type valign valuetype vlink'.split(
    ' ',
  ),
);

/**
 * Compiles a selector list (Selectors Level 4).
 *
 * @throws SelectorMistake where a browser would drop the rule
 */
export function compileSelectors(text: string): CompiledSelector[] {
  let list: CssNode;
  try {
    list = parseCss(text, { context: 'selectorList' });
  } catch (error) {
    throw new SelectorMistake(`The selector “${text}” cannot be read: ${(error as Error).message}`);
  }
  return compileList(list);
}

/**
 * Compiles a selector list that was parsed already.
 *
 * @param around the selectors of the rule in which it is nested; null for none
 * @throws SelectorMistake where a browser would drop the rule
 */
export function compileList(list: CssNode, around: Around | null = null): CompiledSelector[] {
  if (list.type !== 'SelectorList') throw new SelectorMistake(`“${generate(list)}” is no list of selectors.`);
  if (list.children.isEmpty) throw new SelectorMistake('A selector is missing.');
  return list.children.toArray().map((node) => compileComplex(around === null ? partsIn(node) : nestedParts(node), node, around));
}

/** What stands in pseudo-classes is not nested by itself; only an `&` in it means what is around. */
const compileWithin = (around: Around | null): Compile => ({
  list(list) {
    if (list.type !== 'SelectorList' || list.children.isEmpty) throw new SelectorMistake('A selector is missing.');
    return list.children.toArray().map((node) => compileComplex(partsIn(node), node, around));
  },
  forgiving(list) {
    if (list.type !== 'SelectorList') return [];
    return list.children.toArray().flatMap((node) => {
      try {
        return [compileComplex(partsIn(node), node, around)];
      } catch {
        return [];
      }
    });
  },
  relative(node) {
    const written = partsIn(node);
    const isLed = written.compounds[0]!.length === 0 && written.combinators.length > 0;
    const first = isLed ? written.combinators[0]! : ' ';
    const { compounds, combinators } = isLed
      ? { compounds: written.compounds.slice(1), combinators: written.combinators.slice(1) }
      : written;
    const { parts, specificity } = compileParts({ compounds, combinators }, node, around);
    return { first, parts, specificity };
  },
});

interface WrittenParts {
  compounds: CssNode[][];
  combinators: string[];
}

/** A complex selector at its combinators; the first part is empty where it begins with one. */
function partsIn(node: CssNode): WrittenParts {
  if (node.type !== 'Selector') throw new SelectorMistake(`“${generate(node)}” is no selector.`);
  const compounds: CssNode[][] = [[]];
  const combinators: string[] = [];
  for (const part of node.children.toArray()) {
    if (part.type === 'Combinator') {
      combinators.push(part.name);
      compounds.push([]);
    } else compounds[compounds.length - 1]!.push(part);
  }
  return { compounds, combinators };
}

const NESTING: CssNode = { type: 'NestingSelector' };

/** A nested selector that begins with a combinator, or has no `&`, stands below what is around it (CSS Nesting Level 1, section 3.1). */
function nestedParts(node: CssNode): WrittenParts {
  const { compounds, combinators } = partsIn(node);
  if (compounds[0]!.length === 0) return { compounds: [[NESTING], ...compounds.slice(1)], combinators };
  if (find(node, ({ type }) => type === 'NestingSelector') !== null) return { compounds, combinators };
  return { compounds: [[NESTING], ...compounds], combinators: [' ', ...combinators] };
}

function compileParts({ compounds: written, combinators }: WrittenParts, node: CssNode, around: Around | null) {
  if (written.some(({ length }) => length === 0)) throw new SelectorMistake(`In “${generate(node)}” a part is missing.`);
  if (written.length > MOST_PARTS) throw new SelectorMistake(`A selector has ${written.length} parts; ${MOST_PARTS} are read at most.`);
  const compounds = written.map((nodes) => compileCompound(nodes, around));
  const parts: Parts = { tests: compounds.map(({ tests }) => tests), combinators };
  return { compounds, parts, specificity: compounds.reduce<Specificity>((all, part) => sum(all, part.specificity), [0, 0, 0]) };
}

function compileComplex(written: WrittenParts, node: CssNode, around: Around | null): CompiledSelector {
  const { compounds, parts, specificity } = compileParts(written, node, around);
  const subject = compounds[compounds.length - 1]!;
  return {
    text: generate(node),
    specificity,
    pseudoElement: subject.pseudoElement,
    key: subject.key,
    above: aboveOf(compounds, written.combinators),
    matches: matcherOf(parts),
  };
}

/** What an ancestor of the subject must have: from the right, as far as only descendants and children are asked for. */
function aboveOf(compounds: readonly Compound[], combinators: readonly string[]): string {
  for (let at = compounds.length - 2; at >= 0 && (combinators[at] === ' ' || combinators[at] === '>'); at--) {
    const { key } = compounds[at]!;
    if (key?.kind === 'class') return `.${key.name}`;
    if (key?.kind === 'id') return `#${key.name}`;
  }
  return '';
}

function compileCompound(nodes: readonly CssNode[], around: Around | null): Compound {
  const compound: Compound = { tests: [], specificity: [0, 0, 0], key: null, pseudoElement: '' };
  const RANK = { id: 3, class: 2, element: 1 };
  const take = (specificity: Specificity, test: Test | null, key: CompiledSelector['key'] = null): void => {
    compound.specificity = sum(compound.specificity, specificity);
    if (test !== null) compound.tests.push(test);
    if (key !== null && (compound.key === null || RANK[key.kind] > RANK[compound.key.kind])) compound.key = key;
  };
  for (const node of nodes)
    switch (node.type) {
      case 'TypeSelector': {
        const name = node.name.replace(/^[^|]*\|/, '');
        if (name === '*') break;
        const lower = name.toLowerCase();
        take([0, 0, 1], (element) => (element.namespace === HTML_NAMESPACE ? element.name === lower : element.name === name), {
          kind: 'element',
          name: lower,
        });
        break;
      }
      case 'IdSelector': {
        const name = decoded(node.name);
        take([1, 0, 0], (element) => element.attribute('id') === name, { kind: 'id', name });
        break;
      }
      case 'ClassSelector': {
        const name = decoded(node.name);
        take([0, 1, 0], (element) => classesOf(element).includes(name), { kind: 'class', name });
        break;
      }
      case 'AttributeSelector':
        take([0, 1, 0], attributeTest(node));
        break;
      case 'PseudoElementSelector':
        take([0, 0, 1], null);
        compound.pseudoElement = node.name.toLowerCase();
        break;
      case 'PseudoClassSelector': {
        const name = node.name.toLowerCase();
        if (OLD_PSEUDO_ELEMENTS.has(name) && node.children === null) {
          take([0, 0, 1], null);
          compound.pseudoElement = name;
        } else {
          const [specificity, test] = pseudoClass(name, node.children?.toArray() ?? null, compileWithin(around));
          take(specificity, test);
        }
        break;
      }
      case 'NestingSelector':
        if (around === null) take([0, 0, 0], (element) => parentOf(element) === null);
        else take(around.specificity, around.matches, around.key);
        break;
      default:
        throw new SelectorMistake(`“${generate(node)}” is not known in a selector.`);
    }
  return compound;
}

function attributeTest(node: Extract<CssNode, { type: 'AttributeSelector' }>): Test {
  const name = decoded(node.name.name.replace(/^[^|]*\|/, '')).toLowerCase();
  if (node.matcher === null || node.value === null) return (element) => element.attribute(name) !== undefined;
  const raw = node.value.type === 'String' ? node.value.value : decoded(node.value.name);
  const flag = node.flags?.toLowerCase() ?? '';
  const isCaseless = flag === 'i' || (flag !== 's' && CASELESS_ATTRIBUTES.has(name));
  const wanted = isCaseless ? raw.toLowerCase() : raw;
  const fits = ((): ((value: string) => boolean) => {
    switch (node.matcher) {
      case '=':
        return (value) => value === wanted;
      case '~=':
        return (value) => wanted !== '' && !/\s/.test(wanted) && value.split(/[\t\n\f\r ]+/).includes(wanted);
      case '|=':
        return (value) => value === wanted || value.startsWith(`${wanted}-`);
      case '^=':
        return (value) => wanted !== '' && value.startsWith(wanted);
      case '$=':
        return (value) => wanted !== '' && value.endsWith(wanted);
      case '*=':
        return (value) => wanted !== '' && value.includes(wanted);
      default:
        throw new SelectorMistake(`“${node.matcher}” is no way to compare an attribute.`);
    }
  })();
  return (element) => {
    const value = element.attribute(name);
    return value !== undefined && fits(isCaseless ? value.toLowerCase() : value);
  };
}

/** A name with its escapes read (CSS Syntax Level 3, section 4.3.7). */
function decoded(name: string): string {
  return name.includes('\\')
    ? name.replace(/\\([0-9a-f]{1,6})\s?|\\(.)/gi, (_all, code: string | undefined, plain: string | undefined) =>
        code === undefined ? (plain ?? '') : String.fromCodePoint(Number.parseInt(code, 16) || 0xfffd),
      )
    : name;
}
