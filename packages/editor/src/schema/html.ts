import { DOMParser, DOMSerializer, type Node as DocumentNode, type Schema } from 'prosemirror-model';

/** Reads clean markup into the editor's document. */
export function readHtml(html: string, schema: Schema, dom: Document): DocumentNode {
  // An inert document: nothing in it loads or runs while it is read.
  const body = dom.implementation.createHTMLDocument('').body;
  body.innerHTML = html;
  return DOMParser.fromSchema(schema).parse(body);
}

const serializers = new WeakMap<Schema, DOMSerializer>();

/** Writes the editor's document as markup. Words without a paragraph are written without one. */
export function writeHtml(document: DocumentNode, dom: Document): string {
  const { schema } = document.type;
  let serializer = serializers.get(schema);
  if (serializer === undefined) {
    const nodes = DOMSerializer.nodesFromSchema(schema);
    nodes['line'] = () => {
      const fragment = dom.createDocumentFragment();
      return { dom: fragment as unknown as HTMLElement, contentDOM: fragment as unknown as HTMLElement };
    };
    serializer = new DOMSerializer(nodes, DOMSerializer.marksFromSchema(schema));
    serializers.set(schema, serializer);
  }
  const holder = dom.createElement('div');
  const parts: string[] = [];
  document.forEach((block) => {
    holder.replaceChildren(serializer.serializeNode(block, { document: dom }));
    parts.push(holder.innerHTML);
  });
  return parts.join('\n');
}
