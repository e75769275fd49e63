import { Boundary, settleBoundaries } from '../../html/boundary';
import { isBlock } from '../../html/elements';
import { append, ElementNode, HTML_NAMESPACE, type ChildNode, type ParentNode } from '../../html/node';
import { hasLetters, isLineOfText } from '../../html/text';
import { elementsOf, transform } from '../../html/transform';
import type { Reporter } from '../pass';

/** Where lines of an author stand: at the top, and in what only groups them. */
const HOLDS_LINES: ReadonlySet<string> = new Set(['section', 'article', 'main', 'body', 'blockquote', 'div']);

/**
 * Brings lines into the form that the profile's Enter key makes: `p` for each, `div` for each, or breaks between them.
 * Only plain blocks of text are lines: those that hold other blocks stay.
 */
export function linesAsEnterMakes(root: ParentNode, enter: 'paragraph' | 'break' | 'block', report: Reporter): void {
  if (enter === 'break') {
    for (const parent of [root, ...elementsOf(root).filter(({ name }) => HOLDS_LINES.has(name))]) breaksBetween(parent, report);
    return;
  }
  if (enter === 'paragraph') bareLinesToParagraphs(root, report);
  const [from, to] = enter === 'paragraph' ? ['div', 'p'] : ['p', 'div'];
  transform(root, {
    element(element, parent) {
      if (element.name !== from || !isLine(element)) return 'keep';
      if (parent.type === 'element' && !HOLDS_LINES.has(parent.name)) return 'keep';
      // A box of the site's own, told by its class or id, is more than a line.
      if (from === 'div' && element.attributes.some(({ name }) => name === 'id' || name === 'role')) return 'keep';
      element.name = to!;
      report.renamed(element, from, 0, 'paste-lines');
      return 'keep';
    },
  });
}

function isLine(element: ElementNode): boolean {
  return element.children.length > 0 && !element.children.some((child) => child.type === 'element' && isBlock(child.name));
}

/** Paragraphs in a row become their words with two breaks between, plain blocks with one. */
function breaksBetween(parent: ParentNode, report: Reporter): void {
  const isParagraph = (child: ChildNode | undefined): child is ElementNode =>
    child?.type === 'element' && (child.name === 'p' || child.name === 'div') && isLine(child);
  if (!parent.children.some(isParagraph)) return;
  const { children } = parent;
  parent.children = [];
  let before: ElementNode | null = null;
  for (const child of children) {
    if (child.type === 'text' && !hasLetters(child.value) && before !== null) continue;
    if (!isParagraph(child)) {
      before = null;
      append(parent, child);
      continue;
    }
    const breaks = before === null ? 0 : child.name === 'div' && before.name === 'div' ? 1 : 2;
    for (let i = 0; i < breaks; i++) append(parent, new ElementNode('br', HTML_NAMESPACE, []));
    for (const inner of child.children) append(parent, inner);
    report.unwrapped(child, 'paste-lines');
    before = child;
  }
}

/** Words at the top that stand in no block become paragraphs; an empty line of breaks parts two. */
export function bareLinesToParagraphs(root: ParentNode, report: Reporter): void {
  if (root.children.every((child) => isBlank(child) || (child.type === 'element' && isBlock(child.name)))) return;
  const parted: ChildNode[] = [new Boundary('line', null)];
  let breaks: ChildNode[] = [];
  /** Whether words stand before, with no block between. */
  let isInLine = false;
  for (const child of root.children) {
    if (child.type === 'element' && child.name === 'br') {
      breaks.push(child);
      continue;
    }
    if (breaks.length > 0 && isBlank(child)) {
      breaks.push(child);
      continue;
    }
    const isBlockNode = child.type === 'element' && (isBlock(child.name) || !isLineOfText(child));
    // Beside words, breaks before blocks and empty lines of them part; one alone goes on within the paragraph.
    const parts = isInLine && (breaks.filter(({ type }) => type === 'element').length > 1 || isBlockNode);
    if (parts) parted.push(new Boundary('line', null));
    else for (const one of breaks) parted.push(one);
    isInLine = !isBlockNode && (isInLine || !isBlank(child));
    breaks = [];
    parted.push(child);
    if (isBlockNode) parted.push(new Boundary('line', null));
  }
  if (!isInLine) for (const one of breaks) parted.push(one);
  parted.push(new Boundary('line', null));
  root.children = parted;
  settleBoundaries(root, {
    paragraph: true,
    lineBreak: true,
    always: true,
    shown: new Map(),
    blocks: new Map(),
    onMade: (made, _place, _cause, paragraph) => {
      if (made === 'p' && paragraph !== null) report.changed(paragraph, '<p>', 'tidy', 0, 'paste-lines');
    },
  });
}

function isBlank(child: ChildNode): boolean {
  return child.type === 'comment' || (child.type === 'text' && !hasLetters(child.value) && !child.value.includes('\u00a0'));
}
