import { blankAtBegin, blankAtEnd, isBlankCode } from './blank';
import type { Parting } from './display';
import { isBlock, REPLACED_ELEMENTS, VOID_ELEMENTS } from './elements';
import { append, CommentNode, ElementNode, HTML_NAMESPACE, joinText, TextNode, type ChildNode, type ParentNode } from './node';
import { partOfText, placeOfText, replaceText } from './text-place';
import type { Range } from './positions';
import { steps } from './steps';
import { hasLetters } from './text';

/**
 * Stands for an edge of an element whose tags went, until all is in place: words on its two sides were apart and have to
 * stay so. It never outlives the walk that put it there.
 */
export class Boundary extends CommentNode {
  constructor(
    readonly parting: Parting,
    /** Whoever put it there; told when something takes its place. */
    readonly cause: unknown,
  ) {
    super('');
  }
}

/** What words can be kept apart with. */
export interface Means {
  paragraph: boolean;
  lineBreak: boolean;
  /** Whether words that stand alone beside a boundary become a paragraph as well. */
  always?: boolean;
  /** What is known already of whether elements show anything, so that a deep tree is looked at once. */
  shown: Map<ElementNode, boolean>;
  /** The same of whether blocks stand in them, which no paragraph can hold. */
  blocks: Map<ElementNode, boolean>;
  /**
   * Told of each thing that was made.
   *
   * @param made `p` around the words, a `br` or a space before them
   * @param place where those words stand in the input; null where nothing tells
   * @param cause of the boundary that it stands for
   */
  onMade?: (made: 'p' | 'br' | ' ', place: Range | null, cause: unknown, paragraph: ElementNode | null) => void;
}

/** The boundaries of one walk over a tree: where they stand, until each place is complete. */
export class Boundaries {
  private readonly bounded = new Set<ParentNode>();
  /** What is known of elements that are complete. */
  private readonly shown: Means['shown'] = new Map();
  private readonly blocks: Means['blocks'] = new Map();

  /** Notes that words on the two sides of the end of a target are apart; null where they are not. */
  mark(target: ParentNode, parting: Parting | null, cause: unknown = null): Boundary | null {
    if (parting === null) return null;
    const boundary = new Boundary(parting, cause);
    boundary.parent = target;
    target.children.push(boundary);
    this.bounded.add(target);
    return boundary;
  }

  /** The same for the other side of what a boundary was put before. */
  markAgain(target: ParentNode, boundary: Boundary | null): void {
    if (boundary !== null) this.mark(target, boundary.parting, boundary.cause);
  }

  /** Puts text whose white space stood as it was written where it no longer does: its lines are still apart. */
  putLines(target: ParentNode, text: TextNode, cause: unknown = null): void {
    const { length } = text.value;
    for (let from = 0; from < length;) {
      steps.taken++;
      const end = text.value.indexOf('\n', from) + 1;
      const to = end === 0 ? length : end;
      append(target, to - from === length ? text : partOfText(text, from, to));
      if (end > 0) this.mark(target, 'line', cause);
      from = to;
    }
  }

  /** Whether anything in a target waits to be settled. */
  isBounded(target: ParentNode): boolean {
    return this.bounded.has(target);
  }

  /**
   * Settles a target that is complete. Boundaries at the edges of a word of the line go out to where that stands, which it
   * does as the last.
   *
   * @param isOutermost whether nothing stands around the target that words could run together with
   */
  settle(target: ParentNode, isOutermost: boolean, means: Omit<Means, 'shown' | 'blocks'>): void {
    if (!this.bounded.delete(target)) return;
    const { before, after } = settleBoundaries(target, { ...means, shown: this.shown, blocks: this.blocks });
    if (isOutermost || target.type !== 'element' || target.parent === null) return;
    const outer = target.parent;
    if (before !== null) {
      outer.children.pop();
      this.markAgain(outer, before);
      outer.children.push(target);
    }
    this.markAgain(outer, after);
  }
}

/** Elements that may hold paragraphs beside words (HTML, flow content). */
const HOLDS_PARAGRAPHS: ReadonlySet<string> = new Set(
  'address article aside blockquote body center dd details dialog div fieldset figcaption figure footer form header li main nav search section td th caption tr tbody thead tfoot table'.split(
    ' ',
  ),
);

/** Elements in which the parser passes over a line break (HTML, section 13.2.6.4.16 "in select"). */
const HOLDS_NO_BREAKS: ReadonlySet<string> = new Set(['select', 'optgroup', 'option']);

/** Children that stand on one line. */
interface Run {
  nodes: ChildNode[];
  shows: boolean;
  /** The boundary before it, and behind it. */
  before: Boundary | null;
  after: Boundary | null;
}

/** Boundaries that have to be kept beside the parent itself, since only words outside of it are left to part. */
export interface Edges {
  before: Boundary | null;
  after: Boundary | null;
}

const NO_EDGES: Edges = { before: null, after: null };

/**
 * Takes the boundaries out of a parent's children, and where words would run together puts something between them:
 * paragraphs around them where the parent can hold them, else a line break, else a space.
 *
 * @returns what has to be kept apart outside of the parent
 */
export function settleBoundaries(parent: ParentNode, means: Means): Edges {
  const isInLine = parent.type === 'element' && !isBlock(parent.name);
  const edges = isInLine ? edgesOf(parent.children, means.shown) : NO_EDGES;
  const pieces = piecesOf(parent.children, means);
  if (parent.type === 'element') {
    means.blocks.set(
      parent,
      pieces.some((piece) => !isRun(piece) || piece.nodes.some((node) => holdsBlock(node, means.blocks))),
    );
    means.shown.set(
      parent,
      pieces.some((piece) => (isRun(piece) ? piece.shows : showsSomething(piece, means.shown))),
    );
  }
  const showing = pieces.filter((piece) => !isRun(piece) || piece.shows).length;
  const isParagraphs = means.paragraph && (parent.type === 'fragment' || HOLDS_PARAGRAPHS.has(parent.name));
  parent.children = [];
  let last: Run | null = null;
  for (const piece of pieces) {
    if (!isRun(piece)) {
      push(parent, piece);
      last = null;
      continue;
    }
    const { nodes, shows, before, after } = piece;
    if (
      shows &&
      (showing > 1 || means.always === true) &&
      isParagraphs &&
      (before !== null || after !== null) &&
      !nodes.some((node) => holdsBlock(node, means.blocks))
    ) {
      inParagraph(parent, nodes, before ?? after!, means);
      last = null;
      continue;
    }
    if (shows && last !== null && before !== null) part(parent, last, piece, before, means);
    for (const node of nodes) push(parent, node);
    if (shows) last = piece;
  }
  return edges;
}

function isRun(piece: Run | ElementNode): piece is Run {
  return 'nodes' in piece;
}

function push(parent: ParentNode, node: ChildNode): void {
  append(parent, node);
}

/** Runs of what stands on a line, and the blocks between them. Cells and boxes on one line are parted here. */
function piecesOf(children: readonly ChildNode[], means: Means): (Run | ElementNode)[] {
  const pieces: (Run | ElementNode)[] = [];
  let run: Run = { nodes: [], shows: false, before: null, after: null };
  let spaced: Boundary | null = null;
  const close = (boundary: Boundary | null): void => {
    run.after = boundary;
    if (run.nodes.length > 0) pieces.push(run);
    // An empty run leaves its boundary to the next.
    run = { nodes: [], shows: false, before: boundary, after: null };
    spaced = null;
  };
  for (const child of children) {
    steps.taken++;
    if (child instanceof Boundary) {
      if (child.parting === 'line') close(child);
      else spaced = child;
      continue;
    }
    if (child.type === 'element' && isBlock(child.name)) {
      close(null);
      pieces.push(child);
      continue;
    }
    const shows = showsSomething(child, means.shown);
    if (shows && spaced !== null) {
      if (run.shows && !endsApart(run.nodes) && !beginsApart(child)) {
        run.nodes.push(new TextNode(' '));
        means.onMade?.(' ', placeOfNodes([child]), spaced.cause, null);
      }
      spaced = null;
    }
    run.nodes.push(child);
    run.shows ||= shows;
  }
  close(null);
  return pieces;
}

/** The strongest boundaries before the first thing that shows and behind the last; where nothing shows, one stands for both. */
function edgesOf(children: readonly ChildNode[], shown: Means['shown']): Edges {
  let before: Boundary | null = null;
  let last: Boundary | null = null;
  let hasShown = false;
  for (const child of children) {
    steps.taken++;
    if (child instanceof Boundary) {
      if (last?.parting !== 'line') last = child;
    } else if ((child.type === 'element' && isBlock(child.name)) || showsSomething(child, shown)) {
      if (!hasShown) before = last;
      hasShown = true;
      last = null;
    }
  }
  return { before: hasShown ? before : last, after: last };
}

function inParagraph(parent: ParentNode, nodes: readonly ChildNode[], { cause }: Boundary, means: Means): void {
  const paragraph = new ElementNode('p', HTML_NAMESPACE, []);
  const [lead, inner, trail] = trimmed(nodes);
  for (const node of lead) push(parent, node);
  const place = placeOfNodes(inner);
  if (place !== null) {
    paragraph.start = paragraph.startTagEnd = place.start;
    paragraph.endTagStart = paragraph.end = place.end;
  }
  for (const node of inner) append(paragraph, node);
  paragraph.parent = parent;
  parent.children.push(paragraph);
  means.onMade?.('p', place, cause, paragraph);
  for (const node of trail) push(parent, node);
}

/** Nodes without the white space at their edges, which is cut off. */
function trimmed(nodes: readonly ChildNode[]): [lead: readonly ChildNode[], inner: readonly ChildNode[], trail: readonly ChildNode[]] {
  if (nodes.length > 0 && !isBlankAtEdge(nodes[0]!, 'begin') && !isBlankAtEdge(nodes[nodes.length - 1]!, 'end'))
    return [NOTHING, nodes, NOTHING];
  let from = 0;
  let to = nodes.length;
  while (from < to && isBlank(nodes[from]!)) from++;
  while (to > from && isBlank(nodes[to - 1]!)) to--;
  const inner = nodes.slice(from, to);
  const [lead, trail] = [nodes.slice(0, from), nodes.slice(to)];
  const first = inner[0];
  if (first?.type === 'text') {
    const blank = blankAtBegin(first.value);
    if (blank > 0) {
      lead.push(new TextNode(first.value.slice(0, blank)));
      replaceText(first, 0, blank, '');
    }
  }
  const last = inner[inner.length - 1];
  if (last?.type === 'text') {
    const blank = blankAtEnd(last.value);
    if (blank > 0) {
      trail.unshift(new TextNode(last.value.slice(-blank)));
      replaceText(last, last.value.length - blank, last.value.length, '');
    }
  }
  return [lead, inner, trail];
}

const NOTHING: readonly ChildNode[] = [];

/** Whether a node is white space where it begins or ends, or may show nothing at all. */
function isBlankAtEdge(node: ChildNode, edge: 'begin' | 'end'): boolean {
  if (node.type !== 'text') return node.type === 'comment';
  return node.value === '' || isBlankCode(node.value.charCodeAt(edge === 'begin' ? 0 : node.value.length - 1));
}

/** Puts a break or a space between two runs that nothing else parts. */
function part(parent: ParentNode, before: Run, after: Run, { cause }: Boundary, means: Means): void {
  const { children } = parent;
  const last = children[children.length - 1];
  const first = after.nodes.find((node) => !isBlank(node));
  if ((last !== undefined && isBreak(last)) || (first !== undefined && isBreak(first))) return;
  const place = placeOfNodes(after.nodes);
  if (means.lineBreak && (parent.type === 'fragment' || !HOLDS_NO_BREAKS.has(parent.name))) {
    push(parent, new ElementNode('br', HTML_NAMESPACE, []));
    means.onMade?.('br', place, cause, null);
    return;
  }
  if ((last !== undefined && endsBlank([last])) || endsBlank(before.nodes) || beginsBlank(after.nodes[0]!)) return;
  if (last?.type === 'text') joinText(last, new TextNode(' '));
  else push(parent, new TextNode(' '));
  means.onMade?.(' ', place, cause, null);
}

function isBreak(node: ChildNode): boolean {
  return node.type === 'element' && node.name === 'br';
}

function isBlank(node: ChildNode): boolean {
  return node.type === 'comment' || (node.type === 'text' && blankAtBegin(node.value) === node.value.length);
}

function endsBlank(nodes: readonly ChildNode[]): boolean {
  const last = nodes[nodes.length - 1];
  return last?.type === 'text' && /[\t\n\f\r ]$/.test(last.value);
}

function beginsBlank(node: ChildNode): boolean {
  return node.type === 'text' && /^[\t\n\f\r ]/.test(node.value);
}

/** The same, or that an opening bracket ends it: no space belongs behind that. */
function endsApart(nodes: readonly ChildNode[]): boolean {
  const last = nodes[nodes.length - 1];
  return last?.type === 'text' && /[\t\n\f\r \p{Ps}]$/u.test(last.value);
}

/** The same, or that a closing bracket begins it. */
function beginsApart(node: ChildNode): boolean {
  return node.type === 'text' && /^[\t\n\f\r \p{Pe}]/u.test(node.value);
}

/** Whether there is something to keep apart: letters, or what shows without any. */
function showsSomething(node: ChildNode, shown: ReadonlyMap<ElementNode, boolean>): boolean {
  const stack: ChildNode[] = [node];
  for (let next = stack.pop(); next !== undefined; next = stack.pop()) {
    steps.taken++;
    if (next.type === 'text') {
      if (hasLetters(next.value)) return true;
    } else if (next.type === 'element') {
      if (REPLACED_ELEMENTS.has(next.name) || (VOID_ELEMENTS.has(next.name) && next.name === 'hr')) return true;
      const known = shown.get(next);
      if (known === true) return true;
      if (known === undefined) for (const child of next.children) stack.push(child);
    }
  }
  return false;
}

/** Whether a block stands anywhere in a node. */
function holdsBlock(node: ChildNode, blocks: Map<ElementNode, boolean>): boolean {
  if (node.type !== 'element') return false;
  const known = blocks.get(node);
  if (known !== undefined) return known;
  let found = false;
  const stack: ElementNode[] = [node];
  for (let next = stack.pop(); next !== undefined && !found; next = stack.pop())
    for (const child of next.children) {
      steps.taken++;
      if (child.type !== 'element') continue;
      const inner = blocks.get(child);
      if (inner === true || isBlock(child.name)) found = true;
      else if (inner === undefined) stack.push(child);
    }
  blocks.set(node, found);
  return found;
}

/** Where nodes stand in the input, from the first to the last that came from there. */
function placeOfNodes(nodes: readonly ChildNode[]): Range | null {
  let start = -1;
  let end = -1;
  for (const node of nodes) {
    const place =
      node.type === 'text' ? placeOfText(node) : node.start >= 0 ? { start: node.start, end: Math.max(node.start, node.end) } : null;
    if (place === null) continue;
    if (start === -1 || place.start < start) start = place.start;
    if (place.end > end) end = place.end;
  }
  return start === -1 ? null : { start, end };
}
