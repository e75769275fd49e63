import { HIDDEN_ELEMENTS, REPLACED_ELEMENTS } from '../html/elements';
import type { ElementNode } from '../html/node';
import type { Severity } from '../ledger/entry';

/** How much of what went with an element, or with its tags, readers and authors notice. */
export function severityOfElement(element: ElementNode, action: string, textLost: number): Severity {
  if (textLost > 0 || (REPLACED_ELEMENTS.has(element.name) && action !== 'shown-as-text')) return 'loss';
  if (action === 'shown-as-text') return 'change';
  return HIDDEN_ELEMENTS.has(element.name) || isBareWrapper(element) ? 'tidy' : 'change';
}

function isBareWrapper(element: ElementNode): boolean {
  return (element.name === 'span' || element.name === 'div' || element.name.includes(':')) && element.attributes.length === 0;
}

const NOTICED_ATTRIBUTES: ReadonlySet<string> = new Set([
  'href',
  'src',
  'style',
  'class',
  'align',
  'color',
  'bgcolor',
  'width',
  'height',
  'target',
  'start',
  'type',
  'colspan',
  'rowspan',
]);

/** How much of an attribute that went authors notice. */
export function severityOfAttribute(name: string): Severity {
  return NOTICED_ATTRIBUTES.has(name) ? 'change' : 'tidy';
}
