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
  /** UTF-16 offsets into the input, where a stage noted them; -1 where it did not. */
  start = -1;
  end = -1;
  constructor(public value: string) {}
}

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

/** Adds a node at the end of a parent, joining text to the text before it as the parser would. */
export function append(parent: ParentNode, node: ChildNode): void {
  const { children } = parent;
  if (node.type === 'text') {
    const last = children[children.length - 1];
    if (last?.type === 'text') {
      last.value += node.value;
      if (node.start >= 0) {
        if (last.start < 0) last.start = node.start;
        last.end = node.end;
      }
      return;
    }
    if (node.value.length === 0) return;
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
