import { CommentNode, ElementNode, FragmentNode, TextNode, type ChildNode, type ParentNode } from './node';
import type { ParsedFragment } from './parse';

/**
 * Copies what the parser returned, so that one reading can be cleaned again and again: stages change the tree that they are
 * given. Several times as quick as parsing anew.
 */
export function cloneFragment({ input, root, ignored }: ParsedFragment): ParsedFragment {
  return { input, root: cloneTree(root), ignored };
}

function cloneTree(root: FragmentNode): FragmentNode {
  const copy = new FragmentNode();
  const sources: ParentNode[] = [root];
  const targets: ParentNode[] = [copy];
  for (let source = sources.pop(); source !== undefined; source = sources.pop()) {
    const target = targets.pop()!;
    for (const child of source.children) {
      const node = cloneNode(child);
      node.parent = target;
      target.children.push(node);
      if (child.type !== 'element') continue;
      if (child.children.length > 0) {
        sources.push(child);
        targets.push(node as ElementNode);
      }
      if (child.content !== null) {
        (node as ElementNode).content = new FragmentNode();
        sources.push(child.content);
        targets.push((node as ElementNode).content!);
      }
    }
  }
  return copy;
}

function cloneNode(node: ChildNode): ChildNode {
  if (node.type === 'text') {
    const text = new TextNode(node.value);
    text.start = node.start;
    text.end = node.end;
    text.stretches = node.stretches?.slice() ?? null;
    return text;
  }
  if (node.type === 'comment') {
    const comment = new CommentNode(node.data);
    comment.start = node.start;
    comment.end = node.end;
    return comment;
  }
  const element = new ElementNode(node.name, node.namespace, node.attributes.slice());
  element.start = node.start;
  element.startTagEnd = node.startTagEnd;
  element.endTagStart = node.endTagStart;
  element.end = node.end;
  element.isCopy = node.isCopy;
  return element;
}
