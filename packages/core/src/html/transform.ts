import { Boundaries, type Means } from './boundary';
import { partingAround, partingOf, type Parting } from './display';
import { AS_WRITTEN } from './elements';
import { append, type ChildNode, type CommentNode, type ElementNode, type ParentNode, takeOff, type TextNode } from './node';
import { steps } from './steps';

/** What becomes of one node: it stays, its tags go, it goes whole, or other nodes stand in its place. */
export type Fate = 'keep' | 'unwrap' | 'drop' | readonly ChildNode[];

export interface Transformation {
  /** Asked before the element's children are looked at; may change its name and attributes. */
  element?: (element: ElementNode, parent: ParentNode) => Fate;
  text?: (text: TextNode, parent: ParentNode) => Fate;
  comment?: (comment: CommentNode, parent: ParentNode) => Fate;
  /** Told once everything in a kept element is done; false takes it out again. */
  done?: (element: ElementNode) => boolean;
  /** With what words that were apart are kept apart; without it by paragraphs, and by breaks where none can stand. */
  apart?: Pick<Means, 'paragraph' | 'lineBreak'>;
}

/**
 * Changes a tree in one walk with a stack of its own, in time linear to its size: children are taken off their parent and
 * put back as the transformation says. Nodes that stand in another's place are not looked at again, except where the
 * element itself is one of them. Words that were apart stay so: where a block goes, paragraphs, breaks or spaces stand.
 */
export function transform(root: ParentNode, { element, text, comment, done, apart = BY_PARAGRAPHS }: Transformation): void {
  interface Open {
    children: readonly ChildNode[];
    next: number;
    target: ParentNode;
    /** The element that is being filled; null where its content goes into one further out. */
    fills: ElementNode | null;
    /** What parts the content of an element that is unwrapped from what follows it. */
    parting: Parting | null;
    /** Whether white space in it is as it was written, or was so until an element around it went. */
    lines: 'kept' | 'lost' | null;
  }
  const boundaries = new Boundaries();
  const stack: Open[] = [];
  const open = (source: ParentNode, target: ParentNode, fills: ElementNode | null, parting: Parting | null): void => {
    const { children } = source;
    source.children = [];
    const isWritten = source.type === 'element' && AS_WRITTEN.has(source.name);
    const around = stack[stack.length - 1]?.lines ?? null;
    const lines = !isWritten || around === 'kept' ? around : fills === null ? 'lost' : 'kept';
    stack.push({ children, next: 0, target, fills, parting, lines });
  };
  open(root, root, null, null);
  while (stack.length > 0) {
    const frame = stack[stack.length - 1]!;
    const child = frame.children[frame.next++];
    steps.taken++;
    if (child === undefined) {
      stack.pop();
      const { fills } = frame;
      if (fills !== null || stack.length === 0) boundaries.settle(frame.target, frame.target === root, apart);
      boundaries.mark(frame.target, frame.parting);
      // Nothing but boundaries was put behind it yet.
      if (fills !== null && done?.(fills) === false) {
        takeOff(fills);
        boundaries.mark(fills.parent!, partingAround(fills));
      }
      continue;
    }
    const { target } = frame;
    const fate =
      child.type === 'element'
        ? (element?.(child, target) ?? 'keep')
        : child.type === 'text'
          ? (text?.(child, target) ?? 'keep')
          : (comment?.(child, target) ?? 'keep');
    if (fate === 'drop') {
      if (child.type === 'element') boundaries.mark(target, partingAround(child));
    } else if (fate === 'unwrap' && child.type === 'element') {
      const parting = partingOf(child);
      boundaries.mark(target, parting);
      open(child, target, null, parting);
    } else if (typeof fate === 'object') {
      for (const node of fate) {
        append(target, node);
        if (node === child && child.type === 'element') open(child, child, child, null);
      }
    } else if (child.type === 'text' && frame.lines === 'lost') boundaries.putLines(target, child);
    else {
      append(target, child);
      if (child.type === 'element') open(child, child, child, null);
    }
  }
}

/** In a paste paragraphs are always to be had; where the rules do not keep them, those part the words in their turn. */
const BY_PARAGRAPHS: Pick<Means, 'paragraph' | 'lineBreak'> = { paragraph: true, lineBreak: true };

/** Every element of a tree, in document order. */
export function elementsOf(root: ParentNode): ElementNode[] {
  const found: ElementNode[] = [];
  const stack: ParentNode[] = [root];
  for (let node = stack.pop(); node !== undefined; node = stack.pop()) {
    steps.taken++;
    if (node.type === 'element' && node !== root) found.push(node);
    for (let i = node.children.length - 1; i >= 0; i--) {
      const child = node.children[i]!;
      if (child.type === 'element') stack.push(child);
    }
  }
  return found;
}
