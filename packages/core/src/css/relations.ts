import type { ElementNode } from '../html/node';

/**
 * How elements stand to each other, as selectors ask it. What was found is kept, since a document is not changed while it is
 * matched: each question costs one step, however long the document is.
 */

export function parentOf({ parent }: ElementNode): ElementNode | null {
  return parent?.type === 'element' ? parent : null;
}

interface Siblings {
  elements: readonly ElementNode[];
  index: ReadonlyMap<ElementNode, number>;
  /** For each element its place among those of its name, from 0 on, and how many there are of each name. */
  typePlace: ReadonlyMap<ElementNode, number>;
  typeCount: ReadonlyMap<string, number>;
}

const known = new WeakMap<object, Siblings>();
const typeOf = ({ namespace, name }: ElementNode): string => `${namespace} ${name}`;

/** The elements among the children of a parent, in order. */
function siblingsOf(parent: NonNullable<ElementNode['parent']>): Siblings {
  let siblings = known.get(parent);
  if (siblings === undefined) {
    const elements = parent.children.filter((child) => child.type === 'element');
    const [typePlace, typeCount] = [new Map<ElementNode, number>(), new Map<string, number>()];
    for (const element of elements) {
      const type = typeOf(element);
      const at = typeCount.get(type) ?? 0;
      typePlace.set(element, at);
      typeCount.set(type, at + 1);
    }
    siblings = { elements, index: new Map(elements.map((element, at) => [element, at])), typePlace, typeCount };
    known.set(parent, siblings);
  }
  return siblings;
}

/** The child elements of an element, in order. */
export const childrenOf = (element: ElementNode): readonly ElementNode[] => siblingsOf(element).elements;

/** Every element beside an element, itself among them, in order. */
export const allBeside = (element: ElementNode): readonly ElementNode[] =>
  element.parent === null ? [element] : siblingsOf(element.parent).elements;

/** The element before (-1) or behind (1) an element; null where there is none. */
export function sibling(element: ElementNode, direction: -1 | 1): ElementNode | null {
  if (element.parent === null) return null;
  const { elements, index } = siblingsOf(element.parent);
  return elements[index.get(element)! + direction] ?? null;
}

/** Which one an element is among its siblings, or among those of its name, from 1 on; and how many there are. */
export function placeOf(element: ElementNode, isOfType = false): { place: number; count: number } {
  if (element.parent === null) return { place: 1, count: 1 };
  const { elements, index, typePlace, typeCount } = siblingsOf(element.parent);
  return isOfType
    ? { place: typePlace.get(element)! + 1, count: typeCount.get(typeOf(element))! }
    : { place: index.get(element)! + 1, count: elements.length };
}

const classLists = new WeakMap<ElementNode, readonly string[]>();

/** The classes of an element, in order. */
export function classesOf(element: ElementNode): readonly string[] {
  let list = classLists.get(element);
  if (list === undefined)
    classLists.set(element, (list = (element.attribute('class') ?? '').split(/[\t\n\f\r ]+/).filter((name) => name !== '')));
  return list;
}

/**
 * Works out something of an element that follows from the same of its parent, for all elements on the way that do not have
 * it yet: without recursion, and once for each element.
 */
export function fromParent<Value>(outermost: Value, own: (element: ElementNode, above: Value) => Value): (element: ElementNode) => Value {
  const values = new WeakMap<ElementNode, { value: Value }>();
  return (element) => {
    const way: ElementNode[] = [];
    let value = outermost;
    for (let at: ElementNode | null = element; at !== null; at = parentOf(at)) {
      const found = values.get(at);
      if (found !== undefined) {
        ({ value } = found);
        break;
      }
      way.push(at);
    }
    for (let at = way.pop(); at !== undefined; at = way.pop()) values.set(at, { value: (value = own(at, value)) });
    return value;
  };
}

/** So many bits tell which classes and ids stand around an element. */
const BITS = 1024;
const EMPTY = new Int32Array(BITS / 32);

/** What stands around the children of an element: one bit for each class and id, which several may share. */
const bitsWithin = fromParent<Int32Array>(EMPTY, (element, around) => {
  const id = element.attribute('id');
  const names = classesOf(element);
  if (id === undefined && names.length === 0) return around;
  const bits = around.slice();
  for (const name of names) set(bits, `.${name}`);
  if (id !== undefined) set(bits, `#${id}`);
  return bits;
});

function set(bits: Int32Array, name: string): void {
  const bit = bitOf(name);
  bits[bit >> 5]! |= 1 << (bit & 31);
}

function bitOf(name: string): number {
  let hash = 5381;
  for (let at = 0; at < name.length; at++) hash = (Math.imul(hash, 33) ^ name.charCodeAt(at)) | 0;
  return hash & (BITS - 1);
}

/** Whether a class or id, as selectors write it, may stand on an element around this one; false only where none does. */
export function mayBeAround(element: ElementNode): (name: string) => boolean {
  const parent = parentOf(element);
  const bits = parent === null ? EMPTY : bitsWithin(parent);
  return (name) => {
    const bit = bitOf(name);
    return (bits[bit >> 5]! & (1 << (bit & 31))) !== 0;
  };
}

/** The language of an element, in lower case; empty for none that is told. */
export const languageOf = fromParent('', (element, around) =>
  (element.attribute('lang') ?? element.attribute('xml:lang') ?? around).toLowerCase(),
);

/** The direction of an element's text, as far as attributes tell. */
export const directionOf = fromParent<'ltr' | 'rtl'>('ltr', (element, around) => {
  const direction = element.attribute('dir')?.toLowerCase();
  return direction === 'ltr' || direction === 'rtl' ? direction : around;
});
