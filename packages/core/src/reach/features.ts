import { HTML_NAMESPACE, type ElementNode, type FragmentNode, type ParentNode } from '../html/node';
import { SAFETY_FLOOR } from '../markup/floor';

/**
 * What a document holds, as far as rules ask for it. The same features of two documents do not make them the same, but where two
 * sets of rules treat every feature of a document alike, they do the same to it.
 */
export interface Features {
  /** Every element of HTML, by name, that is not within one that the safety floor takes whole. */
  elements: ReadonlySet<string>;
  /** Every attribute of those, each once. */
  attributes: readonly AttributeFeature[];
  /** How many nodes the document has. */
  nodes: number;
  /** Length of the markup in UTF-16 units. */
  length: number;
  hasComments: boolean;
  hasHardSpaces: boolean;
  /** Whether it holds any character outside ASCII. */
  isBeyondAscii: boolean;
}

export interface AttributeFeature {
  element: string;
  attribute: string;
  value: string;
}

/** The definition of the features: kept beside those that are stored, which are worthless once it is another. */
export const FEATURES_VERSION = 1;

const dropped: ReadonlySet<string> = new Set<string>(SAFETY_FLOOR.elements.drop);

/**
 * Takes the features of a document.
 *
 * @param root the tree as it was parsed; it is not changed
 * @param input the markup it was parsed from
 */
export function featuresOf(root: FragmentNode, input: string): Features {
  const elements = new Set<string>();
  const attributes = new Map<string, AttributeFeature>();
  let [nodes, hasComments, hasHardSpaces, isBeyondAscii] = [0, false, false, false];
  const look = (text: string): void => {
    if (!isBeyondAscii && BEYOND_ASCII.test(text)) isBeyondAscii = true;
    if (isBeyondAscii && !hasHardSpaces && text.includes('\u00a0')) hasHardSpaces = true;
  };
  look(input);
  const stack: ParentNode[] = [root];
  for (let parent = stack.pop(); parent !== undefined; parent = stack.pop())
    for (const child of parent.children) {
      nodes++;
      if (child.type === 'text') look(child.value);
      else if (child.type === 'comment') hasComments = true;
      else {
        for (const { value } of child.attributes) look(value);
        if (child.namespace !== HTML_NAMESPACE || dropped.has(child.name)) {
          // Rules are not asked for what is in it; how much there is of it counts all the same.
          nodes += nodesIn(child);
          elements.add(child.name);
          continue;
        }
        elements.add(child.name);
        for (const { name, value } of child.attributes)
          attributes.set(`${child.name}\n${name}\n${value}`, { element: child.name, attribute: name, value });
        if (child.children.length > 0) stack.push(child);
      }
    }
  return { elements, attributes: [...attributes.values()], nodes, length: input.length, hasComments, hasHardSpaces, isBeyondAscii };
}

// eslint-disable-next-line no-control-regex -- all of ASCII is meant
const BEYOND_ASCII = /[^\u0000-\u007f]/;

function nodesIn(element: ElementNode): number {
  let nodes = 0;
  const stack: ParentNode[] = [element];
  for (let parent = stack.pop(); parent !== undefined; parent = stack.pop())
    for (const child of parent.children) {
      nodes++;
      if (child.type === 'element' && child.children.length > 0) stack.push(child);
    }
  return nodes;
}
