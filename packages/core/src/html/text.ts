import { isHidden } from './display';
import { isBlock } from './elements';
import type { ElementNode, Node } from './node';
import { steps } from './steps';

/**
 * Counts the letters a reader could see: UTF-16 code units that are not white space (as in HTML, "ASCII whitespace",
 * plus the hard space). White space is left out so that counts of parts add up to the count of the whole.
 */
export function countLetters(text: string): number {
  let count = 0;
  for (let i = 0; i < text.length; i++) if (isLetter(text.charCodeAt(i))) count++;
  return count;
}

/** Whether a text holds any letter that `countLetters` counts. */
export function hasLetters(text: string): boolean {
  for (let i = 0; i < text.length; i++) if (isLetter(text.charCodeAt(i))) return true;
  return false;
}

/** The offset just behind the first `most` letters of a text; a pair of surrogates is not torn apart. */
export function offsetAfterLetters(text: string, most: number): number {
  let count = 0;
  for (let i = 0; i < text.length; i++) {
    if (!isLetter(text.charCodeAt(i))) continue;
    const isPair = text.codePointAt(i)! > 0xffff;
    count += isPair ? 2 : 1;
    if (count > most) return i;
    if (isPair) i++;
  }
  return text.length;
}

function isLetter(code: number): boolean {
  return code > 0x20 ? code !== 0xa0 : code !== 0x20 && code !== 0x0a && code !== 0x09 && code !== 0x0c && code !== 0x0d;
}

/** The letters a reader could see in a node and all it holds; what is hidden counts as nothing. */
export function visibleLetters(root: Node): number {
  let count = 0;
  const stack: Node[] = [root];
  for (let node = stack.pop(); node !== undefined; node = stack.pop()) {
    steps.taken++;
    if (node.type === 'text') count += countLetters(node.value);
    else if (node.type === 'fragment' || (node.type === 'element' && !isHidden(node))) for (const child of node.children) stack.push(child);
  }
  return count;
}

/** Every text a reader could see in a node, in document order, joined without change. */
export function visibleText(root: Node): string {
  let text = '';
  const stack: Node[] = [root];
  for (let node = stack.pop(); node !== undefined; node = stack.pop()) {
    steps.taken++;
    if (node.type === 'text') text += node.value;
    else if (node.type === 'fragment' || (node.type === 'element' && !isHidden(node)))
      for (let i = node.children.length - 1; i >= 0; i--) stack.push(node.children[i]!);
  }
  return text;
}

/**
 * The first words of a node, for those who only look at its begin.
 *
 * @param most so many UTF-16 units are enough; a little more may be given
 * @param within told of each element below; false ends the reading there
 */
export function firstText(root: Node, most: number, within: (element: ElementNode) => boolean = () => true): string {
  let text = '';
  const stack: Node[] = [root];
  for (let node = stack.pop(); node !== undefined && text.length < most; node = stack.pop()) {
    steps.taken++;
    if (node.type === 'text') text += node.value;
    else if (node.type === 'fragment' || (node.type === 'element' && !isHidden(node))) {
      if (node !== root && node.type === 'element' && !within(node)) return text;
      for (let i = node.children.length - 1; i >= 0; i--) stack.push(node.children[i]!);
    }
  }
  return text;
}

/** Whether an element holds words and no blocks, at whatever depth; reads no further than to the first block. */
export function isLineOfText(element: ElementNode): boolean {
  let holdsBlock = false;
  firstText(element, Infinity, ({ name }) => !(holdsBlock ||= isBlock(name)));
  return !holdsBlock;
}
