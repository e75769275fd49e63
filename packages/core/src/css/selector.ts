import { generate, type CssNode } from 'css-tree';
import { parseCss } from './parse';
import { HTML_NAMESPACE, type ElementNode } from '../html/node';

/** Specificity of a selector (Selectors Level 4, section 17): ids; classes, attributes and pseudo-classes; elements. */
export type Specificity = readonly [ids: number, classes: number, elements: number];

type Test = (element: ElementNode) => boolean;

/** One complex selector, compiled: made once, asked for every element. */
export interface CompiledSelector {
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

interface Compound {
  tests: Test[];
  specificity: Specificity;
  key: CompiledSelector['key'];
  pseudoElement: string;
}

/** A selector that cannot be read or is not known; browsers drop the whole rule. */
export class SelectorMistake extends Error {}

/** States that only a person at the page brings about: a page at rest has none of them. */
const NEVER_AT_REST: ReadonlySet<string> = new Set(
  'hover active focus focus-visible focus-within visited target target-within fullscreen modal popover-open user-invalid user-valid playing seeking buffering stalled muted autofill picture-in-picture current past future default indeterminate open placeholder-shown in-range out-of-range valid invalid host has-slotted'.split(
    ' ',
  ),
);
const OLD_PSEUDO_ELEMENTS: ReadonlySet<string> = new Set(['before', 'after', 'first-line', 'first-letter']);
const FORM_ELEMENTS: ReadonlySet<string> = new Set(['button', 'input', 'select', 'textarea', 'optgroup', 'option', 'fieldset']);
/** Attributes of HTML whose values match without regard to case (HTML, section 15.3.6 and 4.16.2). */
const CASELESS_ATTRIBUTES: ReadonlySet<string> = new Set(
  'accept accept-charset align alink axis bgcolor charset checked clear codetype color compact declare defer dir direction disabled enctype face frame hreflang http-equiv lang language link media method multiple nohref noresize noshade nowrap readonly rel rev rules scope scrolling selected shape target text type valign valuetype vlink'.split(
    ' ',
  ),
);

const greater = (one: Specificity, other: Specificity): boolean =>
  one[0] !== other[0] ? one[0] > other[0] : one[1] !== other[1] ? one[1] > other[1] : one[2] > other[2];
const sum = (one: Specificity, other: Specificity): Specificity => [one[0] + other[0], one[1] + other[1], one[2] + other[2]];
const greatest = (all: readonly CompiledSelector[]): Specificity =>
  all.reduce<Specificity>((most, { specificity }) => (greater(specificity, most) ? specificity : most), [0, 0, 0]);

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
 * @throws SelectorMistake where a browser would drop the rule
 */
export function compileList(list: CssNode): CompiledSelector[] {
  if (list.type !== 'SelectorList') throw new SelectorMistake(`“${generate(list)}” is no list of selectors.`);
  if (list.children.isEmpty) throw new SelectorMistake('A selector is missing.');
  return list.children.toArray().map(compileComplex);
}

/** Of a forgiving list (`:is`, `:where`), what cannot be read is left out. */
function compileForgiving(list: CssNode): CompiledSelector[] {
  if (list.type !== 'SelectorList') return [];
  return list.children.toArray().flatMap((node) => {
    try {
      return [compileComplex(node)];
    } catch {
      return [];
    }
  });
}

function compileComplex(node: CssNode): CompiledSelector {
  if (node.type !== 'Selector') throw new SelectorMistake(`“${generate(node)}” is no selector.`);
  const parts: CssNode[][] = [[]];
  const combinators: string[] = [];
  for (const part of node.children.toArray()) {
    if (part.type === 'Combinator') {
      combinators.push(part.name);
      parts.push([]);
    } else parts[parts.length - 1]!.push(part);
  }
  if (parts.some(({ length }) => length === 0)) throw new SelectorMistake(`In “${generate(node)}” a part is missing.`);
  const compounds = parts.map(compileCompound);
  const subject = compounds[compounds.length - 1]!;
  return {
    text: generate(node),
    specificity: compounds.reduce<Specificity>((all, part) => sum(all, part.specificity), [0, 0, 0]),
    pseudoElement: subject.pseudoElement,
    key: subject.key,
    above: aboveOf(compounds, combinators),
    matches: (element) => leads(element, compounds, combinators, compounds.length - 1),
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

const namesAbove = new WeakMap<ElementNode, ReadonlySet<string>>();
const NONE: ReadonlySet<string> = new Set();

/** The classes and ids of everything around an element, as selectors write them. */
export function ancestorNames(element: ElementNode): ReadonlySet<string> {
  let names = namesAbove.get(element);
  if (names === undefined) {
    const parent = parentOf(element);
    if (parent === null) names = NONE;
    else {
      const id = parent.attribute('id');
      const own = [...classesOf(parent).map((name) => `.${name}`), ...(id === undefined ? [] : [`#${id}`])];
      const around = ancestorNames(parent);
      names = own.length === 0 ? around : new Set([...around, ...own]);
    }
    namesAbove.set(element, names);
  }
  return names;
}

/** Walks from the subject to the left, and further back where a near ancestor or sibling does not lead on. */
function leads(element: ElementNode, compounds: readonly Compound[], combinators: readonly string[], at: number): boolean {
  for (const test of compounds[at]!.tests) if (!test(element)) return false;
  if (at === 0) return true;
  switch (combinators[at - 1]) {
    case ' ':
      for (let other = parentOf(element); other !== null; other = parentOf(other))
        if (leads(other, compounds, combinators, at - 1)) return true;
      return false;
    case '>': {
      const other = parentOf(element);
      return other !== null && leads(other, compounds, combinators, at - 1);
    }
    case '+': {
      const other = sibling(element, -1);
      return other !== null && leads(other, compounds, combinators, at - 1);
    }
    case '~':
      for (let other = sibling(element, -1); other !== null; other = sibling(other, -1))
        if (leads(other, compounds, combinators, at - 1)) return true;
      return false;
    default:
      return false;
  }
}

function compileCompound(nodes: readonly CssNode[]): Compound {
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
          const [specificity, test] = pseudoClass(name, node.children?.toArray() ?? null);
          take(specificity, test);
        }
        break;
      }
      case 'NestingSelector':
        // Nesting is written out before selectors are compiled; at the top it stands for the root.
        take([0, 0, 0], (element) => parentOf(element) === null);
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

function pseudoClass(name: string, children: readonly CssNode[] | null): [Specificity, Test] {
  const plain: Specificity = [0, 1, 0];
  const argument = children?.[0];
  switch (name) {
    case 'is':
    case 'matches':
    case '-webkit-any':
    case '-moz-any':
    case 'where': {
      if (argument === undefined) throw new SelectorMistake(`:${name}() needs selectors.`);
      const list = compileForgiving(argument);
      return [
        name === 'where' ? [0, 0, 0] : greatest(list),
        (element) => list.some((one) => one.pseudoElement === '' && one.matches(element)),
      ];
    }
    case 'not': {
      if (argument === undefined) throw new SelectorMistake(':not() needs selectors.');
      const list = compileList(argument);
      return [greatest(list), (element) => !list.some(({ matches }) => matches(element))];
    }
    case 'has':
      return has(argument);
    case 'nth-child':
    case 'nth-last-child':
    case 'nth-of-type':
    case 'nth-last-of-type':
      return nth(name, argument);
    case 'first-child':
      return [plain, (element) => sibling(element, -1) === null];
    case 'last-child':
      return [plain, (element) => sibling(element, 1) === null];
    case 'only-child':
      return [plain, (element) => sibling(element, -1) === null && sibling(element, 1) === null];
    case 'first-of-type':
      return [plain, (element) => sibling(element, -1, sameType(element)) === null];
    case 'last-of-type':
      return [plain, (element) => sibling(element, 1, sameType(element)) === null];
    case 'only-of-type':
      return [plain, (element) => sibling(element, -1, sameType(element)) === null && sibling(element, 1, sameType(element)) === null];
    case 'root':
    case 'scope':
      return [plain, (element) => parentOf(element) === null];
    case 'empty':
      return [
        plain,
        (element) => element.children.every((child) => child.type === 'comment' || (child.type === 'text' && child.value === '')),
      ];
    case 'link':
    case 'any-link':
    case '-webkit-any-link':
      return [plain, (element) => (element.name === 'a' || element.name === 'area') && element.attribute('href') !== undefined];
    case 'checked':
      return [
        plain,
        (element) =>
          (element.name === 'input' && element.attribute('checked') !== undefined) ||
          (element.name === 'option' && element.attribute('selected') !== undefined),
      ];
    case 'disabled':
      return [plain, (element) => FORM_ELEMENTS.has(element.name) && element.attribute('disabled') !== undefined];
    case 'enabled':
      return [plain, (element) => FORM_ELEMENTS.has(element.name) && element.attribute('disabled') === undefined];
    case 'required':
      return [plain, (element) => element.attribute('required') !== undefined];
    case 'optional':
      return [plain, (element) => ['input', 'select', 'textarea'].includes(element.name) && element.attribute('required') === undefined];
    case 'read-only':
      return [plain, (element) => !isWritable(element)];
    case 'read-write':
      return [plain, isWritable];
    case 'defined':
      return [plain, (element) => !element.name.includes('-')];
    case 'lang': {
      const tags = (children ?? [])
        .map((child) => generate(child))
        .join('')
        .split(',')
        .map((tag) =>
          tag
            .trim()
            .replace(/^["']|["']$/g, '')
            .toLowerCase(),
        );
      return [plain, (element) => tags.some((tag) => isOfLanguage(languageOf(element), tag))];
    }
    case 'dir': {
      const wanted = children === null ? '' : generate(children[0]!).toLowerCase();
      return [plain, (element) => directionOf(element) === wanted];
    }
    default:
      if (NEVER_AT_REST.has(name) || name.startsWith('-moz-') || name.startsWith('-webkit-') || name.startsWith('-ms-')) {
        // An unknown vendor's pseudo-class makes a browser drop the rule; either way nothing is styled.
        return [plain, () => false];
      }
      throw new SelectorMistake(`:${name} is not known.`);
  }
}

function isWritable(element: ElementNode): boolean {
  return (
    (element.name === 'input' || element.name === 'textarea') &&
    element.attribute('readonly') === undefined &&
    element.attribute('disabled') === undefined
  );
}

/** `:has()` (Selectors Level 4, section 4.5): relative selectors, tried on what follows or lies below the element. */
function has(argument: CssNode | undefined): [Specificity, Test] {
  if (argument?.type !== 'SelectorList') throw new SelectorMistake(':has() needs selectors.');
  const relatives = argument.children.toArray().map((node) => {
    if (node.type !== 'Selector') throw new SelectorMistake(':has() needs selectors.');
    const nodes = node.children.toArray();
    const first = nodes[0];
    const combinator = first?.type === 'Combinator' ? first.name : ' ';
    const text = (first?.type === 'Combinator' ? nodes.slice(1) : nodes).map((part) => generate(part)).join('');
    const [compiled] = compileSelectors(text);
    return { combinator, compiled: compiled! };
  });
  const found = (start: ElementNode, combinator: string, matches: Test): boolean => {
    // What matches must also be reached from the element itself, which holds for its descendants and following siblings.
    if (combinator === '+') {
      const next = sibling(start, 1);
      return next !== null && (matches(next) || below(next, matches));
    }
    if (combinator === '~') {
      for (let next = sibling(start, 1); next !== null; next = sibling(next, 1)) if (matches(next) || below(next, matches)) return true;
      return false;
    }
    if (combinator === '>') return start.children.some((child) => child.type === 'element' && matches(child));
    return below(start, matches);
  };
  return [
    greatest(relatives.map(({ compiled }) => compiled)),
    (element) => relatives.some(({ combinator, compiled }) => found(element, combinator, compiled.matches)),
  ];
}

function below(element: ElementNode, matches: Test): boolean {
  const stack = [...element.children];
  for (let child = stack.pop(); child !== undefined; child = stack.pop()) {
    if (child.type !== 'element') continue;
    if (matches(child)) return true;
    stack.push(...child.children);
  }
  return false;
}

/** `:nth-child()` and its kin, with `of` (Selectors Level 4, section 14.3). */
function nth(name: string, argument: CssNode | undefined): [Specificity, Test] {
  if (argument?.type !== 'Nth') throw new SelectorMistake(`:${name}() needs a formula such as 2n+1.`);
  const { nth: formula, selector } = argument;
  const [a, b] =
    formula.type === 'Identifier'
      ? formula.name.toLowerCase() === 'odd'
        ? [2, 1]
        : [2, 0]
      : [
          formula.a === null ? 0 : Number(formula.a === '+' || formula.a === '' ? 1 : formula.a === '-' ? -1 : formula.a),
          formula.b === null ? 0 : Number(formula.b),
        ];
  const of = selector === null ? null : compileList(selector);
  const fromEnd = name.includes('last');
  const isOfType = name.endsWith('of-type');
  return [
    of === null ? [0, 1, 0] : sum([0, 1, 0], greatest(of)),
    (element) => {
      if (of !== null && !of.some(({ matches }) => matches(element))) return false;
      const index =
        of === null
          ? placeAmong(element, isOfType, fromEnd)
          : 1 + countBeside(element, fromEnd ? 1 : -1, (other) => of.some(({ matches }) => matches(other)));
      return a === 0 ? index === b : (index - b) / a >= 0 && Number.isInteger((index - b) / a);
    },
  ];
}

/** Which one an element is among its siblings, or among those of its name; from 1 on. */
function placeAmong(element: ElementNode, isOfType: boolean, fromEnd: boolean): number {
  if (element.parent === null) return 1;
  const { elements, index, types } = elementsOf(element.parent);
  const type = `${element.namespace} ${element.name}`;
  const [at, count] = isOfType ? [types.place.get(element)!, types.count.get(type)!] : [index.get(element)!, elements.length];
  return fromEnd ? count - at : at + 1;
}

function countBeside(element: ElementNode, direction: -1 | 1, counts: (other: ElementNode) => boolean): number {
  let count = 0;
  for (let other = sibling(element, direction, counts); other !== null; other = sibling(other, direction, counts)) count++;
  return count;
}

const sameType =
  (element: ElementNode) =>
  (other: ElementNode): boolean =>
    other.name === element.name && other.namespace === element.namespace;

export function parentOf({ parent }: ElementNode): ElementNode | null {
  return parent?.type === 'element' ? parent : null;
}

interface Siblings {
  elements: ElementNode[];
  index: Map<ElementNode, number>;
  /** For each element its place among those of its name, and how many there are of each name. */
  types: { place: Map<ElementNode, number>; count: Map<string, number> };
}

const places = new WeakMap<object, Siblings>();

/** The elements among the children of a parent, in order; kept, since a document is not changed while it is matched. */
function elementsOf(parent: NonNullable<ElementNode['parent']>): Siblings {
  let known = places.get(parent);
  if (known === undefined) {
    const elements = parent.children.filter((child) => child.type === 'element');
    const [place, count] = [new Map<ElementNode, number>(), new Map<string, number>()];
    for (const element of elements) {
      const type = `${element.namespace} ${element.name}`;
      const at = count.get(type) ?? 0;
      place.set(element, at);
      count.set(type, at + 1);
    }
    known = { elements, index: new Map(elements.map((element, at) => [element, at])), types: { place, count } };
    places.set(parent, known);
  }
  return known;
}

function sibling(element: ElementNode, direction: -1 | 1, counts: (other: ElementNode) => boolean = () => true): ElementNode | null {
  if (element.parent === null) return null;
  const { elements, index } = elementsOf(element.parent);
  for (let at = index.get(element)! + direction; at >= 0 && at < elements.length; at += direction)
    if (counts(elements[at]!)) return elements[at]!;
  return null;
}

const classLists = new WeakMap<ElementNode, readonly string[]>();

/** The classes of an element, in order. */
export function classesOf(element: ElementNode): readonly string[] {
  let list = classLists.get(element);
  if (list === undefined)
    classLists.set(element, (list = (element.attribute('class') ?? '').split(/[\t\n\f\r ]+/).filter((name) => name !== '')));
  return list;
}

function languageOf(element: ElementNode): string {
  for (let at: ElementNode | null = element; at !== null; at = parentOf(at)) {
    const tag = at.attribute('lang') ?? at.attribute('xml:lang');
    if (tag !== undefined) return tag.toLowerCase();
  }
  return '';
}

/** Extended filtering (RFC 4647, section 3.3.2), as far as selectors need it. */
function isOfLanguage(tag: string, range: string): boolean {
  if (range === '*') return tag !== '';
  return tag === range || tag.startsWith(`${range}-`);
}

function directionOf(element: ElementNode): string {
  for (let at: ElementNode | null = element; at !== null; at = parentOf(at)) {
    const direction = at.attribute('dir')?.toLowerCase();
    if (direction === 'ltr' || direction === 'rtl') return direction;
  }
  return 'ltr';
}

/** A name with its escapes read (CSS Syntax Level 3, section 4.3.7). */
function decoded(name: string): string {
  return name.includes('\\')
    ? name.replace(/\\([0-9a-f]{1,6})\s?|\\(.)/gi, (_all, code: string | undefined, plain: string | undefined) =>
        code === undefined ? (plain ?? '') : String.fromCodePoint(Number.parseInt(code, 16) || 0xfffd),
      )
    : name;
}
