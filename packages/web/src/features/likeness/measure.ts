import { SEEN } from '@typikon/core';

/** What a browser shows differently in two frames. */
export interface Measured {
  /** Each difference as `index property`. */
  differences: ReadonlyMap<string, { editor: string; page: string }>;
  /** Elements that reach beyond the column, with how wide they are and how wide it is. */
  misfits: { index: number; neededPx: number; columnPx: number; side: 'editor' | 'page' }[];
}

/** What follows from layout: the comparison of rules does not claim it. */
const BY_LAYOUT =
  /^(width|height|min-width|min-height|top|right|bottom|left|margin-left|margin-right|aspect-ratio|grid-|transform|rotate|scale|translate|flex-basis|background-position|line-height$|-webkit|counter-|quotes|appearance|overflow|content|text-decoration-thickness|font-variant$|vertical-align|text-emphasis-color|white-space|text-wrap|justify-items|align-|border-image|mask-image)/;
const MEASURED = [...SEEN.keys()].filter((name) => !BY_LAYOUT.test(name));
const PICTURES: ReadonlySet<string> = new Set(['img', 'video', 'iframe', 'svg', 'canvas', 'object', 'embed']);
/** Less than this is rounding. */
const TOLERANCE_PX = 1.5;

/** Compares the computed styles and the boxes of the same content in two frames. */
export function measure(editor: readonly HTMLElement[], page: readonly HTMLElement[]): Measured {
  const differences = new Map<string, { editor: string; page: string }>();
  const misfits: Measured['misfits'] = [];
  // A frame that was written anew meanwhile has nothing to measure.
  if ([editor[0], page[0]].some((element) => element !== undefined && element.ownerDocument.defaultView === null))
    return { differences, misfits };
  for (let index = 0; index < Math.min(editor.length, page.length); index++) {
    const [one, other] = [editor[index]!, page[index]!];
    const [left, right] = [styleOf(one), styleOf(other)];
    if (left.display === 'none' && right.display === 'none') continue;
    for (const property of MEASURED) {
      const values = [valueOf(left, property), valueOf(right, property)] as const;
      if (values[0] !== values[1] && isShown(one, property, left, right))
        differences.set(`${index} ${property}`, { editor: values[0], page: values[1] });
    }
  }
  for (const [side, elements] of [
    ['editor', editor],
    ['page', page],
  ] as const) {
    const column = elements[0]?.closest('[data-mount]');
    if (column == null) continue;
    const edge = innerEdge(column);
    elements.forEach((element, index) => {
      const box = element.getBoundingClientRect();
      // What is wide only by what it holds is told by that; lines of text break by themselves.
      if (box.right <= edge.right + TOLERANCE_PX || box.width === 0 || styleOf(element).display === 'inline') return;
      if (
        elements.some(
          (other) => other !== element && element.contains(other) && other.getBoundingClientRect().right >= box.right - TOLERANCE_PX,
        )
      ) {
        const isTable = element.localName === 'table';
        if (!isTable) return;
      }
      if (element.parentElement?.closest('table') !== null && element.localName !== 'img' && element.localName !== 'table') return;
      misfits.push({ index, neededPx: Math.round(box.right - edge.left), columnPx: Math.round(edge.right - edge.left), side });
    });
  }
  return { differences, misfits };
}

const styleOf = (element: Element): CSSStyleDeclaration => element.ownerDocument.defaultView!.getComputedStyle(element);

function valueOf(style: CSSStyleDeclaration, property: string): string {
  const value = style.getPropertyValue(property);
  return value === 'start' ? 'left' : value;
}

function innerEdge(column: Element): { left: number; right: number } {
  const box = column.getBoundingClientRect();
  const style = styleOf(column);
  const px = (name: string): number => Number.parseFloat(style.getPropertyValue(name)) || 0;
  return {
    left: box.left + px('padding-left') + px('border-left-width'),
    right: box.right - px('padding-right') - px('border-right-width'),
  };
}

/** Whether the element shows a property at all; the comparison of rules asks the same. */
function isShown(element: HTMLElement, property: string, one: CSSStyleDeclaration, other: CSSStyleDeclaration): boolean {
  const { on } = SEEN.get(property)!;
  const line = /^(border-(?:top|right|bottom|left)|outline|column-rule)-color$/.exec(property)?.[1];
  if (line !== undefined)
    return [one, other].every(
      (style) => !/^(none|hidden)$/.test(style.getPropertyValue(`${line}-style`)) && style.getPropertyValue(`${line}-width`) !== '0px',
    );
  if (property === 'text-decoration-color')
    return [one, other].every((style) => style.getPropertyValue('text-decoration-line') !== 'none') && hasWords(element);
  switch (on) {
    case 'text':
      return hasWords(element);
    case 'item':
      return one.display === 'list-item';
    case 'table':
      return element.localName === 'table';
    case 'cell':
      return one.display === 'table-cell';
    case 'caption':
      return element.localName === 'caption';
    case 'picture':
      return PICTURES.has(element.localName);
    case 'block':
      return one.display !== 'inline' && (!/^text-(align|indent)/.test(property) || hasWords(element));
    default:
      return element.localName !== 'br';
  }
}

const hasWords = (element: Element): boolean =>
  [...element.childNodes].some((node) => node.nodeType === Node.TEXT_NODE && node.nodeValue!.trim() !== '');
