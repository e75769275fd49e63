import type { ElementNode } from '../html/node';
import { spend } from './budget';
import { allBeside, childrenOf, parentOf, placeOf, sibling } from './relations';

export type Test = (element: ElementNode) => boolean;

/** The parts of a complex selector, and the combinator between each and the next. */
export interface Parts {
  tests: readonly (readonly Test[])[];
  combinators: readonly string[];
}

const passes = (element: ElementNode, tests: readonly Test[]): boolean => {
  spend();
  return tests.every((test) => test(element));
};

/** Answers about elements, kept. */
type Known = WeakMap<ElementNode, boolean>;

/**
 * Matches complex selectors from the right (Selectors Level 4, section 17.1). For each combinator that may lead to several
 * elements, what was found is kept: a selector costs a document at most its parts times the elements, whatever it asks.
 */
export function matcherOf({ tests, combinators }: Parts): Test {
  // For each part: whether an element around (or before) matches all up to that part.
  const around: Known[] = [];

  const matches = (element: ElementNode, part: number): boolean => {
    let at = element;
    for (let index = part; ; index--) {
      if (!passes(at, tests[index]!)) return false;
      if (index === 0) return true;
      const combinator = combinators[index - 1];
      if (combinator === ' ') return someOf(at, index - 1, parentOf);
      if (combinator === '~') return someOf(at, index - 1, before);
      const next = combinator === '>' ? parentOf(at) : combinator === '+' ? before(at) : null;
      if (next === null) return false;
      at = next;
    }
  };
  const someOf = (element: ElementNode, part: number, step: (from: ElementNode) => ElementNode | null): boolean => {
    const known = (around[part] ??= new WeakMap());
    const way: ElementNode[] = [];
    let answer = false;
    for (let at: ElementNode | null = element; at !== null; at = step(at)) {
      const found = known.get(at);
      if (found !== undefined) {
        answer = found;
        break;
      }
      way.push(at);
    }
    for (let at = way.pop(); at !== undefined; at = way.pop()) {
      const next = step(at);
      answer ||= next !== null && matches(next, part);
      known.set(at, answer);
    }
    return answer;
  };
  return (element) => matches(element, tests.length - 1);
}

const before = (element: ElementNode): ElementNode | null => sibling(element, -1);

/**
 * Matches a relative selector of `:has()` from the left (Selectors Level 4, section 4.5): whether it leads from an element to
 * any other. What was found below and behind each element is kept.
 *
 * @param first the combinator with which it begins
 */
export function relativeMatcherOf(first: string, { tests, combinators }: Parts): Test {
  const below: Known[] = [];
  const behind: Known[] = [];

  const leadsOn = (element: ElementNode, part: number): boolean =>
    passes(element, tests[part]!) && (part === tests.length - 1 || reaches(element, combinators[part]!, part + 1));

  const reaches = (element: ElementNode, combinator: string, part: number): boolean => {
    switch (combinator) {
      case '>':
        return childrenOf(element).some((child) => leadsOn(child, part));
      case '+': {
        const next = sibling(element, 1);
        return next !== null && leadsOn(next, part);
      }
      case '~':
        return isBehind(element, part);
      default:
        return isBelow(element, part);
    }
  };
  const isBelow = (element: ElementNode, part: number): boolean => {
    const known = (below[part] ??= new WeakMap());
    // Each element twice: once to go down, once its children are known.
    const stack: { at: ElementNode; isReady: boolean }[] = [{ at: element, isReady: false }];
    for (let top = stack.pop(); top !== undefined; top = stack.pop()) {
      if (known.has(top.at)) continue;
      const children = childrenOf(top.at);
      if (top.isReady)
        known.set(
          top.at,
          children.some((child) => known.get(child)! || leadsOn(child, part)),
        );
      else {
        stack.push({ at: top.at, isReady: true });
        for (const child of children) stack.push({ at: child, isReady: false });
      }
    }
    return known.get(element)!;
  };
  const isBehind = (element: ElementNode, part: number): boolean => {
    const known = (behind[part] ??= new WeakMap());
    const all = allBeside(element);
    let answer = false;
    const from = placeOf(element).place - 1;
    let at = from;
    while (at < all.length && !known.has(all[at]!)) at++;
    if (at < all.length) answer = known.get(all[at]!)!;
    for (at--; at >= from; at--) {
      const next = all[at + 1];
      answer ||= next !== undefined && leadsOn(next, part);
      known.set(all[at]!, answer);
    }
    return answer;
  };
  return (element) => reaches(element, first, 0);
}
