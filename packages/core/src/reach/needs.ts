import { HTML_NAMESPACE, type ElementNode, type ParentNode } from '../html/node';
import { hostOf, schemeOf } from '../markup/address';
import { isAttributeForbidden, SAFETY_FLOOR, URL_ATTRIBUTES } from '../markup/floor';
import { readDeclarations } from '../markup/inline-style';
import { IMPLIED_BY } from '../markup/parts';
import { riskOfAttribute, riskOfElement, type Risk } from '../markup/risk';
import { madeAround, STRUCTURE, type AttributeFeature } from './features';
import { isBlankAttribute } from './whole';

/** One thing that rules have to allow so that a document stays whole. */
export type Need =
  | { kind: 'element'; element: string }
  /** The attribute, with values by their narrowest test. */
  | { kind: 'attribute'; element: string; attribute: string }
  /** One word of `class`. */
  | { kind: 'class'; element: string; word: string }
  /** One property of `style`, with values by their narrowest test. */
  | { kind: 'property'; element: string; property: string }
  /** A scheme of addresses in an attribute. */
  | { kind: 'scheme'; element: string; attribute: string; scheme: string }
  /** A host from which a frame comes. */
  | { kind: 'host'; element: string; host: string }
  /** Addresses without a scheme, anywhere. */
  | { kind: 'relative' };

/** A need as one document has it: with the value, where the kind is told by values. */
export interface NeedWithValue {
  need: Need;
  /** For `attribute` and `property`. */
  value?: string;
}

const dropped: ReadonlySet<string> = new Set<string>(SAFETY_FLOOR.elements.drop);
const unwrapped: ReadonlySet<string> = new Set<string>(SAFETY_FLOOR.elements.unwrap);

/**
 * What rules have to allow so that a document stays whole, each thing as often as it occurs. What the safety floor takes from
 * everybody is left out.
 *
 * @param root the tree as it was parsed; it is not changed
 */
export function* needsOf(root: ParentNode): Generator<NeedWithValue, void, undefined> {
  const stack: { parent: ParentNode; holder: string; grand: string }[] = [{ parent: root, holder: '', grand: '' }];
  for (let open = stack.pop(); open !== undefined; open = stack.pop())
    for (const child of open.parent.children) {
      if (child.type !== 'element' || child.namespace !== HTML_NAMESPACE || dropped.has(child.name)) continue;
      if (unwrapped.has(child.name)) {
        stack.push({ ...open, parent: child });
        continue;
      }
      yield* needsOfElement(child, open.holder, open.grand);
      stack.push({ parent: child, holder: child.name, grand: open.holder });
    }
}

function* needsOfElement(element: ElementNode, holder: string, grand: string): Generator<NeedWithValue> {
  const { name, attributes } = element;
  const needer = attributes.length === 0 ? IMPLIED_BY[name] : undefined;
  yield { need: { kind: 'element', element: needer ?? name } };
  // An item that stands in no list gets one.
  const made = madeAround(name, holder, grand);
  if (made !== null) yield { need: { kind: 'element', element: made } };
  for (const { name: attribute, value } of attributes) yield* needsOfAttribute(name, attribute, value);
}

/**
 * The same for one thing that a document holds: together they are what the document needs, each once.
 *
 * @param feature as {@link everyFeature} gives it
 */
export function* needsOfFeature({ element, attribute, value }: AttributeFeature): Generator<NeedWithValue, void, undefined> {
  const needer = IMPLIED_BY[element];
  if (attribute === STRUCTURE.made) yield { need: { kind: 'element', element } };
  else if (attribute === STRUCTURE.bare) yield { need: { kind: 'element', element: needer! } };
  else if (isEverybodys(element)) return;
  else if (attribute === '') {
    if (needer === undefined) yield { need: { kind: 'element', element } };
  } else {
    if (needer !== undefined) yield { need: { kind: 'element', element } };
    yield* needsOfAttribute(element, attribute, value);
  }
}

/** Whether the safety floor takes the tags of an element from everybody. */
export const isEverybodys = (element: string): boolean => dropped.has(element) || unwrapped.has(element) || FOREIGN.has(element);

/** The elements that foreign content begins with (HTML, section 13.2.6.4.7). */
const FOREIGN: ReadonlySet<string> = new Set(['svg', 'math']);

function* needsOfAttribute(element: string, attribute: string, value: string): Generator<NeedWithValue> {
  if (isAttributeForbidden(attribute, element) || isBlankAttribute(attribute, value)) return;
  if (attribute === 'class') {
    for (const word of value.split(/[\t\n\f\r ]+/)) if (word !== '') yield { need: { kind: 'class', element, word } };
    return;
  }
  if (attribute === 'style') {
    for (const { property, value: declared } of readDeclarations(value))
      yield { need: { kind: 'property', element, property }, value: declared };
    return;
  }
  yield { need: { kind: 'attribute', element, attribute }, value };
  if (!URL_ATTRIBUTES.has(attribute)) return;
  const host = hostOf(value);
  const scheme = schemeOf(value) ?? (host === null ? null : 'https');
  yield { need: scheme === null ? { kind: 'relative' } : { kind: 'scheme', element, attribute, scheme } };
  if (element === 'iframe' && attribute === 'src' && host !== null) yield { need: { kind: 'host', element, host } };
}

/** Tells needs apart. */
export const keyOfNeed = (need: Need): string => Object.values(need).join('\n');

/** What a need asks for, in words that follow "Allow". */
export function needWords(need: Need): string {
  switch (need.kind) {
    case 'element':
      return `<${need.element}>`;
    case 'attribute':
      return `${need.attribute} on <${need.element}>`;
    case 'class':
      return `class ${need.word} on <${need.element}>`;
    case 'property':
      return `${need.property || 'what cannot be read'} in style on <${need.element}>`;
    case 'scheme':
      return `${need.scheme} in ${need.attribute} on <${need.element}>`;
    case 'host':
      return `<${need.element}> from ${need.host}`;
    case 'relative':
      return 'addresses without a scheme';
  }
}

/** Schemes that lead where links of any site lead. */
const USUAL_SCHEMES: ReadonlySet<string> = new Set(['https', 'http', 'mailto', 'tel']);

/** How much is taken on by allowing what a need asks for. */
export function riskOfNeed(need: Need): Risk['level'] {
  switch (need.kind) {
    case 'element':
      return riskOfElement(need.element).level;
    case 'attribute':
      return riskOfAttribute(need.attribute).level;
    case 'class':
    case 'property':
      return 'look';
    case 'scheme':
      return USUAL_SCHEMES.has(need.scheme) ? 'none' : 'trust';
    case 'host':
      return 'trust';
    case 'relative':
      return 'none';
  }
}

/** What each level of risk weighs against a rule without any. */
export const RISK_WEIGHTS: Readonly<Record<Risk['level'], number>> = { none: 1, look: 2, trust: 5 };

export const weightOfNeed = (need: Need): number => RISK_WEIGHTS[riskOfNeed(need)];
