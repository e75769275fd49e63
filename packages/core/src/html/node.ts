/**
 * The one tree of Typikon: what the parser builds, what every stage reads and changes, what the serializer writes.
 * Nodes are plain objects of four classes, each with a fixed shape, so that walks over them stay quick.
 */

export const HTML_NAMESPACE = 'http://www.w3.org/1999/xhtml';

/** A name and a value as the parser read them; names are in lower case. */
export interface Attribute {
  name: string;
  value: string;
}

export type ParentNode = FragmentNode | ElementNode;
export type ChildNode = ElementNode | TextNode | CommentNode;
export type Node = ParentNode | ChildNode;

export class FragmentNode {
  readonly type = 'fragment' as const;
  children: ChildNode[] = [];
  readonly parent: null = null;
}

export class TextNode {
  readonly type = 'text' as const;
  parent: ParentNode | null = null;
  /** UTF-16 offsets into the input: where the first character was read, and where the last one ends; -1 for text that a stage made. */
  start = -1;
  end = -1;
  /** Where each stretch of the value was read; null where the value stands in the input as it is. */
  stretches: Stretches | null = null;
  constructor(public value: string) {}
}

/**
 * The stretches of a text's value with the places in the input that they were read from, three numbers for each: its UTF-16 offset
 * into the value, from where it goes on to the next one's; and two offsets into the input, between which it stands to the letter only
 * where both are of one length. Numbers in a row instead of objects: every reference makes one. See `text-place.ts`.
 */
export type Stretches = number[];

export class CommentNode {
  readonly type = 'comment' as const;
  parent: ParentNode | null = null;
  /** UTF-16 offset of `<!--` in the input, or -1 where the comment was not in the input. */
  start = -1;
  /** UTF-16 offset just behind the comment. */
  end = -1;
  constructor(public data: string) {}
}

export class ElementNode {
  readonly type = 'element' as const;
  parent: ParentNode | null = null;
  children: ChildNode[] = [];
  /** UTF-16 offset of the start tag in the input, or -1 for an element that the parser added by itself. */
  start = -1;
  /** UTF-16 offset just behind the start tag. */
  startTagEnd = -1;
  /** UTF-16 offset of the end tag, or of the place where the element was closed without one. */
  endTagStart = -1;
  /** UTF-16 offset just behind the element. */
  end = -1;
  /** True for the second and later elements that the parser made from one start tag (formatting reopened in a new block). */
  isCopy = false;
  /** The contents of a `template` element, which are not its children (HTML, section 4.12.3). */
  content: FragmentNode | null = null;
  constructor(
    public name: string,
    public namespace: string,
    public attributes: Attribute[],
  ) {}

  /** The value of an attribute, or undefined where it is absent. */
  attribute(name: string): string | undefined {
    for (const attribute of this.attributes) if (attribute.name === name) return attribute.value;
    return undefined;
  }
}

/**
 * Adds a stretch to others. One that stands in the input to the letter, right behind another that does, goes on with that.
 *
 * @param length of the value that it is the place of
 */
export function addStretch(stretches: Stretches, at: number, start: number, end: number, length: number): void {
  const last = stretches.length - 3;
  if (
    last >= 0 &&
    end - start === length &&
    stretches[last + 2] === start &&
    stretches[last]! + stretches[last + 2]! - stretches[last + 1]! === at
  )
    stretches[last + 2] = end;
  else stretches.push(at, start, end);
}

/** Adds a text to another, with its places in the input. */
export function joinText(text: TextNode, added: TextNode): void {
  const at = text.value.length;
  text.value += added.value;
  if (added.value === '') return;
  // What a stage made has no place of its own: it belongs to the character beside it.
  if (text.start < 0) {
    if (added.start < 0) return;
    text.start = added.start;
    text.end = added.end;
    text.stretches = at === 0 ? [] : [0, added.start, added.start];
  } else if (added.start < 0) {
    (text.stretches ??= [0, text.start, text.end]).push(at, text.end, text.end);
    return;
  } else if (text.stretches === null) {
    if (added.stretches === null && text.end === added.start) {
      text.end = added.end;
      return;
    }
    text.stretches = [0, text.start, text.end];
  }
  const { stretches } = text;
  const own = added.stretches;
  if (own === null) addStretch(stretches, at, added.start, added.end, added.value.length);
  else
    for (let i = 0; i < own.length; i += 3) {
      const offset = own[i]!;
      const until = i + 3 < own.length ? own[i + 3]! : added.value.length;
      addStretch(stretches, at + offset, own[i + 1]!, own[i + 2]!, until - offset);
    }
  text.start = Math.min(text.start, added.start);
  text.end = Math.max(text.end, added.end);
}

/** Adds a node at the end of a parent, joining text to the text before it as the parser would. */
export function append(parent: ParentNode, node: ChildNode): void {
  const { children } = parent;
  if (node.type === 'text') {
    if (node.value.length === 0) return;
    const last = children[children.length - 1];
    if (last?.type === 'text') {
      joinText(last, node);
      return;
    }
  }
  node.parent = parent;
  children.push(node);
}

/** Gives an element that a stage made the place of the one that it stands for. */
export function copyPlace(from: ElementNode, to: ElementNode): void {
  to.start = from.start;
  to.startTagEnd = from.startTagEnd;
  to.endTagStart = from.endTagStart;
  to.end = from.end;
}

/** Takes an element out of its parent; it is looked for from the end, where what was put there last stands. */
export function takeOff(element: ElementNode): void {
  const { children } = element.parent!;
  for (let i = children.length - 1; i >= 0; i--)
    if (children[i] === element) {
      children.splice(i, 1);
      return;
    }
}

/** Text that a stage puts in the place of an element. */
export function textInPlaceOf({ start, startTagEnd, end }: ElementNode, value: string): TextNode {
  const text = new TextNode(value);
  if (start < 0) return text;
  text.start = start;
  text.end = Math.max(startTagEnd, end);
  text.stretches = [0, text.start, text.end];
  return text;
}
