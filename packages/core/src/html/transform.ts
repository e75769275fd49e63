import { Boundaries, type Means } from './boundary';
import { partingAround, partingOf, type Parting } from './display';
import { AS_WRITTEN } from './elements';
import { append, type ChildNode, type CommentNode, type ElementNode, type ParentNode, takeOff, type TextNode } from './node';
import { steps } from './steps';

/** What becomes of one node: it stays, its tags go, it goes whole, or other nodes stand in its place. */
export type Fate = 'keep' | 'unwrap' | 'drop' | readonly ChildNode[];

export interface Transformation {
  /**
   * Asked before the element's children are looked at; may change its name and attributes.
   *
   * @param before how many of the parent's children are in place before it
   */
  element?: (element: ElementNode, parent: ParentNode, before: number) => Fate;
  text?: (text: TextNode, parent: ParentNode) => Fate;
  comment?: (comment: CommentNode, parent: ParentNode) => Fate;
  /** Told once everything in a kept element is done; false takes it out again. */
  done?: (element: ElementNode) => boolean;
  /** With what words that were apart are kept apart; without it by paragraphs, and by breaks where none can stand. */
  apart?: Pick<Means, 'paragraph' | 'lineBreak'>;
}

/**
 * Changes a tree in one walk with a stack of its own, in time linear to its size. Nodes that stand in another's place are not looked
 * at again, except where the element itself is one of them. Words that were apart stay so: where a block goes, paragraphs, breaks or
 * spaces stand. Where nothing changes, nothing is moved: the children of an element are put back one by one only from the first on
 * that does not stay.
 */
export function transform(root: ParentNode, transformation: Transformation): void {
  new TreeWalk(root, transformation).run();
}

/** Children that are walked, and where they go. */
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
  /** Whether the children are put back one by one; until then they stand in the target as they did. */
  isMoving: boolean;
}

class TreeWalk {
  private readonly boundaries = new Boundaries();
  private readonly stack: Open[] = [];

  constructor(
    private readonly root: ParentNode,
    private readonly of: Transformation,
  ) {}

  run(): void {
    const { stack } = this;
    this.open(this.root, this.root, this.root.type === 'element' ? this.root : null, null);
    // The root itself is not filled anew.
    stack[0]!.fills = null;
    while (stack.length > 0) {
      const frame = stack[stack.length - 1]!;
      const child = frame.children[frame.next++];
      steps.taken++;
      if (child === undefined) this.close(frame);
      else this.put(child, frame);
    }
  }

  private put(child: ChildNode, frame: Open): void {
    const { element, text, comment } = this.of;
    const { target } = frame;
    const fate =
      child.type === 'element'
        ? (element?.(child, target, frame.isMoving ? target.children.length : frame.next - 1) ?? 'keep')
        : child.type === 'text'
          ? (text?.(child, target) ?? 'keep')
          : (comment?.(child, target) ?? 'keep');
    if (fate === 'keep') {
      this.keep(child, frame);
      return;
    }
    this.moveOn(this.stack.length - 1, frame.next - 1);
    if (fate === 'drop') {
      if (child.type === 'element') this.boundaries.mark(target, partingAround(child));
    } else if (fate === 'unwrap') {
      if (child.type !== 'element') this.keep(child, frame);
      else {
        const parting = partingOf(child);
        this.boundaries.mark(target, parting);
        this.open(child, target, null, parting);
      }
    } else
      for (const node of fate) {
        append(target, node);
        if (node === child && child.type === 'element') this.open(child, child, child, null);
      }
  }

  private keep(child: ChildNode, frame: Open): void {
    const { target } = frame;
    if (child.type === 'text' && !frame.isMoving && (child.value === '' || frame.children[frame.next - 2]?.type === 'text'))
      // It goes, or is joined to the text before it.
      this.moveOn(this.stack.length - 1, frame.next - 1);
    if (child.type === 'text' && frame.lines === 'lost') {
      this.moveOn(this.stack.length - 1, frame.next - 1);
      this.boundaries.putLines(target, child);
      return;
    }
    if (frame.isMoving) append(target, child);
    if (child.type === 'element') this.open(child, child, child, null);
  }

  private open(source: ParentNode, target: ParentNode, fills: ElementNode | null, parting: Parting | null): void {
    const { children } = source;
    const isWritten = source.type === 'element' && AS_WRITTEN.has(source.name);
    const around = this.stack[this.stack.length - 1]?.lines ?? null;
    const lines = !isWritten || around === 'kept' ? around : fills === null ? 'lost' : 'kept';
    const isMoving = source !== target;
    if (isMoving) source.children = [];
    this.stack.push({ children, next: 0, target, fills, parting, lines, isMoving });
  }

  /** From a child on, what is walked at a depth is put back one by one; and so is what stands around it, behind what is walked. */
  private moveOn(depth: number, from: number): void {
    for (let at = depth, kept = from; at >= 0 && !this.stack[at]!.isMoving; at--) {
      const frame = this.stack[at]!;
      frame.isMoving = true;
      frame.target.children = frame.children.slice(0, kept);
      if (at > 0) kept = this.stack[at - 1]!.next;
    }
  }

  private close(frame: Open): void {
    const { stack, boundaries } = this;
    const { fills, target } = frame;
    stack.pop();
    if (fills !== null || stack.length === 0) boundaries.settle(target, target === this.root, this.of.apart ?? BY_PARAGRAPHS);
    boundaries.mark(target, frame.parting);
    // Nothing but boundaries was put behind it yet.
    if (fills !== null && this.of.done?.(fills) === false) {
      const around = stack[stack.length - 1]!;
      if (around.isMoving) takeOff(fills);
      else this.moveOn(stack.length - 1, around.next - 1);
      boundaries.mark(fills.parent!, partingAround(fills));
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
