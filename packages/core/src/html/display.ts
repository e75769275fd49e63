import { isBlock } from './elements';
import { HTML_NAMESPACE, type ChildNode, type ElementNode } from './node';
import { steps } from './steps';

/*
 * What a browser makes of an element without any stylesheet but its own (HTML, section 15.3) and the element's inline style,
 * as far as it tells which words a reader sees, and which of them stand apart.
 */

/** Elements whose text no reader sees (HTML, section 15.3.1 "Hidden elements", and those that stand in for unsupported content). */
const HIDDEN: ReadonlySet<string> = new Set(
  'area base basefont datalist head iframe link meta noembed noframes noscript param rp script style template title'.split(' '),
);
/** Elements whose content is shown only by programs that cannot show the element itself (HTML, section 3.2.5.2.6 "Embedded content"). */
const SHOW_FALLBACK: ReadonlySet<string> = new Set('audio canvas embed meter object progress video'.split(' '));
/** Blocks that authors no longer write (HTML, section 15.3.3). */
const OLD_BLOCKS: ReadonlySet<string> = new Set('body html listing plaintext xmp frameset'.split(' '));
/** Controls (HTML, section 4.10) and the like, which stand beside words in boxes of their own. */
const CONTROLS: ReadonlySet<string> = new Set('button input marquee meter progress select textarea keygen'.split(' '));

/** How the words in an element are parted from those beside it. */
export type Parting = 'line' | 'cell' | 'box';

/** Whether a reader sees nothing of what an element holds, or not even the element. */
export function isHidden(element: ElementNode): boolean {
  const { name, attributes } = element;
  if (HIDDEN.has(name) || SHOW_FALLBACK.has(name)) return true;
  if (attributes.length === 0) return name === 'dialog';
  let isOpen = false;
  for (const { name: attribute, value } of attributes) {
    if (attribute === 'hidden' || attribute === 'popover') return true;
    if (attribute === 'open') isOpen = true;
    if (attribute === 'style' && hides(value)) return true;
    if (attribute === 'type' && name === 'input' && value.toLowerCase() === 'hidden') return true;
  }
  return name === 'dialog' && !isOpen;
}

/** What every declaration that hides something has in it. */
const MAY_HIDE = /display\s*:\s*none|visibility\s*:\s*(?:hidden|collapse)|mso-hide\s*:\s*all/i;

function hides(style: string): boolean {
  if (!MAY_HIDE.test(style)) return false;
  return (
    valueOf(style, 'display') === 'none' ||
    /^(?:hidden|collapse)$/.test(valueOf(style, 'visibility')) ||
    valueOf(style, 'mso-hide') === 'all'
  );
}

/** By what an element parts its words from those beside it, as `innerText` tells them apart (HTML, section 3.2.7); null for what stands in a line. */
export function partingOf(element: ElementNode): Parting | null {
  const { name } = element;
  if (element.namespace !== HTML_NAMESPACE) return null;
  const style = element.attributes.length === 0 ? undefined : element.attribute('style');
  if (style !== undefined && /display|float|position/i.test(style)) {
    const display = valueOf(style, 'display').replace(/\s.*/, '');
    if (display === 'table-cell') return 'cell';
    if (/^(?:block|flow-root|flex|grid|list-item|table|table-row|table-caption|table-row-group)$/.test(display)) return 'line';
    if (/^(?:left|right)$/.test(valueOf(style, 'float')) || /^(?:absolute|fixed)$/.test(valueOf(style, 'position'))) return 'line';
    if (/^inline/.test(display) && !CONTROLS.has(name)) return null;
  }
  if (name === 'td' || name === 'th') return 'cell';
  if (name === 'br' || OLD_BLOCKS.has(name) || (isBlock(name) && name !== 'col' && name !== 'colgroup')) return 'line';
  return CONTROLS.has(name) || name === 'rt' ? 'box' : null;
}

/** By what the words on both sides of an element are parted as long as it is there with all it holds; null where they go on into it. */
export function partingAround(element: ElementNode): Parting | null {
  if (isHidden(element)) return null;
  let found = partingOf(element);
  const stack: ChildNode[] = element.children.slice();
  for (let node = stack.pop(); node !== undefined && found !== 'line'; node = stack.pop()) {
    steps.taken++;
    if (node.type === 'text') {
      if (/[\s\u00a0]/.test(node.value)) found ??= 'box';
    } else if (node.type === 'element' && !isHidden(node)) {
      const inner = partingOf(node);
      if (inner === 'line') found = inner;
      else found ??= inner;
      for (const child of node.children) stack.push(child);
    }
  }
  return found;
}

/** The value that a declaration gives a property, in lower case and without importance; empty where there is none. The last one counts. */
function valueOf(style: string, property: string): string {
  let found = '';
  for (const part of style.split(';')) {
    const colon = part.indexOf(':');
    if (colon !== -1 && part.slice(0, colon).trim().toLowerCase() === property)
      found = part
        .slice(colon + 1)
        .replace(/!\s*important/i, '')
        .trim()
        .toLowerCase();
  }
  return found;
}
