import { DOMParser, DOMSerializer, type DOMOutputSpec, type Node as DocumentNode, type Schema } from 'prosemirror-model';

/** Reads clean markup into the editor's document. */
export function readHtml(html: string, schema: Schema, dom: Document): DocumentNode {
  // An inert document: nothing in it loads or runs while it is read.
  const body = dom.implementation.createHTMLDocument('').body;
  body.innerHTML = html;
  return DOMParser.fromSchema(schema).parse(body);
}

/** Stands for the line, which has no tag of its own, until the markup is written. */
const LINE = 'typikon-line';

const serializers = new WeakMap<Schema, DOMSerializer>();

function serializerOf(schema: Schema): DOMSerializer {
  let serializer = serializers.get(schema);
  if (serializer === undefined) {
    const nodes = { ...DOMSerializer.nodesFromSchema(schema), line: (): DOMOutputSpec => [LINE, 0] };
    serializers.set(schema, (serializer = new DOMSerializer(nodes, DOMSerializer.marksFromSchema(schema))));
  }
  return serializer;
}

/** Writes the editor's document as markup, a line for each block. Words without a paragraph are written without one. */
export function writeHtml(document: DocumentNode, dom: Document): string {
  const serializer = serializerOf(document.type.schema);
  // Made in an inert document, so that no picture is loaded for the sake of writing it down.
  const inert = dom.implementation.createHTMLDocument('');
  const holder = inert.createElement('div');
  const parts: string[] = [];
  document.forEach((block) => {
    holder.replaceChildren(serializer.serializeNode(block, { document: inert }));
    for (const line of holder.querySelectorAll(LINE)) line.replaceWith(...line.childNodes);
    parts.push(holder.innerHTML);
  });
  return parts.join('\n');
}
