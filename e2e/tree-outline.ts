import type { Page } from 'puppeteer-core';
import type { ChildNode as OurNode, FragmentNode } from '../packages/core/src/index';

/** How a tree is told in one line, so that ours and the browser's can be compared. */
export function outlineOf(root: FragmentNode): string {
  const outline = (node: OurNode): string =>
    node.type === 'element'
      ? `<${node.name} ${node.attributes.map(({ name, value }) => `${name}=${JSON.stringify(value)}`).join(' ')}>${node.children.map(outline).join('')}</>`
      : node.type === 'comment'
        ? `<!${JSON.stringify(node.data)}>`
        : JSON.stringify(node.value);
  return root.children.map(outline).join('');
}

/** The same for what Chromium makes of markup by `innerHTML`, in a document that runs nothing. */
export function outlinesInBrowser(page: Page, sources: readonly string[]): Promise<string[]> {
  return page.evaluate((stored: readonly string[]) => {
    // By way of the prototypes: a form's own properties can be names of its fields.
    const childrenOf = (node: Node): Node[] => [
      ...(Object.getOwnPropertyDescriptor(Node.prototype, 'childNodes')!.get!.call(node) as NodeListOf<ChildNode>),
    ];
    const attributesOf = (element: Element): string =>
      Element.prototype.getAttributeNames
        .call(element)
        .map((name) => `${name}=${JSON.stringify(Element.prototype.getAttribute.call(element, name))}`)
        .join(' ');
    const outline = (node: Node): string =>
      node instanceof Element
        ? `<${node.localName} ${attributesOf(node)}>${childrenOf(node).map(outline).join('')}</>`
        : node instanceof Comment
          ? `<!${JSON.stringify(node.data)}>`
          : JSON.stringify(node.textContent);
    const holder = document.implementation.createHTMLDocument('').body;
    return stored.map((html) => {
      holder.innerHTML = html;
      return childrenOf(holder).map(outline).join('');
    });
  }, sources);
}
