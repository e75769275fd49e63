import { parseFragment, type ChildNode } from '@typikon/core/editing';
import type { Node } from 'prosemirror-model';
import type { NodeView, NodeViewConstructor } from 'prosemirror-view';
import { isDomName } from '../schema/dom';

/** What is deeper is kept and not shown. */
const DEEPEST = 512;

/** Builds the nodes of markup without a parser of the page: nothing is read twice. What it holds is not run, see `surface.ts`. */
function build(host: Document, children: readonly ChildNode[], depth = 0): DocumentFragment {
  const fragment = host.createDocumentFragment();
  for (const child of depth > DEEPEST ? [] : children) {
    if (child.type === 'text') fragment.append(child.value);
    else if (child.type === 'element' && child.name !== 'script') {
      const element = host.createElementNS(child.namespace, isDomName(child.name) ? child.name : 'span');
      for (const { name, value } of child.attributes) if (isDomName(name)) element.setAttribute(name, value);
      element.append(build(host, child.children, depth + 1));
      fragment.append(element);
    }
  }
  return fragment;
}

/** Shows markup that the schema cannot take apart: as it looks, as one thing that is selected, moved and deleted whole. */
export const opaqueView =
  (isInline: boolean): NodeViewConstructor =>
  (node: Node, view): NodeView => {
    const host = view.dom.ownerDocument;
    const markup = node.attrs['markup'] as string;
    const dom = host.createElement(isInline ? 'span' : 'div');
    const anchor = /^<a\b[^>]*\s(?:id|name)="([^"]*)"[^>]*>\s*<\/a>$/.exec(markup);
    dom.contentEditable = 'false';
    if (anchor !== null) {
      dom.className = 'te-anchor';
      dom.textContent = `⚓ ${anchor[1]}`;
      dom.title = `A place named “${anchor[1]}”`;
    } else {
      dom.className = isInline ? 'te-opaque' : 'te-opaque-block';
      dom.dataset['shown'] = markup.length > 60 ? `${markup.slice(0, 57)}…` : markup;
      dom.title = 'Markup that is kept as it is. It can be selected, moved and deleted.';
      dom.append(build(host, parseFragment(markup).root.children));
      if (dom.textContent === '' && dom.querySelector('img,video,audio,iframe,svg,canvas,object') === null) dom.replaceChildren();
    }
    return { dom, ignoreMutation: () => true };
  };
