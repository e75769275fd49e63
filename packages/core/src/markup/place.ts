import type { ChildNode, ElementNode } from '../html/node';
import type { Range } from '../html/positions';

/** Where what is in an element stands, for one that the parser added; null where nothing in it has a place. */
export function placeWithin(element: ElementNode): Range | null {
  const [first, last] = [placedIn(element, 'first'), placedIn(element, 'last')];
  if (first === null || last === null) return null;
  const end = last.type === 'element' ? endOf(last) : last.end;
  return end > first.start ? { start: first.start, end } : null;
}

/** So many nodes are looked at for a place. */
const NEAR = 100;

/** The first or the last node in an element that was in the input. */
function placedIn(element: ElementNode, which: 'first' | 'last'): ChildNode | null {
  let holder: ElementNode | null = element;
  while (holder !== null) {
    const { children }: ElementNode = holder;
    const near: ChildNode[] = which === 'first' ? children.slice(0, NEAR) : children.slice(-NEAR).reverse();
    const placed = near.find(({ start }) => start >= 0);
    if (placed !== undefined) return placed;
    holder = (near.find((node) => node.type === 'element' && node.children.length > 0) as ElementNode | undefined) ?? null;
  }
  return null;
}

/** The place of a piece of an attribute's value, where the source shows the value as it is: without references. */
export function pieceIn(input: string, { start, end }: Range, piece: Range): Range | undefined {
  const source = input.slice(start, end);
  const equals = /^[^=]*=[\t\n\f\r ]*["']?/.exec(source);
  if (equals === null || /[&\r\0]/.test(source)) return undefined;
  return { start: start + equals[0].length + piece.start, end: Math.min(end, start + equals[0].length + piece.end) };
}

const FORMATTING: ReadonlySet<string> = new Set('a b big code em font i nobr s small strike strong tt u'.split(' '));

/**
 * Whether the parser made an element in addition to the one that stands in the input: formatting that was reopened in the
 * next block or split around one (HTML, section 13.2.6.4.7, the adoption agency algorithm). The first one is reported.
 */
export function isCopy(element: ElementNode): boolean {
  return element.isCopy || (element.start < 0 && FORMATTING.has(element.name));
}

/** Where an element ends; one that nobody closed and that the end did not close either ends with its start tag. */
export function endOf(element: ElementNode): number {
  return element.end < 0 ? element.startTagEnd : element.end;
}
