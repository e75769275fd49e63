import { generate, type CssNode } from 'css-tree';
import type { ElementNode } from '../html/node';
import { relativeMatcherOf, type Parts, type Test } from './chain';
import { allBeside, directionOf, languageOf, parentOf, placeOf } from './relations';
import { greatest, sum, type Specificity } from './specificity';

/** A selector that cannot be read or is not known; browsers drop the whole rule. */
export class SelectorMistake extends Error {}

/** What pseudo-classes need of selectors that stand within them. */
export interface Compile {
  list(list: CssNode): readonly Compiled[];
  /** Of a forgiving list (`:is`, `:where`), what cannot be read is left out. */
  forgiving(list: CssNode): readonly Compiled[];
  /** The parts of a selector that begins with a combinator, or with that for descendants. */
  relative(selector: CssNode): { first: string; parts: Parts; specificity: Specificity };
}

interface Compiled {
  specificity: Specificity;
  pseudoElement: string;
  matches: Test;
}

/** States that only a person at the page brings about: a page at rest has none of them. */
const NEVER_AT_REST: ReadonlySet<string> = new Set(
  'hover active focus focus-visible focus-within visited target target-within fullscreen modal popover-open user-invalid user-valid playing seeking buffering stalled muted autofill picture-in-picture current past future default indeterminate open placeholder-shown in-range out-of-range valid invalid host has-slotted'.split(
    ' ',
  ),
);
const FORM_ELEMENTS: ReadonlySet<string> = new Set(['button', 'input', 'select', 'textarea', 'optgroup', 'option', 'fieldset']);

/**
 * Compiles a pseudo-class.
 *
 * @param name in lower case
 * @param children what stands in its brackets; null where it has none
 * @throws SelectorMistake where a browser would drop the rule
 */
export function pseudoClass(name: string, children: readonly CssNode[] | null, compile: Compile): [Specificity, Test] {
  const plain: Specificity = [0, 1, 0];
  const argument = children?.[0];
  switch (name) {
    case 'is':
    case 'matches':
    case '-webkit-any':
    case '-moz-any':
    case 'where': {
      if (argument === undefined) throw new SelectorMistake(`:${name}() needs selectors.`);
      const list = compile.forgiving(argument);
      return [
        name === 'where' ? [0, 0, 0] : greatest(list),
        (element) => list.some((one) => one.pseudoElement === '' && one.matches(element)),
      ];
    }
    case 'not': {
      if (argument === undefined) throw new SelectorMistake(':not() needs selectors.');
      const list = compile.list(argument);
      return [greatest(list), (element) => !list.some(({ matches }) => matches(element))];
    }
    case 'has':
      return has(argument, compile);
    case 'nth-child':
    case 'nth-last-child':
    case 'nth-of-type':
    case 'nth-last-of-type':
      return nth(name, argument, compile);
    case 'first-child':
      return [plain, (element) => placeOf(element).place === 1];
    case 'last-child':
      return [plain, (element) => isLast(element, false)];
    case 'only-child':
      return [plain, (element) => placeOf(element).count === 1];
    case 'first-of-type':
      return [plain, (element) => placeOf(element, true).place === 1];
    case 'last-of-type':
      return [plain, (element) => isLast(element, true)];
    case 'only-of-type':
      return [plain, (element) => placeOf(element, true).count === 1];
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

const isLast = (element: ElementNode, isOfType: boolean): boolean => {
  const { place, count } = placeOf(element, isOfType);
  return place === count;
};

function isWritable(element: ElementNode): boolean {
  return (
    (element.name === 'input' || element.name === 'textarea') &&
    element.attribute('readonly') === undefined &&
    element.attribute('disabled') === undefined
  );
}

/** `:has()` (Selectors Level 4, section 4.5): relative selectors, tried on what follows or lies below the element. */
function has(argument: CssNode | undefined, compile: Compile): [Specificity, Test] {
  if (argument?.type !== 'SelectorList') throw new SelectorMistake(':has() needs selectors.');
  const relatives = argument.children.toArray().map((node) => compile.relative(node));
  const matchers = relatives.map(({ first, parts }) => relativeMatcherOf(first, parts));
  return [greatest(relatives), (element) => matchers.some((matches) => matches(element))];
}

/** `:nth-child()` and its kin, with `of` (Selectors Level 4, section 14.3). */
function nth(name: string, argument: CssNode | undefined, compile: Compile): [Specificity, Test] {
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
  const of = selector === null ? null : compile.list(selector);
  const counts = of === null ? null : countedBy((element) => of.some(({ matches }) => matches(element)));
  const fromEnd = name.includes('last');
  const isOfType = name.endsWith('of-type');
  return [
    of === null ? [0, 1, 0] : sum([0, 1, 0], greatest(of)),
    (element) => {
      const { place, count } = counts === null ? placeOf(element, isOfType) : counts(element);
      // One that the list after "of" leaves out is none of them.
      if (place === 0) return false;
      const index = fromEnd ? count - place + 1 : place;
      return a === 0 ? index === b : (index - b) / a >= 0 && Number.isInteger((index - b) / a);
    },
  ];
}

/** Which one an element is among those beside it that count, from 1 on; 0 where it does not count. Each list is counted once. */
function countedBy(counts: Test): (element: ElementNode) => { place: number; count: number } {
  const known = new WeakMap<ElementNode, { places: ReadonlyMap<ElementNode, number>; count: number }>();
  return (element) => {
    const all = allBeside(element);
    let found = known.get(all[0]!);
    if (found === undefined) {
      const places = new Map<ElementNode, number>();
      for (const other of all) if (counts(other)) places.set(other, places.size + 1);
      known.set(all[0]!, (found = { places, count: places.size }));
    }
    return { place: found.places.get(element) ?? 0, count: found.count };
  };
}

/** Extended filtering (RFC 4647, section 3.3.2), as far as selectors need it. */
function isOfLanguage(tag: string, range: string): boolean {
  if (range === '*') return tag !== '';
  return tag === range || tag.startsWith(`${range}-`);
}
