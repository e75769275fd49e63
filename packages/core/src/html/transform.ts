import { append, type ChildNode, type CommentNode, type ElementNode, type ParentNode, type TextNode } from './node';

/** What becomes of one node: it stays, its tags go, it goes whole, or other nodes stand in its place. */
export type Fate = 'keep' | 'unwrap' | 'drop' | readonly ChildNode[];

export interface Transformation {
  /** Asked before the element's children are looked at; may change its name and attributes. */
  element?: (element: ElementNode, parent: ParentNode) => Fate;
  text?: (text: TextNode, parent: ParentNode) => Fate;
  comment?: (comment: CommentNode, parent: ParentNode) => Fate;
  /** Told once everything in a kept element is done; false takes it out again. */
  done?: (element: ElementNode) => boolean;
}

/**
 * Changes a tree in one walk with a stack of its own, in time linear to its size: children are taken off their parent and
 * put back as the transformation says. Nodes that stand in another's place are not looked at again, except where the
 * element itself is one of them.
 */
export function transform(root: ParentNode, { element, text, comment, done }: Transformation): void {
  interface Open {
    children: readonly ChildNode[];
    next: number;
    target: ParentNode;
    /** The element that is being filled; null where its content goes into one further out. */
    fills: ElementNode | null;
  }
  const stack: Open[] = [];
  const open = (source: ParentNode, target: ParentNode, fills: ElementNode | null): void => {
    const { children } = source;
    source.children = [];
    stack.push({ children, next: 0, target, fills });
  };
  open(root, root, null);
  while (stack.length > 0) {
    const frame = stack[stack.length - 1]!;
    const child = frame.children[frame.next++];
    if (child === undefined) {
      stack.pop();
      // Nothing was put behind it yet, so it is its parent's last child.
      if (frame.fills !== null && done?.(frame.fills) === false) frame.fills.parent!.children.pop();
      continue;
    }
    const { target } = frame;
    const fate =
      child.type === 'element'
        ? (element?.(child, target) ?? 'keep')
        : child.type === 'text'
          ? (text?.(child, target) ?? 'keep')
          : (comment?.(child, target) ?? 'keep');
    if (fate === 'drop') continue;
    if (fate === 'unwrap' && child.type === 'element') open(child, target, null);
    else if (typeof fate === 'object') {
      for (const node of fate) {
        append(target, node);
        if (node === child && child.type === 'element') open(child, child, child);
      }
    } else {
      append(target, child);
      if (child.type === 'element') open(child, child, child);
    }
  }
}

/** Every element of a tree, in document order. */
export function elementsOf(root: ParentNode): ElementNode[] {
  const found: ElementNode[] = [];
  const stack: ParentNode[] = [root];
  for (let node = stack.pop(); node !== undefined; node = stack.pop()) {
    if (node.type === 'element' && node !== root) found.push(node);
    for (let i = node.children.length - 1; i >= 0; i--) {
      const child = node.children[i]!;
      if (child.type === 'element') stack.push(child);
    }
  }
  return found;
}
