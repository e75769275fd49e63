import { isBlock } from '../html/elements';
import { TextNode, type ChildNode, type ParentNode } from '../html/node';

const INDENT = '  ';
const BLANK_START = /^[\t\n\f\r ]+/;
const BLANK_END = /[\t\n\f\r ]+$/;
/** White space in these is the author's own. */
const AS_WRITTEN: ReadonlySet<string> = new Set(['pre', 'textarea', 'listing', 'xmp', 'plaintext']);
/** Deeper blocks are no longer indented further, so that the result stays linear in the input. */
const DEEPEST_INDENT = 40;

/**
 * Lays out the white space between blocks, where no reader sees it: none, or each block on a line of its own, indented by
 * its depth. White space inside lines of text stays as it is. Laying out the result again changes nothing.
 *
 * @param root is changed in place
 */
export function layOut(root: ParentNode, layout: 'compact' | 'indented'): void {
  const stack: { node: ParentNode; depth: number }[] = [{ node: root, depth: 0 }];
  for (let open = stack.pop(); open !== undefined; open = stack.pop()) {
    const { node, depth } = open;
    if ((node.type === 'fragment' || isBlock(node.name)) && node.children.some(isBlockNode))
      layOutChildren(node, layout === 'indented' ? Math.min(depth, DEEPEST_INDENT) : -1);
    for (const child of node.children)
      if (child.type === 'element' && child.children.length > 0 && !AS_WRITTEN.has(child.name))
        stack.push({ node: child, depth: depth + 1 });
  }
}

function isBlockNode(node: ChildNode | undefined): boolean {
  return node?.type === 'element' && isBlock(node.name);
}

/** @param depth how deep to indent; -1 for no white space at all */
function layOutChildren(parent: ParentNode, depth: number): void {
  const kept: ChildNode[] = [];
  const { children } = parent;
  children.forEach((child, i) => {
    if (child.type !== 'text') {
      kept.push(child);
      return;
    }
    if (i === 0 || isBlockNode(children[i - 1])) child.value = child.value.replace(BLANK_START, '');
    if (i === children.length - 1 || isBlockNode(children[i + 1])) child.value = child.value.replace(BLANK_END, '');
    if (child.value !== '') kept.push(child);
  });
  if (depth === -1) {
    parent.children = kept;
    return;
  }
  const isRoot = parent.type === 'fragment';
  const laid: ChildNode[] = [];
  const breakLine = (levels: number): void => {
    const text = `\n${INDENT.repeat(levels)}`;
    const last = laid[laid.length - 1];
    if (last?.type === 'text') last.value += text;
    else {
      const node = new TextNode(text);
      node.parent = parent;
      laid.push(node);
    }
  };
  kept.forEach((child, i) => {
    const isFirst = i === 0;
    const breaksLine = isFirst ? !isRoot : isBlockNode(child) || isBlockNode(kept[i - 1]);
    if (breaksLine) breakLine(depth);
    const last = laid[laid.length - 1];
    if (child.type === 'text' && last?.type === 'text') last.value += child.value;
    else laid.push(child);
  });
  if (!isRoot) breakLine(depth - 1);
  parent.children = laid;
}
