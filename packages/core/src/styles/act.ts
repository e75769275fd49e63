import { generate, type CssNode } from 'css-tree';
import { parseCss } from '../css/parse';

/** What applying a style does. */
export type StyleKind =
  /** The block becomes another element. */
  | 'block'
  /** The element around the selection gets classes or attributes. */
  | 'holder'
  /** The chosen thing, such as a picture, gets classes or attributes. */
  | 'thing'
  /** The selected words are wrapped. */
  | 'inline';

export interface StyleAct {
  kind: StyleKind;
  /** The element that results: `span` where the selector names none. */
  element: string;
  /** Whether the selector names the element, or it follows from there being none. */
  isNamed: boolean;
  classes: readonly string[];
  attributes: readonly { name: string; value: string }[];
  /** What must stand around it, as a selector without the last part; empty for anywhere. */
  around: string;
}

/** Why a selector cannot be applied. */
export interface StyleRefusal {
  reason: 'unreadable' | 'list' | 'state' | 'pseudo-element' | 'id' | 'anything' | 'sibling' | 'attribute' | 'not-content' | 'structure';
  /** What of the selector it is about. */
  what: string;
}

export type ReadStyle = { ok: true; act: StyleAct } | { ok: false; refusal: StyleRefusal };

/** Elements that hold lines of text and are made from one another (HTML, section 4.3 and 4.4). */
const BLOCKS: ReadonlySet<string> = new Set('p h1 h2 h3 h4 h5 h6 pre address'.split(' '));
/** Elements around others: they are not made from a block, but can be marked where they stand. */
const HOLDERS: ReadonlySet<string> = new Set(
  'blockquote div section article aside header footer nav main figure figcaption ul ol li dl dt dd table caption thead tbody tfoot tr td th details summary center'.split(
    ' ',
  ),
);
const THINGS: ReadonlySet<string> = new Set('img hr iframe video audio'.split(' '));
const WORDS: ReadonlySet<string> = new Set(
  'span strong em b i u s small mark sub sup code kbd samp var cite q dfn abbr a del ins time big tt font strike bdi bdo'.split(' '),
);
/** Parts that only make sense within a whole; a style cannot bring them about. */
const NOT_CONTENT: ReadonlySet<string> = new Set(
  'html head body title script style link meta base template input button select'.split(' '),
);

/**
 * Reads what applying a style does from its selector: an element, classes and attributes, and what stands around them.
 *
 * @param selector one complex selector (Selectors Level 4)
 * @returns the act, or why there is none; never throws
 */
export function readStyle(selector: string): ReadStyle {
  const refuse = (reason: StyleRefusal['reason'], what: string): ReadStyle => ({ ok: false, refusal: { reason, what } });
  let list: CssNode;
  try {
    list = parseCss(selector, { context: 'selectorList' });
  } catch (error) {
    return refuse('unreadable', (error as Error).message);
  }
  if (list.type !== 'SelectorList' || list.children.isEmpty || selector.trim() === '') return refuse('unreadable', selector);
  if (list.children.size > 1) return refuse('list', generate(list.children.last!));
  const complex = list.children.first!;
  if (complex.type !== 'Selector') return refuse('unreadable', selector);
  const nodes = complex.children.toArray();
  const lastCombinator = nodes.findLastIndex(({ type }) => type === 'Combinator');
  for (const node of nodes) if (node.type === 'Combinator' && node.name !== ' ' && node.name !== '>') return refuse('sibling', node.name);
  const subject = nodes.slice(lastCombinator + 1);
  if (subject.length === 0) return refuse('unreadable', selector);

  let element = '';
  const classes: string[] = [];
  const attributes: { name: string; value: string }[] = [];
  for (const node of subject)
    switch (node.type) {
      case 'TypeSelector':
        if (node.name === '*') return refuse('anything', '*');
        element = node.name.toLowerCase();
        break;
      case 'ClassSelector':
        classes.push(node.name);
        break;
      case 'IdSelector':
        return refuse('id', `#${node.name}`);
      case 'AttributeSelector': {
        const text = generate(node);
        if (node.matcher !== null && node.matcher !== '=' && node.matcher !== '~=') return refuse('attribute', text);
        const value = node.value === null ? '' : node.value.type === 'String' ? node.value.value : node.value.name;
        const name = node.name.name.toLowerCase();
        if (name === 'class') classes.push(...value.split(/\s+/).filter((word) => word !== ''));
        else attributes.push({ name, value });
        break;
      }
      case 'PseudoElementSelector':
        return refuse('pseudo-element', `::${node.name}`);
      case 'PseudoClassSelector':
        if (['before', 'after', 'first-line', 'first-letter'].includes(node.name)) return refuse('pseudo-element', `:${node.name}`);
        return refuse(/^(nth|first|last|only|empty|root|has|not|is|where)/.test(node.name) ? 'structure' : 'state', generate(node));
      default:
        return refuse('unreadable', generate(node));
    }
  if (NOT_CONTENT.has(element)) return refuse('not-content', element);
  const around = nodes
    .slice(0, Math.max(0, lastCombinator))
    .map((node) => generate(node))
    .join('');
  const direct = lastCombinator > 0 && nodes[lastCombinator]!.type === 'Combinator' && nodes[lastCombinator].name === '>';
  const name = element === '' ? 'span' : element;
  const kind: StyleKind = THINGS.has(name) ? 'thing' : BLOCKS.has(name) ? 'block' : HOLDERS.has(name) ? 'holder' : 'inline';
  if (!BLOCKS.has(name) && !HOLDERS.has(name) && !THINGS.has(name) && !WORDS.has(name)) return refuse('not-content', name);
  // A holder or a thing that is only named gets nothing: the style would not show whether it is on.
  if ((kind === 'holder' || kind === 'thing') && classes.length === 0 && attributes.length === 0 && name !== 'blockquote')
    return refuse('anything', name);
  return {
    ok: true,
    act: {
      kind,
      element: name,
      isNamed: element !== '',
      classes,
      attributes,
      around: around === '' ? '' : `${around}${direct ? '>' : ''}`,
    },
  };
}

/** A start tag of what results. */
export function tagOf({ element, classes, attributes }: Pick<StyleAct, 'element' | 'classes' | 'attributes'>): string {
  return `<${element}${classes.length === 0 ? '' : ` class="${classes.join(' ')}"`}${attributes.map(({ name, value }) => (value === '' ? ` ${name}` : ` ${name}="${value.replace(/&/g, '&amp;').replace(/"/g, '&quot;')}"`)).join('')}>`;
}
