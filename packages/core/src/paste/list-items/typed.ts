import { append, copyPlace, ElementNode, HTML_NAMESPACE, type ChildNode, type ParentNode, type TextNode } from '../../html/node';
import { countLetters, firstText, hasLetters } from '../../html/text';
import { replaceText } from '../../html/text-place';
import { isBlock } from '../../html/elements';
import { pointsOf, styleOf } from '../declarations';
import { typedMarker, type Marker } from '../markers';
import type { Reporter } from '../pass';
import type { Item } from './item';

interface Line {
  paragraph: ElementNode;
  text: TextNode;
  /** How far it is indented: by its style, or by the white space before its marker. */
  indent: number;
  marker: Marker;
  /** Characters of the marker with the white space around it. */
  length: number;
  /** The numbers before the last of a marker such as `2.1.3`. */
  prefix: string;
}

/** A block that looks like several lines with markers, parted by breaks, becomes one paragraph for each line. */
export function partLines(parent: ParentNode, report: Reporter): void {
  const isCandidate = (child: ChildNode): child is ElementNode =>
    isLine(child) && child.children.some((inner) => inner.type === 'element' && inner.name === 'br');
  if (!parent.children.some(isCandidate)) return;
  parent.children = parent.children.flatMap((child): ChildNode[] => {
    if (!isCandidate(child)) return [child];
    const lines: ChildNode[][] = [[]];
    for (const inner of child.children) {
      if (inner.type === 'element' && inner.name === 'br') lines.push([]);
      else lines[lines.length - 1]!.push(inner);
    }
    const isItem = (line: readonly ChildNode[]): boolean => {
      const text = firstTextOf(line);
      return text !== null && typedMarker(text.value) !== null;
    };
    const marked = lines.map(isItem);
    // Two items in a row are a list; one is a dash or a number.
    if (!marked.some((is, i) => is && marked[i + 1] === true)) return [child];
    const parts: { nodes: ChildNode[][]; isItem: boolean }[] = [];
    lines.forEach((line, i) => {
      const last = parts[parts.length - 1];
      if (marked[i] === true || last === undefined || last.isItem) parts.push({ nodes: [line], isItem: marked[i]! });
      else last.nodes.push(line);
    });
    report.changed(child, `${parts.length} lines`);
    return parts.map(({ nodes }) => paragraphLike(child, nodes, parent));
  });
}

function paragraphLike(model: ElementNode, lines: readonly ChildNode[][], parent: ParentNode): ElementNode {
  const paragraph = new ElementNode('p', HTML_NAMESPACE, model.attributes.slice());
  copyPlace(model, paragraph);
  paragraph.parent = parent;
  lines.forEach((line, i) => {
    if (i > 0) append(paragraph, new ElementNode('br', HTML_NAMESPACE, []));
    for (const child of line) append(paragraph, child);
  });
  return paragraph;
}

/**
 * Paragraphs in a row that begin with a bullet or with numbers that follow each other, however deep. Their markers are
 * taken out of their text.
 *
 * @param isTaken whether a sibling is an item already
 */
export function typedItems(children: readonly ChildNode[], isTaken: (child: ChildNode) => boolean): Map<ChildNode, Item> {
  const found = new Map<ChildNode, Item>();
  let run: Line[] = [];
  const close = (): void => {
    for (const item of itemsOf(run)) found.set(item.element, item);
    run = [];
  };
  for (const child of children) {
    if (child.type === 'text' && !hasLetters(child.value)) continue;
    const line = isTaken(child) ? null : lineOf(child, run[run.length - 1]?.marker ?? null);
    if (line === null) close();
    else run.push(line);
  }
  close();
  return found;
}

function lineOf(child: ChildNode, before: Marker | null): Line | null {
  if (!isLine(child)) return null;
  const text = firstTextOf(child.children);
  if (text === null) return null;
  // The begin tells enough: a marker, and whether anything stands behind it.
  const whole = firstText(child, text.value.length + FAR_ENOUGH, ({ name }) => !isBlock(name));
  // A marker may stand alone, with its space in the markup behind it.
  const typed = typedMarker(
    text.value.length > 12 ? text.value : text.value + whole.slice(whole.indexOf(text.value) + text.value.length, 80),
    before,
  );
  // A marker with nothing behind it is no item.
  if (typed === null || whole.trim().length <= typed.length) return null;
  const blank = /^[\s\u00a0]*/
    .exec(text.value)![0]
    .replace(/[\r\n]+/g, '')
    .replace(/\t/g, '    ').length;
  const indent = Math.round(pointsOf(styleOf(child, 'margin-left')) || pointsOf(styleOf(child, 'padding-left'))) + blank * 6;
  return { paragraph: child, text, indent, ...typed, length: Math.min(typed.length, text.value.length) };
}

const FAR_ENOUGH = 80;
/** Deeper lists than this nobody types. */
const DEEPEST = 20;

/** A paragraph, or a block that mail programs and chats write one line in. */
function isLine(child: ChildNode): child is ElementNode {
  return (
    child.type === 'element' &&
    (child.name === 'p' ||
      (child.name === 'div' &&
        child.children.length < 200 &&
        !child.children.some((inner) => inner.type === 'element' && (isBlock(inner.name) || inner.name === 'img'))))
  );
}

/** A level that is open: how far its items are indented and what they count by. */
interface Level {
  indent: number;
  marker: Marker;
  prefix: string;
}

/** Tells the levels of lines, and leaves out those that turn out to be no items: a lone number, numbers that do not follow. */
function itemsOf(lines: readonly Line[]): Item[] {
  const placed: { line: Line; level: number }[] = [];
  const open: Level[] = [];
  for (const line of lines) {
    const { marker, indent, prefix } = line;
    const at = open.findLastIndex((level) => fits(level, line));
    if (at !== -1) open.length = at + 1;
    else {
      const top = open[open.length - 1];
      const isDeeper =
        top !== undefined &&
        (indent > top.indent + 2 ||
          (prefix !== '' && prefix === ownNumber(top)) ||
          (indent >= top.indent - 2 && marker.ordered && marker.value === 1 && top.marker.ordered && marker.type !== top.marker.type));
      if (!isDeeper) {
        while (open.length > 0 && open[open.length - 1]!.indent >= indent - 2) open.pop();
      }
      if (open.length === DEEPEST) open.pop();
      open.push({ indent, marker, prefix });
    }
    const level = open[open.length - 1]!;
    level.marker = marker;
    placed.push({ line, level: open.length });
  }
  const isNeighbour = (i: number, other: number): boolean => {
    const [one, two] = [placed[i], placed[other]];
    if (one === undefined || two === undefined) return false;
    return (
      one.level !== two.level ||
      (one.line.marker.ordered === two.line.marker.ordered && follows(one.line.marker, two.line.marker, i < other))
    );
  };
  return placed.flatMap(({ line, level }, i) => {
    // An item that stands alone among others is none.
    if (!isNeighbour(i, i - 1) && !isNeighbour(i, i + 1)) return [];
    const { paragraph, marker, length, text } = line;
    const restsOn = `typed ${JSON.stringify(text.value.slice(0, length).trim())}`;
    const letters = countLetters(text.value.slice(0, length));
    replaceText(text, 0, length, '');
    return [{ element: paragraph, level, list: 'typed', marker, letters, restsOn, markerAfter: () => marker }];
  });
}

function follows(one: Marker, two: Marker, isForward: boolean): boolean {
  if (!one.ordered) return true;
  return isForward ? two.value === one.value + 1 : one.value === two.value + 1;
}

function fits(level: Level, { marker, indent, prefix }: Line): boolean {
  if (level.marker.ordered !== marker.ordered || Math.abs(level.indent - indent) > 2) return false;
  if (!marker.ordered) return true;
  return marker.type === level.marker.type && marker.value === level.marker.value + 1 && prefix === level.prefix;
}

function ownNumber({ marker, prefix }: Level): string {
  return prefix === '' ? String(marker.value) : `${prefix}.${marker.value}`;
}

/** The first text that shows, in whatever inline markup. */
function firstTextOf(nodes: readonly ChildNode[]): TextNode | null {
  let at = nodes;
  for (let steps = 0; steps < 8; steps++) {
    const child: ChildNode | undefined = at.find((node) => node.type !== 'text' || hasLetters(node.value));
    if (child === undefined || child.type === 'comment') return null;
    if (child.type === 'text') return child;
    if (isBlock(child.name)) return null;
    at = child.children;
  }
  return null;
}
