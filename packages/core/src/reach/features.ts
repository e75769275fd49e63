import { HTML_NAMESPACE, type ElementNode, type FragmentNode, type ParentNode } from '../html/node';
import { hasLetters } from '../html/text';
import { SAFETY_FLOOR } from '../markup/floor';
import { IMPLIED_BY, MADE_WHOLES, wholesOf } from '../markup/parts';

/**
 * What a document holds, as far as rules ask for it. The same features of two documents do not make them the same, but where two
 * sets of rules treat every feature of a document alike, they do the same to it.
 */
export interface Features {
  /** Every element of HTML, by name, that is not within one that the safety floor takes whole. */
  elements: ReadonlySet<string>;
  /** Every attribute of those, each once. */
  attributes: readonly AttributeFeature[];
  /** What follows from where elements stand: see {@link STRUCTURE}; each once. */
  structure: readonly AttributeFeature[];
  /** How many nodes the document has. */
  nodes: number;
  /** How deep its elements stand in each other. */
  depth: number;
  /** Length of the markup in UTF-16 units. */
  length: number;
  hasComments: boolean;
  hasHardSpaces: boolean;
  /** Whether it has a paragraph or a heading without any letter. */
  hasBlanks: boolean;
  /** Whether it holds any character outside ASCII. */
  isBeyondAscii: boolean;
}

export interface AttributeFeature {
  element: string;
  /** Empty for the element itself; a name from {@link STRUCTURE} for what no attribute can be called. */
  attribute: string;
  value: string;
}

/** What stands where names of attributes do; none can be called so (HTML, section 13.1.2.3). */
export const STRUCTURE = {
  /** The element is made around parts that stand outside of it. */
  made: '>made',
  /** The element, which the parser puts around others by itself, has no attributes somewhere. */
  bare: '>bare',
} as const;

/** The definition of the features: kept beside those that are stored, which are worthless once it is another. */
export const FEATURES_VERSION = 2;

/** Everything that a document holds, in one list. */
export function* everyFeature({ elements, attributes, structure }: Features): Generator<AttributeFeature> {
  for (const element of elements) yield { element, attribute: '', value: '' };
  yield* attributes;
  yield* structure;
}

const dropped: ReadonlySet<string> = new Set<string>(SAFETY_FLOOR.elements.drop);
const unwrapped: ReadonlySet<string> = new Set<string>(SAFETY_FLOOR.elements.unwrap);
const CAN_BE_BLANK = /^(?:p|h[1-6])$/;

/** An element whose children are still to be looked at, with the elements that hold it once the safety floor has been applied. */
interface Open {
  parent: ParentNode;
  holder: string;
  grand: string;
  depth: number;
  outer: Open | null;
  /** Whether a letter was found in it. */
  shows: boolean;
}

/**
 * Takes the features of a document.
 *
 * @param root the tree as it was parsed; it is not changed
 * @param input the markup it was parsed from
 */
export function featuresOf(root: FragmentNode, input: string): Features {
  const elements = new Set<string>();
  const attributes = new Map<string, AttributeFeature>();
  const structure = new Map<string, AttributeFeature>();
  let [nodes, deepest, hasComments, hasHardSpaces, isBeyondAscii] = [0, 0, false, false, false];
  const look = (text: string): void => {
    if (!isBeyondAscii && BEYOND_ASCII.test(text)) isBeyondAscii = true;
    if (isBeyondAscii && !hasHardSpaces && text.includes('\u00a0')) hasHardSpaces = true;
  };
  const note = (element: string, fact: string): void => void structure.set(element + fact, { element, attribute: fact, value: '' });
  const found = (within: Open): void => {
    for (let at: Open | null = within; at !== null && !at.shows; at = at.outer) at.shows = true;
  };
  look(input);
  const canBeBlank: Open[] = [];
  const stack: Open[] = [{ parent: root, holder: '', grand: '', depth: 0, outer: null, shows: false }];
  for (let open = stack.pop(); open !== undefined; open = stack.pop())
    for (const child of open.parent.children) {
      nodes++;
      if (child.type === 'text') {
        look(child.value);
        if (!open.shows && hasLetters(child.value)) found(open);
      } else if (child.type === 'comment') hasComments = true;
      else {
        const depth = open.depth + 1;
        deepest = Math.max(deepest, depth);
        for (const { value } of child.attributes) look(value);
        elements.add(child.name);
        if (child.namespace !== HTML_NAMESPACE || dropped.has(child.name)) {
          // Rules are not asked for what is in it; how much there is of it counts all the same.
          nodes += nodesIn(child);
          continue;
        }
        for (const { name, value } of child.attributes)
          attributes.set(`${child.name}\n${name}\n${value}`, { element: child.name, attribute: name, value });
        if (unwrapped.has(child.name)) {
          stack.push({ ...open, parent: child, depth, outer: open, shows: false });
          continue;
        }
        if (child.attributes.length === 0 && IMPLIED_BY[child.name] !== undefined) note(child.name, STRUCTURE.bare);
        const made = madeAround(child.name, open.holder, open.grand);
        if (made !== null) note(made, STRUCTURE.made);
        const inner = { parent: child, holder: child.name, grand: open.holder, depth, outer: open, shows: false };
        if (CAN_BE_BLANK.test(child.name)) canBeBlank.push(inner);
        if (child.children.length > 0) stack.push(inner);
      }
    }
  return {
    elements,
    attributes: [...attributes.values()],
    structure: [...structure.values()],
    nodes,
    depth: deepest,
    length: input.length,
    hasComments,
    hasHardSpaces,
    hasBlanks: canBeBlank.some(({ shows }) => !shows),
    isBeyondAscii,
  };
}

/** The whole that is made around a part that stands where no whole of it is; null where none is. */
export function madeAround(name: string, holder: string, grand: string): string | null {
  const [wholes, made] = [wholesOf(name), MADE_WHOLES[name]];
  return wholes !== null && made !== undefined && !wholes.has(holder) && !(holder === 'div' && grand === 'dl') ? made : null;
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
