import {
  firstDifference,
  FragmentNode,
  HTML_NAMESPACE,
  isBlock,
  parseFragment,
  RAW_TEXT_ELEMENTS,
  serialize,
  type ChildNode,
  type ElementNode,
  type ParsedFragment,
} from '@typikon/core/editing';
import { Fragment, type Mark, type Node, type NodeType, type Schema } from 'prosemirror-model';
import { markNameOf, nodeNameOf, OPAQUE_BLOCK, OPAQUE_INLINE, PLACE_TO_TYPE, wrapperNameOf } from './compile';
import type { HtmlAttributes } from './dom';
import { CONTAINERS } from './elements';
import { Source, type Level } from './source';

/** Markup that is nested deeper than this is held as one thing; browsers flatten at 512. */
const DEEPEST = 512;

/**
 * Reads markup into the editor's document, and remembers where each part of it came from. What the schema cannot hold is
 * kept to the letter as one thing, never left out; where there is no place to type, an empty one is put at the end.
 */
export function readDocument(html: string, schema: Schema): { doc: Node; source: Source } {
  const readable = readableForm(html);
  const source = new Source(readable?.input ?? html, html);
  const { nodes, pieces } =
    readable === null
      ? wholeAsOpaque(html, schema)
      : new Reader(schema, source).flow(readable.root.children, 0, readable.input.length, false, schema.nodes['doc']!);
  source.top = { start: 0, end: source.html.length, pieces };
  if (!nodes.some(holdsPlaceToType)) {
    const place = placeToType(schema);
    // Behind what cannot be read part by part, words might be read as its own.
    if (readable === null) nodes.unshift(place);
    else nodes.push(place);
  }
  const doc = schema.nodes['doc']!.create(null, Fragment.from(nodes));
  source.document = doc;
  return { doc, source };
}

/**
 * Markup whose tree stands in its text part by part, as clean markup does. Other markup is written as a browser reads it
 * first; null where that cannot be written either, or where it is nested too deep.
 */
function readableForm(html: string): ParsedFragment | null {
  const parsed = parseFragment(html);
  if (isDeeper(parsed.root, DEEPEST)) return null;
  if (standsInOrder(parsed)) return parsed;
  const written = parseFragment(serialize(parsed.root));
  return firstDifference(parsed.root, written.root) === null && standsInOrder(written) ? written : null;
}

/** Elements whose text is not markup (HTML, section 13.1.2 "Elements"). */
const RAW_TEXT: ReadonlySet<string> = new Set([...RAW_TEXT_ELEMENTS, 'textarea', 'title']);

/** Elements that the parser adds where they are left out (HTML, section 13.1.2.4 "Optional tags"). */
const IMPLIED: ReadonlySet<string> = new Set(['tbody', 'colgroup', 'tr']);

/** Whether each part of a tree stands within its parent and behind the part before it, and nothing was left out. */
function standsInOrder({ input, root, ignored }: ParsedFragment): boolean {
  if (ignored.some(({ kind }) => kind !== 'repeated-attribute')) return false;
  let at = 0;
  const visit = (node: ChildNode): boolean => {
    if (node.start < 0) return node.type === 'element' && IMPLIED.has(node.name) && node.children.every(visit);
    if (node.start < at) return false;
    if (node.type !== 'element') {
      // A bare `<` is text only until a letter is typed behind it.
      if (node.type === 'text' && input.slice(node.start, node.end).includes('<')) return false;
      at = node.end;
      return true;
    }
    if (node.content !== null || node.isCopy || node.end < node.start) return false;
    // Text that never ends would take in what is typed behind it.
    if (RAW_TEXT.has(node.name) && node.endTagStart === node.end) return false;
    at = node.startTagEnd;
    if (!node.children.every(visit) || node.endTagStart < at) return false;
    at = node.end;
    return true;
  };
  return root.children.every(visit);
}

function wholeAsOpaque(html: string, schema: Schema): Flow {
  const node = schema.nodes[OPAQUE_BLOCK]!.create({ markup: html });
  return { nodes: [node], pieces: [{ node, start: 0, end: html.length }] };
}

/** What an empty document begins with: a paragraph, where the rules have one. Left empty, it is no markup. */
function placeToType(schema: Schema): Node {
  const paragraph = schema.nodes[nodeNameOf('p')];
  return paragraph?.create({ attributes: PLACE_TO_TYPE }) ?? schema.nodes['line']!.create();
}

function holdsPlaceToType(node: Node): boolean {
  let isThere = node.isTextblock;
  if (!isThere) node.descendants((inner) => !(isThere ||= inner.isTextblock));
  return isThere;
}

/** Whether elements stand in each other deeper than so many levels. */
function isDeeper(root: FragmentNode, levels: number): boolean {
  let level: ChildNode[] = root.children;
  for (let depth = 0; level.length > 0; depth++) {
    if (depth > levels) return true;
    level = level.flatMap((node) => (node.type === 'element' ? node.children : []));
  }
  return false;
}

interface Flow {
  nodes: Node[];
  pieces: Level['pieces'][number][];
}

class Reader {
  constructor(
    private readonly schema: Schema,
    private readonly source: Source,
  ) {}

  /** Words that stand beside each other become a line, blocks stay blocks; a part that the holder cannot have is kept as it is. */
  flow(children: readonly ChildNode[], start: number, end: number, isPreformatted: boolean, holder: NodeType): Flow {
    const result: Flow = { nodes: [], pieces: [] };
    let run: ChildNode[] = [];
    let runStart = start;
    const flush = (runEnd: number): void => {
      const words = this.words(run, isPreformatted);
      run = [];
      if (words.length === 0) return;
      const node = this.schema.nodes['line']!.create(null, words);
      result.nodes.push(node);
      const text = this.source.html.slice(runStart, runEnd);
      const from = runStart + (text.length - text.trimStart().length);
      const to = runEnd - (text.length - text.trimEnd().length);
      if (runStart >= 0 && runEnd >= runStart) result.pieces.push({ node, start: from, end: to });
    };
    for (const child of children) {
      if (child.type !== 'element' || !this.standsAlone(child)) {
        run.push(child);
        continue;
      }
      const place = placeOf(child);
      flush(place?.start ?? runStart);
      const taken = this.block(child);
      const node = this.mayStandIn(holder, taken) ? taken : this.opaque(child, false);
      result.nodes.push(node);
      if (place !== null) {
        result.pieces.push({ node, ...place });
        runStart = place.end;
      }
    }
    flush(end);
    return result;
  }

  /** Whether a node can be somewhere in a holder; that its order is right is seen when it is complete. */
  private mayStandIn(holder: NodeType, node: Node): boolean {
    return holder.name !== 'doc' || holder.contentMatch.matchType(node.type) !== null;
  }

  /** Whether an element is a block for the schema, by itself or by what it holds. */
  private standsAlone(element: ElementNode): boolean {
    if (element.namespace !== HTML_NAMESPACE) return false;
    const type = this.schema.nodes[nodeNameOf(element.name)];
    if (type !== undefined) return !type.isInline;
    return isBlock(element.name) || element.children.some((child) => child.type === 'element' && this.standsAlone(child));
  }

  private block(element: ElementNode): Node {
    const type =
      this.schema.nodes[nodeNameOf(element.name)] ??
      (this.schema.marks[markNameOf(element.name)] === undefined ? undefined : this.schema.nodes[wrapperNameOf(element.name)]);
    return (type === undefined ? null : this.taken(element, type)) ?? this.opaque(element, false);
  }

  /** The element as a node of a type; null where that cannot hold all of it. */
  private taken(element: ElementNode, type: NodeType): Node | null {
    if (type.isInline) return null;
    const attributes = attributesOf(element);
    const place = placeOf(element);
    const isWritten = isPlaced(element);
    const inner = isWritten ? { start: element.startTagEnd, end: element.endTagStart } : place;
    const level: Level = { start: inner?.start ?? 0, end: inner?.end ?? 0, pieces: [] };
    let content: Node[];
    if (type.isTextblock) {
      if (element.children.some((child) => child.type === 'element' && this.standsAlone(child))) return null;
      content = this.words(element.children, type.spec.code === true);
    } else if (type.isLeaf) content = [];
    else {
      const isStrict = Array.isArray(CONTAINERS[element.name]);
      const children = isStrict ? element.children.filter((child) => !isWhiteSpace(child)) : element.children;
      const flow = this.flow(children, level.start, level.end, false, type);
      ({ nodes: content } = flow);
      level.pieces = flow.pieces;
      if (content.length === 0 && !isStrict) content = [this.schema.nodes['line']!.create()];
    }
    const fragment = Fragment.from(content);
    if (!type.validContent(fragment)) return null;
    if (place !== null)
      this.source.levels.set(attributes, {
        ...level,
        // Tags that were left out are written once something in them was edited, so that it stays in its place.
        startTag: isWritten ? this.source.html.slice(element.start, element.startTagEnd) : `<${element.name}>`,
        endTag: isWritten ? this.source.html.slice(element.endTagStart, element.end) : `</${element.name}>`,
      });
    return type.create({ attributes }, fragment);
  }

  private opaque(element: ElementNode, isInline: boolean): Node {
    return this.schema.nodes[isInline ? OPAQUE_INLINE : OPAQUE_BLOCK]!.create({ markup: this.markupOf(element) });
  }

  private markupOf(element: ElementNode): string {
    if (isPlaced(element)) return this.source.html.slice(element.start, element.end);
    const holder = new FragmentNode();
    const { parent } = element;
    holder.children = [element];
    const markup = serialize(holder);
    element.parent = parent;
    return markup;
  }

  /** The inline nodes of a run of words; white space is taken as a browser shows it. */
  words(children: readonly ChildNode[], isPreformatted: boolean): Node[] {
    const nodes: Node[] = [];
    let isAfterSpace = true;
    const visit = (child: ChildNode, marks: readonly Mark[]): void => {
      if (child.type === 'text') {
        let text = child.value;
        if (!isPreformatted) {
          text = text.replace(/[ \t\n\f\r]+/g, ' ');
          if (isAfterSpace && text.startsWith(' ')) text = text.slice(1);
          if (text !== '') isAfterSpace = text.endsWith(' ');
        }
        if (text !== '') nodes.push(this.schema.text(text, marks));
        return;
      }
      if (child.type === 'comment') {
        nodes.push(this.schema.nodes[OPAQUE_INLINE]!.create({ markup: `<!--${child.data}-->` }, null, marks));
        return;
      }
      const leaf = child.namespace === HTML_NAMESPACE ? this.schema.nodes[nodeNameOf(child.name)] : undefined;
      if (leaf?.isInline === true && child.children.length === 0) {
        nodes.push(leaf.create({ attributes: attributesOf(child) }, null, marks));
        isAfterSpace = child.name === 'br';
        return;
      }
      const mark = child.namespace === HTML_NAMESPACE ? this.schema.marks[markNameOf(child.name)] : undefined;
      const isNested = child.name === 'a' && marks.some(({ type }) => type === mark);
      if (mark === undefined || isNested || child.children.every((inner) => inner.type === 'text' && inner.value === '')) {
        nodes.push(this.opaque(child, true).mark(marks));
        isAfterSpace = false;
        return;
      }
      const added = mark.create({ attributes: attributesOf(child) }).addToSet(marks);
      for (const inner of child.children) visit(inner, added);
    };
    for (const child of children) visit(child, []);
    return isPreformatted ? nodes : withoutSpaceAtEnd(nodes, this.schema);
  }
}

function withoutSpaceAtEnd(nodes: Node[], schema: Schema): Node[] {
  const last = nodes[nodes.length - 1];
  if (last?.isText !== true || !last.text!.endsWith(' ')) return nodes;
  const text = last.text!.slice(0, -1);
  nodes.pop();
  if (text !== '') nodes.push(schema.text(text, last.marks));
  return nodes;
}

function isWhiteSpace(child: ChildNode): boolean {
  return child.type === 'comment' || (child.type === 'text' && /^[ \t\n\f\r]*$/.test(child.value));
}

function isPlaced(element: ElementNode): boolean {
  return element.start >= 0 && element.end > element.start && !element.isCopy;
}

/** Where an element stands: from tag to tag, or where the parser added its tags, as far as what it holds. */
function placeOf(element: ElementNode): { start: number; end: number } | null {
  if (isPlaced(element)) return { start: element.start, end: element.end };
  const places = element.children.flatMap((child) => (child.type === 'element' ? (placeOf(child) ?? []) : child.start < 0 ? [] : child));
  const [first] = places;
  return first === undefined ? null : { start: first.start, end: places[places.length - 1]!.end };
}

function attributesOf(element: ElementNode): HtmlAttributes {
  const attributes: Record<string, string> = {};
  for (const { name, value } of element.attributes) attributes[name] = value;
  return attributes;
}
