import { append, copyPlace, ElementNode, HTML_NAMESPACE, TextNode, type ChildNode, type ParentNode } from '../../html/node';
import { hasLetters, isLineOfText, visibleText } from '../../html/text';
import { elementsOf, transform } from '../../html/transform';
import type { PastePasses } from '../../profile/paste-schema';
import type { Range } from '../../html/positions';
import { placeOfText, replaceText } from '../../html/text-place';
import { typedMarker } from '../markers';
import { columnsOf, joinsWithoutSpace } from '../scripts';
import { textRuns, type Changed } from '../text-runs';
import type { Pass, PassRun } from '../pass';

/** Joins lines that were broken to fit a page into paragraphs, and closes the hyphens at their ends. */
export const joinedLines: Pass<'joined-lines'> = {
  id: 'joined-lines',
  run(run) {
    const { root } = run;
    const widest = widestLine(root);
    if (widest < SHORTEST_PAGE_LINE) return;
    const context: Context = { ...run, widest, words: wordsOf(root) };
    for (const parent of [root, ...elementsOf(root).filter(({ name }) => /^(div|section|article|body|main|blockquote)$/.test(name))])
      joinBlocks(parent, context);
    transform(root, {
      element: (element) =>
        /^(p|div|li|td)$/.test(element.name) && hasBreak(element) && isLineOfText(element) ? joinBreaks(element, context) : 'keep',
    });
  },
};

interface Context extends PassRun<'joined-lines'> {
  /** Letters of the widest line, as wide as the page was. */
  widest: number;
  /** Every word that stands in the paste, in lower case. */
  words: ReadonlySet<string>;
}

/** Where no line is longer than this, nothing was broken to fit a page. */
const SHORTEST_PAGE_LINE = 35;
/** Longer texts are paragraphs already. */
const WIDEST_PAGE_LINE = 140;
const SENTENCE_END = /[.!?:\u3002\uff01\uff1f\uff0e\uff1a\u061f\u06d4\u0964\u0965\u1362\u17d4]["\u201d\u2019)\u300d\u300f\uff09\u00bb]?$/u;

type Line = ChildNode[];

function hasBreak(element: ElementNode): boolean {
  return element.children.some(isBreak);
}

function isBreak(child: ChildNode): boolean {
  return child.type === 'element' && child.name === 'br';
}

/** What stands between the breaks of a block. */
function linesOf(children: readonly ChildNode[]): Line[] {
  const lines: Line[] = [[]];
  for (const child of children) {
    if (isBreak(child)) lines.push([]);
    else lines[lines.length - 1]!.push(child);
  }
  return lines;
}

function textOf(line: readonly ChildNode[]): string {
  return line
    .map((node) => visibleText(node))
    .join('')
    .replace(/[\s\u00a0]+/g, ' ')
    .trim();
}

function widestLine(root: ParentNode): number {
  let widest = 0;
  for (const { text } of textRuns(root)) widest = Math.max(widest, columnsOf(text.replace(/[\s\u00a0]+/g, ' ').trim()));
  return Math.min(widest, WIDEST_PAGE_LINE);
}

/** Whether the next line goes on with the sentence of this one, rather than beginning a paragraph, an item or a heading. */
function goesOn(text: string, next: string, widest: number): boolean {
  if (text === '' || next === '') return false;
  if (typedMarker(next) !== null) return false;
  const columns = columnsOf(text);
  const isFull = columns >= widest * 0.72;
  if (/[-\u00ad\u2010]$/u.test(text)) return isFull || /^\p{Ll}/u.test(next);
  if (!isFull) return columns >= widest * 0.45 && /^\p{Ll}/u.test(next) && !SENTENCE_END.test(text);
  // A full line that ends a sentence may end the paragraph; the next line's begin tells nothing, so its length must.
  return !(SENTENCE_END.test(text) && columns < widest * 0.9);
}

/** Lines parted by breaks in one block: a paragraph becomes as many as they make. */
function joinBreaks(block: ElementNode, context: Context): 'keep' | ElementNode[] {
  const lines = linesOf(block.children);
  const texts = lines.map(textOf);
  const paragraphs: Line[] = [];
  let joined = 0;
  lines.forEach((line, i) => {
    const last = paragraphs[paragraphs.length - 1];
    if (i > 0 && last !== undefined && goesOn(texts[i - 1]!, texts[i]!, context.widest)) {
      joint(last, line, context);
      joined++;
    } else paragraphs.push([...line]);
  });
  if (joined === 0) return 'keep';
  const kept = paragraphs.filter((line) =>
    line.some((child) => child.type === 'element' || (child.type === 'text' && hasLetters(child.value))),
  );
  if (block.name !== 'p' || kept.length === 0) {
    block.children = [];
    fill(block, kept);
    return 'keep';
  }
  return kept.map((line) => {
    const part = new ElementNode('p', HTML_NAMESPACE, block.attributes.slice());
    copyPlace(block, part);
    for (const child of line) append(part, child);
    return part;
  });
}

function fill(block: ElementNode, lines: readonly Line[]): void {
  lines.forEach((line, i) => {
    if (i > 0) append(block, new ElementNode('br', HTML_NAMESPACE, []));
    for (const child of line) append(block, child);
  });
}

/** Blocks that hold one line each. */
function joinBlocks(parent: ParentNode, context: Context): void {
  const isLine = (child: ChildNode): child is ElementNode =>
    child.type === 'element' && (child.name === 'p' || child.name === 'div') && !hasBreak(child) && isLineOfText(child);
  const kept: ChildNode[] = [];
  let before: { block: ElementNode; text: string } | null = null;
  for (const child of parent.children) {
    if (child.type === 'text' && !hasLetters(child.value)) {
      kept.push(child);
      continue;
    }
    if (!isLine(child)) {
      before = null;
      kept.push(child);
      continue;
    }
    const text = textOf(child.children);
    // A paragraph that ends with a sentence is whole; one that is wider than a page is no line.
    const isWhole = before !== null && (before.block.name === 'p' ? SENTENCE_END.test(before.text) : false);
    if (before !== null && !isWhole && text.length <= WIDEST_PAGE_LINE && goesOn(before.text, text, context.widest)) {
      const { block } = before;
      const line: Line = [...block.children];
      joint(line, child.children, context);
      block.children = [];
      for (const node of line) append(block, node);
      before.text = text;
      continue;
    }
    before = text === '' || text.length > WIDEST_PAGE_LINE ? null : { block: child, text };
    kept.push(child);
  }
  parent.children = kept;
}

/** Puts a line behind another: with a space, or without where a hyphen is closed or kept. */
function joint(line: Line, next: readonly ChildNode[], { settings, words, isWord, report }: Context): void {
  const last = lastText(line);
  const first = firstText(next);
  if (last === null || first === null) {
    line.push(new TextNode(' '));
    for (const child of next) line.push(child);
    return;
  }
  const [trail, lead] = [last.value.length - last.value.trimEnd().length, first.value.length - first.value.trimStart().length];
  if (trail > 0) replaceText(last, last.value.length - trail, last.value.length, '');
  if (lead > 0) replaceText(first, 0, lead, '');
  /** Where the two lines meet: the end of the one and the begin of the other. */
  const at = (letters: number): Changed => ({ node: last, place: between(last, first, letters) });
  const hyphen = /([\p{L}\p{N}]*\p{L})([-\u00ad\u2010])$/u.exec(last.value);
  const rest = /^\p{Ll}[\p{L}]*/u.exec(first.value)?.[0];
  if (hyphen === null || rest === undefined) {
    const isKeptHyphen = /[-\u2010]$/u.test(last.value) && /^[\p{L}\p{N}]/u.test(first.value);
    const place = at(1);
    const needsSpace = !isKeptHyphen && !joinsWithoutSpace(last.value, first.value);
    if (needsSpace) replaceText(last, last.value.length, last.value.length, ' ');
    report.characters(place, isKeptHyphen ? '-' : needsSpace ? ' ' : '');
    for (const child of next) line.push(child);
    return;
  }
  const [, head = ''] = hyphen;
  const isSoft = hyphen[2] === '\u00ad';
  if (isSoft || closes(head, rest, settings, words, isWord)) {
    const place = at(head.length + 1);
    replaceText(last, last.value.length - 1, last.value.length, '');
    report.characters(place, `${head}${rest}`, 'tidy', 1);
  } else report.characters(at(head.length + 1), `${head}-${rest}`);
  for (const child of next) line.push(child);
}

/** From some letters before the end of a text to the first one of the next. */
function between(last: TextNode, first: TextNode, letters: number): Range | null {
  const { length } = last.value;
  const [from, to] = [placeOfText(last, Math.max(0, length - letters), length), placeOfText(first, 0, 1)];
  return from === null ? to : to === null || to.end < from.end ? from : { start: from.start, end: to.end };
}

function closes(
  head: string,
  rest: string,
  { hyphens }: PastePasses['joined-lines'],
  words: ReadonlySet<string>,
  isWord: (word: string) => boolean,
): boolean {
  if (hyphens === 'keep') return false;
  if (hyphens === 'close') return true;
  const whole = `${head}${rest}`.toLowerCase();
  // The paste itself tells best: how the word is written elsewhere in it.
  if (words.has(whole)) return true;
  if (words.has(`${head}-${rest}`.toLowerCase())) return false;
  return isWord(whole) || isWord(`${head}${rest}`);
}

/** Every word that stands whole in a line, in lower case. */
function wordsOf(root: ParentNode): ReadonlySet<string> {
  const words = new Set<string>();
  for (const { text } of textRuns(root))
    for (const [word] of text.toLowerCase().matchAll(/\p{L}+(?:-\p{L}+)*/gu)) if (word.length > 3) words.add(word);
  return words;
}

function lastText(line: readonly ChildNode[]): TextNode | null {
  return edgeText(line, (nodes) => nodes.findLast(tells));
}

function firstText(line: readonly ChildNode[]): TextNode | null {
  return edgeText(line, (nodes) => nodes.find(tells));
}

function edgeText(line: readonly ChildNode[], pick: (nodes: readonly ChildNode[]) => ChildNode | undefined): TextNode | null {
  let nodes = line;
  for (let steps = 0; steps < 12; steps++) {
    const child = pick(nodes);
    if (child === undefined || child.type === 'comment') return null;
    if (child.type === 'text') return child;
    nodes = child.children;
  }
  return null;
}

function tells(node: ChildNode): boolean {
  return node.type === 'element' || (node.type === 'text' && hasLetters(node.value));
}
