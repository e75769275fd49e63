import {
  CommentNode,
  ElementNode,
  type FragmentNode,
  HTML_NAMESPACE,
  joinText,
  TextNode,
  type ChildNode,
  type ParentNode,
  type Stretches,
} from './node';

import {
  decoded,
  EXCLAMATION,
  GREATER_THAN,
  isBlank,
  isLetter,
  isNamePart,
  isSpace,
  LINE_FEED,
  nameAt,
  QUESTION,
  SOLIDUS,
} from './characters';
import { Is, knownElement, LISTS, type Known } from './known-elements';
import type { Ignored } from './ignored';
import { endOfRawText, Scanner } from './scanner';

/*
 * A second reader, for markup of which the standard's algorithm (HTML, section 13.2.6 "Tree construction") makes what stands
 * there: every element is known and closed where it ends, stands where it may, and asks for nothing to be moved or reopened. What
 * the author's editor and the serializer write is of this kind, and most of what programs put on a clipboard. It answers with the
 * very tree that the standard's algorithm makes, places included, or not at all.
 */

const DOCTYPE = /<!doctype [a-z][^>]*>/iy;

/** Whether every character of markup is read as it stands: the algorithm makes others of these, or none. */
export const isReadAsItStands = (input: string): boolean =>
  input.charCodeAt(0) !== 0xfeff && !input.includes('\r') && !input.includes('\0');

/** Reads markup as far as it is of this kind. */
export class WellFormedReader extends Scanner {
  private parent: ParentNode;
  private kind: Is | null = null;
  private readonly kinds: (Is | null)[] = [];
  /** Whether a `p` is open that a block would close ("in button scope"), and the same for each open element. */
  private inParagraph = false;
  private readonly paragraphs: boolean[] = [];
  private inAnchor = false;
  /** How many nodes stood in the root before. */
  private before = 0;

  /**
   * @param input markup without halves of characters, every character of which is read as it stands
   * @param root gets the nodes that the standard's algorithm makes of it as the contents of a `div`; what stands in it stays
   * @param ignored gets what the algorithm leaves out
   */
  constructor(
    input: string,
    private readonly root: FragmentNode,
    private readonly ignored: Ignored[],
  ) {
    super(input);
    this.parent = root;
  }

  /**
   * Reads on, in one pass.
   *
   * @param from where it begins: nothing is open there
   * @returns where it stopped: behind the last node from which on all is left to the standard's algorithm, or the end of the input
   */
  read(from: number): number {
    const { input, root } = this;
    const { length } = input;
    this.goTo(from);
    this.parent = root;
    this.kind = null;
    this.kinds.length = this.paragraphs.length = 0;
    this.inParagraph = this.inAnchor = false;
    this.before = root.children.length;
    let done = from;
    let count = this.before;
    let left = this.ignored.length;
    for (let isRead = true; isRead && this.at < length;) {
      const open = input.indexOf('<', this.at);
      const end = open === -1 ? length : open;
      isRead = (end === this.at || this.text(end)) && (open === -1 || this.tag(open));
      // Text may go on in what follows; behind anything else all is done.
      if (isRead && this.parent === root && (this.at === length || root.children[root.children.length - 1]?.type !== 'text')) {
        done = this.at;
        count = root.children.length;
        left = this.ignored.length;
      }
    }
    root.children.length = count;
    this.ignored.length = left;
    return done;
  }

  private put(node: ChildNode): void {
    node.parent = this.parent;
    this.parent.children.push(node);
  }

  private text(end: number): boolean {
    const { input, at: start } = this;
    const ampersand = this.ampersandFrom(start);
    let text: TextNode;
    if (ampersand === -1 || ampersand >= end) {
      if (this.isOfTable() && !isBlank(input, start, end)) return false;
      text = new TextNode(input.slice(start, end));
    } else {
      if (this.isOfTable()) return false;
      const stretches: Stretches = [];
      const value = decoded(input, start, end, ampersand, stretches);
      if (value === null) return false;
      text = new TextNode(value);
      text.stretches = stretches;
    }
    text.start = start;
    text.end = end;
    this.at = end;
    return this.putText(text);
  }

  /** Adds a text; one that stands behind a tag that was left out goes on with the text before that. */
  private putText(text: TextNode): boolean {
    const { parent, root, before } = this;
    const { children } = parent;
    const last = children[children.length - 1];
    if (last?.type !== 'text') this.put(text);
    // What stood there before is not changed, since it may have to be left to the standard's algorithm.
    else if (parent === root && children.length === before) return false;
    else joinText(last, text);
    return true;
  }

  private leaveOut(kind: Ignored['kind'], name: string, start: number, end: number): boolean {
    if (this.isOfTable()) return false;
    this.ignored.push({ kind, name, start, end });
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
    if (code === EXCLAMATION || code === QUESTION) return this.comment(open);
    return isLetter(code) && this.startTag(open);
  }

  private comment(open: number): boolean {
    DOCTYPE.lastIndex = open;
    if (DOCTYPE.test(this.input)) return this.leaveOut('doctype', '', open, DOCTYPE.lastIndex);
    const read = this.commentAt(open);
    if (read === null) return false;
    const comment = new CommentNode(read.data);
    comment.start = open;
    comment.end = this.at = read.end;
    this.put(comment);
    return true;
  }

  private endTag(open: number): boolean {
    const { input } = this;
    let at = open + 2;
    while (isNamePart(input.charCodeAt(at))) at++;
    const name = nameAt(input, open + 2, at);
    while (isSpace(input.charCodeAt(at))) at++;
    if (input.charCodeAt(at) !== GREATER_THAN) return false;
    const end = at + 1;
    const { parent } = this;
    // The section that was made for the rows of a table ends with that.
    if (name === 'table' && parent.type === 'element' && parent.start === -1) this.close(parent, open, open);
    const element = this.parent;
    if (element.type === 'element' && element.name === name) {
      this.at = end;
      this.close(element, open, end);
      return true;
    }
    return (name === 'body' || name === 'html' || name === 'head') && this.leaveOut('end-tag', name, open, end);
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
    const known = knownElement(nameAt(input, open + 1, at));
    if (known === null) return false;
    // The group that was made for columns ends with the first that is none.
    if (this.kind === Is.Columns && known.is !== Is.Column && this.parent.type === 'element' && this.parent.start === -1)
      this.close(this.parent, open, open);
    if (!this.mayStand(known)) return false;
    const attributes = this.attributes(at, known.is);
    if (attributes === null) return false;
    const { name, is } = known;
    if (is === Is.Page) return this.leaveOut('start-tag', name, open, this.at);
    const element = new ElementNode(name, HTML_NAMESPACE, attributes);
    element.start = open;
    element.startTagEnd = this.at;
    // Rows of a table stand in a section, which is made for them (HTML, section 13.2.6.4.9).
    if (is === Is.Row && this.kind === Is.Table) this.open(new ElementNode('tbody', HTML_NAMESPACE, []), Is.Section);
    if (is === Is.Column && this.kind === Is.Table) this.open(new ElementNode('colgroup', HTML_NAMESPACE, []), Is.Columns);
    if (is === Is.Void || is === Is.VoidBlock || is === Is.Column) {
      this.put(element);
      element.endTagStart = element.end = this.at;
      return true;
    }
    // A line break that begins the text is none of it, and what stands in a frame is no markup.
    if (is === Is.Preformatted && input.charCodeAt(this.at) === LINE_FEED) return false;
    this.open(element, is);
    if (is === Is.Raw) return this.rawText(name);
    return is !== Is.Frame || (input.startsWith('</', this.at) && this.endTag(this.at));
  }

  private open(element: ElementNode, is: Is): void {
    this.put(element);
    this.kinds.push(this.kind);
    this.paragraphs.push(this.inParagraph);
    this.parent = element;
    this.kind = is;
    if (is === Is.Paragraph) this.inParagraph = true;
    else if (is === Is.Table || is === Is.Cell || is === Is.Caption) this.inParagraph = false;
    else if (is === Is.Anchor) this.inAnchor = true;
  }

  /** Reads the text of an element that holds no markup (HTML, section 13.2.5.3 "RAWTEXT state" and those like it). */
  private rawText(name: string): boolean {
    const { input, at } = this;
    const end = endOfRawText(input, at, name);
    if (end === -1) return false;
    const value = input.slice(at, end);
    // A script has states of its own behind this, and a title has references.
    if (name === 'script' ? value.includes('<!--') : name === 'title' && value.includes('&')) return false;
    if (value !== '') {
      const text = new TextNode(value);
      text.start = at;
      text.end = end;
      this.put(text);
    }
    return this.endTag(end);
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
        return kind === Is.Section || kind === Is.Table;
      case Is.Cell:
        return kind === Is.Row;
      case Is.Column:
        return kind === Is.Columns || kind === Is.Table;
      default:
        if (this.isOfTable()) return false;
    }
    switch (is) {
      case Is.Inline:
      case Is.Void:
      case Is.Frame:
      case Is.Raw:
      case Is.Page:
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
}

/** A `div` around a group of a description list (HTML, section 4.4.9). */
function isGroup({ name, parent }: ElementNode): boolean {
  return name === 'div' && parent?.type === 'element' && parent.name === 'dl';
}
