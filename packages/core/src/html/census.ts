import type { ParentNode } from './node';
import { visibleLetters } from './text';

/** How often each element and each of its attributes occurs, and how large the whole is. */
export interface Census {
  elements: Record<string, number>;
  /** By element, then by attribute. */
  attributes: Record<string, Record<string, number>>;
  /** How many elements have each class; absent in what was counted before classes were. */
  classes?: Record<string, number>;
  /** Levels of the deepest element; 0 for plain text. */
  nesting: number;
  /** Letters a reader could see. */
  letters: number;
}

/** Counts the elements and attributes of a tree. */
export function takeCensus(root: ParentNode): Census {
  const elements = new Map<string, number>();
  const attributes = new Map<string, Map<string, number>>();
  const classes = new Map<string, number>();
  let nesting = 0;
  const stack: { node: ParentNode; depth: number }[] = [{ node: root, depth: 0 }];
  for (let open = stack.pop(); open !== undefined; open = stack.pop()) {
    nesting = Math.max(nesting, open.depth);
    for (const child of open.node.children) {
      if (child.type !== 'element') continue;
      elements.set(child.name, (elements.get(child.name) ?? 0) + 1);
      let counts = attributes.get(child.name);
      if (counts === undefined) attributes.set(child.name, (counts = new Map<string, number>()));
      for (const { name, value } of child.attributes) {
        counts.set(name, (counts.get(name) ?? 0) + 1);
        if (name !== 'class') continue;
        for (const word of new Set(value.split(/[\t\n\f\r ]+/))) if (word !== '') classes.set(word, (classes.get(word) ?? 0) + 1);
      }
      stack.push({ node: child, depth: open.depth + 1 });
    }
  }
  return {
    elements: Object.fromEntries(elements),
    attributes: Object.fromEntries([...attributes].map(([name, counts]) => [name, Object.fromEntries(counts)])),
    classes: Object.fromEntries(classes),
    nesting,
    letters: visibleLetters(root),
  };
}

/** What many documents hold together: counts added up, and the most that any one has. */
export interface CensusOfAll {
  documents: number;
  elements: Record<string, number>;
  attributes: Record<string, Record<string, number>>;
  classes: Record<string, number>;
  /** The most in any one document. */
  most: { nesting: number; elements: number; letters: number };
}

/** Adds up the censuses of documents. */
export const sumCensuses = (all: Iterable<Census>): CensusOfAll => {
  const sum = new CensusSum();
  for (const census of all) sum.add(census);
  return sum.total;
};

/** A sum of censuses that grows: no more than one of them need be held at once. */
export class CensusSum {
  readonly total: CensusOfAll = { documents: 0, elements: {}, attributes: {}, classes: {}, most: { nesting: 0, elements: 0, letters: 0 } };

  add({ elements, attributes, classes = {}, nesting, letters }: Census): void {
    const { total } = this;
    total.documents++;
    addCounts(total.classes, classes);
    const count = addCounts(total.elements, elements);
    for (const [element, counts] of Object.entries(attributes)) {
      if (!Object.hasOwn(total.attributes, element)) total.attributes[element] = {};
      addCounts(total.attributes[element]!, counts);
    }
    const { most } = total;
    most.nesting = Math.max(most.nesting, nesting);
    most.elements = Math.max(most.elements, count);
    most.letters = Math.max(most.letters, letters);
  }
}

/** @returns how many were added in all */
function addCounts(into: Record<string, number>, counts: Record<string, number>): number {
  let total = 0;
  for (const [name, count] of Object.entries(counts)) {
    into[name] = (Object.hasOwn(into, name) ? into[name]! : 0) + count;
    total += count;
  }
  return total;
}
