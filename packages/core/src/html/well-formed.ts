import {
  CommentNode,
  ElementNode,
  FragmentNode,
  HTML_NAMESPACE,
  TextNode,
  type Attribute,
  type ChildNode,
  type ParentNode,
  type Stretch,
} from './node';

import {
  attributeName,
  decoded,
  EQUALS,
  EXCLAMATION,
  GREATER_THAN,
  isAttributePart,
  isBlank,
  isLetter,
  isNamePart,
  isSpace,
  LINE_FEED,
  QUOTATION,
  SOLIDUS,
} from './characters';
import { Is, KNOWN, LISTS, type Known } from './known-elements';

/*
 * A second reader, for markup of which the standard's algorithm (HTML, section 13.2.6 "Tree construction") makes what stands
 * there: every element is known and closed where it ends, stands where it may, and asks for nothing to be implied, moved or
 * reopened. What the author's editor and the serializer write is of this kind. It answers with the very tree that the standard's
 * algorithm makes, places included, or not at all.
 */

/**
 * Reads markup in one pass.
 *
 * @param input markup without halves of characters
 * @returns the tree that the standard's algorithm makes of it as the contents of a `div`, or null where this is not known for certain
 */
export function readWellFormed(input: string): FragmentNode | null {
  if (input.charCodeAt(0) === 0xfeff || input.includes('\r') || input.includes('\0')) return null;
  return new Reading(input).read();
}

class Reading {
  private at = 0;
  /** The next ampersand at or behind the place that is read; -1 for none. */
  private ampersand: number;
  private readonly root = new FragmentNode();
  private parent: ParentNode = this.root;
  private kind: Is | null = null;
  private readonly kinds: (Is | null)[] = [];
  /** Whether a `p` is open that a block would close ("in button scope"), and the same for each open element. */
  private inParagraph = false;
  private readonly paragraphs: boolean[] = [];
  private inAnchor = false;

  constructor(private readonly input: string) {
    this.ampersand = input.indexOf('&');
  }

  read(): FragmentNode | null {
    const { input, root } = this;
    const { length } = input;
    while (this.at < length) {
      const open = input.indexOf('<', this.at);
      const end = open === -1 ? length : open;
      if (end > this.at && !this.text(end)) return null;
      if (open === -1) break;
      if (!this.tag(open)) return null;
    }
    return this.parent === root ? root : null;
  }

  private put(node: ChildNode): void {
    node.parent = this.parent;
    this.parent.children.push(node);
  }

  private text(end: number): boolean {
    const { input, at: start } = this;
    if (this.ampersand !== -1 && this.ampersand < start) this.ampersand = input.indexOf('&', start);
    const { ampersand } = this;
    let text: TextNode;
    if (ampersand === -1 || ampersand >= end) {
      if (this.isOfTable() && !isBlank(input, start, end)) return false;
      text = new TextNode(input.slice(start, end));
    } else {
      if (this.isOfTable()) return false;
      const stretches: Stretch[] = [];
      const value = decoded(input, start, end, ampersand, stretches);
      if (value === null) return false;
      text = new TextNode(value);
      text.stretches = stretches;
    }
    text.start = start;
    text.end = end;
    this.put(text);
    this.at = end;
    return true;
  }

  /** Whether words cannot stand here: they would be moved out of the table. */
  private isOfTable(): boolean {
    const { kind } = this;
    return kind === Is.Table || kind === Is.Section || kind === Is.Row || kind === Is.Columns;
  }

  private tag(open: number): boolean {
    const code = this.input.charCodeAt(open + 1);
    if (code === SOLIDUS) return this.endTag(open);
    if (code === EXCLAMATION) return this.comment(open);
    return isLetter(code) && this.startTag(open);
  }

  private comment(open: number): boolean {
    const { input } = this;
    if (!input.startsWith('<!--', open)) return false;
    const from = open + 4;
    const close = input.indexOf('-->', from);
    if (close === -1) return false;
    const data = input.slice(from, close);
    // What begins or ends so, or has this in it, is read in another way (HTML, section 13.1.6 "Comments").
    if (data.startsWith('>') || data.startsWith('-') || data.includes('--') || data.includes('<!') || data.endsWith('-')) return false;
    const comment = new CommentNode(data);
    comment.start = open;
    comment.end = this.at = close + 3;
    this.put(comment);
    return true;
  }

  private endTag(open: number): boolean {
    const { input, parent } = this;
    if (parent.type !== 'element') return false;
    const { name } = parent;
    if (!input.startsWith(name, open + 2)) return false;
    let at = open + 2 + name.length;
    while (isSpace(input.charCodeAt(at))) at++;
    if (input.charCodeAt(at) !== GREATER_THAN) return false;
    this.at = at + 1;
    this.close(parent, open, this.at);
    return true;
  }

  private close(element: ElementNode, endTagStart: number, end: number): void {
    element.endTagStart = endTagStart;
    element.end = end;
    if (this.kind === Is.Anchor) this.inAnchor = false;
    this.parent = element.parent!;
    this.kind = this.kinds.pop()!;
    this.inParagraph = this.paragraphs.pop()!;
  }

  private startTag(open: number): boolean {
    const { input } = this;
    let at = open + 2;
    while (isNamePart(input.charCodeAt(at))) at++;
    const known = KNOWN.get(input.slice(open + 1, at));
    if (known === undefined || !this.mayStand(known)) return false;
    const attributes = this.attributes(at, known.is);
    if (attributes === null) return false;
    const { name, is } = known;
    const element = new ElementNode(name, HTML_NAMESPACE, attributes);
    element.start = open;
    element.startTagEnd = this.at;
    this.put(element);
    if (is === Is.Void || is === Is.VoidBlock || is === Is.Column) {
      element.endTagStart = element.end = this.at;
      return true;
    }
    // A line break that begins the text is none of it, and what stands in a frame is no markup.
    if (is === Is.Preformatted && input.charCodeAt(this.at) === LINE_FEED) return false;
    this.kinds.push(this.kind);
    this.paragraphs.push(this.inParagraph);
    this.parent = element;
    this.kind = is;
    if (is === Is.Paragraph) this.inParagraph = true;
    else if (is === Is.Table || is === Is.Cell || is === Is.Caption) this.inParagraph = false;
    else if (is === Is.Anchor) this.inAnchor = true;
    else if (is === Is.Frame) return input.startsWith('</', this.at) && this.endTag(this.at);
    return true;
  }

  /** Whether an element may stand where the reader is, without anything being closed, moved or made for it. */
  private mayStand({ is }: Known): boolean {
    const { kind, parent } = this;
    switch (is) {
      case Is.Section:
      case Is.Caption:
      case Is.Columns:
        return kind === Is.Table;
      case Is.Row:
        return kind === Is.Section;
      case Is.Cell:
        return kind === Is.Row;
      case Is.Column:
        return kind === Is.Columns;
      default:
        if (this.isOfTable()) return false;
    }
    switch (is) {
      case Is.Inline:
      case Is.Void:
      case Is.Frame:
        return true;
      case Is.Anchor:
        return !this.inAnchor;
      case Is.Heading:
        return !this.inParagraph && kind !== Is.Heading;
      case Is.Item:
        return !this.inParagraph && parent.type === 'element' && LISTS.has(parent.name);
      case Is.Description:
        return !this.inParagraph && parent.type === 'element' && (parent.name === 'dl' || isGroup(parent));
      case Is.RubyPart:
        return parent.type === 'element' && parent.name === 'ruby';
      default:
        return !this.inParagraph;
    }
  }

  /** Reads attributes up to the end of the tag; null where something stands there that is read otherwise than it looks. */
  private attributes(from: number, is: Is): Attribute[] | null {
    const { input } = this;
    const attributes: Attribute[] = [];
    let at = from;
    for (;;) {
      const before = at;
      while (isSpace(input.charCodeAt(at))) at++;
      const code = input.charCodeAt(at);
      if (code === GREATER_THAN) {
        this.at = at + 1;
        return attributes;
      }
      if (code === SOLIDUS && (is === Is.Void || is === Is.VoidBlock || is === Is.Column) && input.charCodeAt(at + 1) === GREATER_THAN) {
        this.at = at + 2;
        return attributes;
      }
      if (at === before || !isLetter(code)) return null;
      const nameAt = at;
      while (isAttributePart(input.charCodeAt(at))) at++;
      const name = attributeName(input.slice(nameAt, at));
      let value = '';
      if (input.charCodeAt(at) === EQUALS) {
        if (input.charCodeAt(at + 1) !== QUOTATION) return null;
        const valueAt = at + 2;
        const close = input.indexOf('"', valueAt);
        if (close === -1) return null;
        if (this.ampersand !== -1 && this.ampersand < valueAt) this.ampersand = input.indexOf('&', valueAt);
        const read =
          this.ampersand === -1 || this.ampersand >= close
            ? input.slice(valueAt, close)
            : decoded(input, valueAt, close, this.ampersand, null);
        if (read === null) return null;
        value = read;
        at = close + 1;
      }
      for (const attribute of attributes) if (attribute.name === name) return null;
      attributes.push({ name, value });
    }
  }
}

/** A `div` around a group of a description list (HTML, section 4.4.9). */
function isGroup({ name, parent }: ElementNode): boolean {
  return name === 'div' && parent?.type === 'element' && parent.name === 'dl';
}
