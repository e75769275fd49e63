import type { ParentNode } from '../html/node';
import type { Authority } from '../ledger/ledger';

/** The prefix that ids get, and the names that elements of this content have. */
export interface IdNames {
  prefix: string;
  by: Authority;
  names: ReadonlySet<string>;
}

/** Attributes whose words are ids of other elements (HTML, sections 4.9.11 and 4.10.4; WAI-ARIA 1.2, section 6.7). */
const REFERENCES: ReadonlySet<string> = new Set(
  'for headers list aria-activedescendant aria-controls aria-describedby aria-details aria-errormessage aria-flowto aria-labelledby aria-owns'.split(
    ' ',
  ),
);

/**
 * Finds every id and anchor name of a tree, with and without the prefix that they may have already.
 *
 * @param input the text that the tree was read from
 */
export function collectIds(root: ParentNode, input: string, { prefix, by }: { prefix: string; by: Authority }): IdNames {
  const names = new Set<string>();
  // Most markup has none, which is told from its text far more quickly than from its tree.
  if (!/[\s/"'](?:id|name)[\s=]/i.test(input)) return { prefix, by, names };
  const stack: ParentNode[] = [root];
  for (let node = stack.pop(); node !== undefined; node = stack.pop())
    for (const child of node.children) {
      if (child.type !== 'element') continue;
      for (const { name, value } of child.attributes)
        if (isId(child.name, name)) names.add(value).add(value.startsWith(prefix) ? value.slice(prefix.length) : value);
      if (child.children.length > 0) stack.push(child);
    }
  return { prefix, by, names };
}

/** Whether an attribute of an element is a name that gets the prefix. */
export function isId(element: string, attribute: string): boolean {
  return attribute === 'id' || (attribute === 'name' && (element === 'a' || element === 'map'));
}

function isFragment(attribute: string, value: string): boolean {
  return (attribute === 'href' || attribute === 'usemap') && value.startsWith('#');
}

/** Whether an attribute with a value is a name of this content, or refers to one. */
export const isReference = (element: string, attribute: string, value: string): boolean =>
  isId(element, attribute) || isFragment(attribute, value) || REFERENCES.has(attribute);

/** The value with the prefix before each id in it that belongs to this content. */
export function prefixed(element: string, attribute: string, value: string, { prefix, names }: IdNames): string {
  const add = (id: string): string => (id === '' || id.startsWith(prefix) ? id : prefix + id);
  if (isId(element, attribute)) return add(value);
  if (isFragment(attribute, value)) return names.has(value.slice(1)) ? `#${add(value.slice(1))}` : value;
  if (!REFERENCES.has(attribute)) return value;
  return value.replace(/[^\t\n\f\r ]+/g, (id) => (names.has(id) ? add(id) : id));
}

/** The value as it was before it got the prefix: tests of the rules are about the names that authors give. */
export function unprefixed(element: string, attribute: string, value: string, { prefix }: IdNames): string {
  const take = (id: string): string => (id.startsWith(prefix) ? id.slice(prefix.length) : id);
  if (isId(element, attribute)) return take(value);
  if (isFragment(attribute, value)) return `#${take(value.slice(1))}`;
  return REFERENCES.has(attribute) ? value.replace(/[^\t\n\f\r ]+/g, take) : value;
}
