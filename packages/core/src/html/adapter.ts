import type { Token, TreeAdapter, TreeAdapterTypeMap, html } from 'parse5';
import {
  type Attribute,
  type ChildNode,
  CommentNode,
  ElementNode,
  FragmentNode,
  joinText,
  type Node,
  type ParentNode,
  TextNode,
} from './node';

/** How the names of parse5's tree interface map to our nodes. */
export type NodeMap = TreeAdapterTypeMap<
  Node,
  ParentNode,
  ChildNode,
  FragmentNode,
  FragmentNode,
  ElementNode,
  CommentNode,
  TextNode,
  ElementNode,
  never
>;

/** Lets parse5 build our tree. One adapter serves one parse: it remembers the element made last and how many were made. */
export class Adapter implements TreeAdapter<NodeMap> {
  created = 0;
  latest: ElementNode | null = null;
  /** The place of the text that is about to be put into the tree. */
  read: Pick<TextNode, 'start' | 'end' | 'stretches'> | null = null;

  createDocument(): FragmentNode {
    return new FragmentNode();
  }
  createDocumentFragment(): FragmentNode {
    return new FragmentNode();
  }
  createElement(name: string, namespace: html.NS, attributes: Attribute[]): ElementNode {
    this.created++;
    return (this.latest = new ElementNode(name, namespace, attributes));
  }
  createCommentNode(data: string): CommentNode {
    return new CommentNode(data);
  }
  createTextNode(value: string): TextNode {
    return new TextNode(value);
  }
  appendChild(parent: ParentNode, child: ChildNode): void {
    parent.children.push(child);
    child.parent = parent;
  }
  insertBefore(parent: ParentNode, child: ChildNode, reference: ChildNode): void {
    parent.children.splice(indexFromEnd(parent.children, reference), 0, child);
    child.parent = parent;
  }
  detachNode(child: ChildNode): void {
    if (child.parent === null) return;
    child.parent.children.splice(indexFromEnd(child.parent.children, child), 1);
    child.parent = null;
  }
  insertText(parent: ParentNode, text: string): void {
    const last = parent.children[parent.children.length - 1];
    const node = this.textNode(text);
    if (last?.type === 'text') joinText(last, node);
    else this.appendChild(parent, node);
  }
  insertTextBefore(parent: ParentNode, text: string, reference: ChildNode): void {
    const previous = parent.children[indexFromEnd(parent.children, reference) - 1];
    const node = this.textNode(text);
    if (previous?.type === 'text') joinText(previous, node);
    else this.insertBefore(parent, node, reference);
  }
  private textNode(text: string): TextNode {
    const node = new TextNode(text);
    const { read } = this;
    if (read !== null) {
      node.start = read.start;
      node.end = read.end;
      node.stretches = read.stretches;
    }
    return node;
  }
  adoptAttributes(element: ElementNode, attributes: Token.Attribute[]): void {
    const known = new Set(element.attributes.map(({ name }) => name));
    for (const attribute of attributes) if (!known.has(attribute.name)) element.attributes.push(attribute);
  }
  setTemplateContent(template: ElementNode, content: FragmentNode): void {
    template.content = content;
  }
  getTemplateContent(template: ElementNode): FragmentNode {
    return (template.content ??= new FragmentNode());
  }
  setDocumentType(): void {}
  setDocumentMode(): void {}
  getDocumentMode(): html.DOCUMENT_MODE {
    return 'no-quirks' as html.DOCUMENT_MODE;
  }
  getFirstChild(node: ParentNode): ChildNode | null {
    return node.children[0] ?? null;
  }
  getChildNodes(node: ParentNode): ChildNode[] {
    return node.children;
  }
  getParentNode(node: ChildNode): ParentNode | null {
    return node.parent;
  }
  getAttrList(element: ElementNode): Attribute[] {
    return element.attributes;
  }
  getTagName(element: ElementNode): string {
    return element.name;
  }
  getNamespaceURI(element: ElementNode): html.NS {
    return element.namespace as html.NS;
  }
  getTextNodeContent(text: TextNode): string {
    return text.value;
  }
  getCommentNodeContent(comment: CommentNode): string {
    return comment.data;
  }
  getDocumentTypeNodeName(): string {
    return '';
  }
  getDocumentTypeNodePublicId(): string {
    return '';
  }
  getDocumentTypeNodeSystemId(): string {
    return '';
  }
  isTextNode(node: Node): node is TextNode {
    return node.type === 'text';
  }
  isCommentNode(node: Node): node is CommentNode {
    return node.type === 'comment';
  }
  isDocumentTypeNode(_node: Node): _node is never {
    return false;
  }
  isElementNode(node: Node): node is ElementNode {
    return node.type === 'element';
  }
  setNodeSourceCodeLocation(): void {}
  getNodeSourceCodeLocation(): null {
    return null;
  }
  updateNodeSourceCodeLocation(): void {}
}

/** The parser moves nodes mostly near the end of their parent, so the search begins there. */
function indexFromEnd(children: ChildNode[], child: ChildNode): number {
  const last = children.length - 1;
  return children[last] === child ? last : children.lastIndexOf(child);
}
