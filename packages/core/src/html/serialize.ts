import { encodeNonAsciiHTML } from 'entities';
import { RAW_TEXT_ELEMENTS, VOID_ELEMENTS } from './elements';
import { HTML_NAMESPACE, type ChildNode, type ElementNode, type ParentNode } from './node';

/**
 * Writes a tree as markup (HTML, section 13.3 "Serializing HTML fragments"), in time linear to its size and without
 * recursion. `<` and `>` are escaped in attribute values too, as the standard has it since 2025, and a newline that
 * the parser would drop at the begin of `pre`, `textarea` and `listing` is doubled. A carriage return is written as a
 * reference, since a raw one would be read as a newline.
 *
 * @param root a fragment or an element; of an element only its contents are written
 * @param characters how characters outside ASCII are written: as they are, by name where HTML has one, or by number
 * @returns markup; plain text in it is escaped
 */
export function serialize(root: ParentNode, characters: Characters = 'raw'): string {
  return write(root, ENCODERS[characters]);
}

/** How characters outside ASCII are written. */
export type Characters = 'raw' | 'named' | 'numeric';

/** With the hard space, which is always written as a reference. */
const OUTSIDE_ASCII = /&nbsp;|[\u0080-\u{10ffff}]/gu;
/** References to these would be read as other characters (HTML, section 13.2.5.80), so they stay as they are. */
const NOT_REFERABLE = /[\u0080-\u009f\ud800-\udfff]/u;

function byNumber(character: string): string {
  if (character === '&nbsp;') return '&#160;';
  return NOT_REFERABLE.test(character) ? character : `&#${character.codePointAt(0)!};`;
}

function byName(character: string): string {
  if (character === '&nbsp;' || NOT_REFERABLE.test(character)) return character;
  return encodeNonAsciiHTML(character);
}

/** What is done to text and attribute values once they are escaped; comments have no references. */
type Encoder = ((escaped: string) => string) | null;

const ENCODERS: Readonly<Record<Characters, Encoder>> = {
  raw: null,
  named: (escaped) => escaped.replace(OUTSIDE_ASCII, byName),
  numeric: (escaped) => escaped.replace(OUTSIDE_ASCII, byNumber),
};

function write(root: ParentNode, encode: Encoder): string {
  let out = '';
  const parents: ParentNode[] = [root];
  const places: number[] = [0];
  while (parents.length > 0) {
    const depth = parents.length - 1;
    const parent = parents[depth]!;
    const children = contentsOf(parent);
    const place = places[depth]!;
    if (place === children.length) {
      parents.pop();
      places.pop();
      if (parent.type === 'element' && depth > 0) out += `</${parent.name}>`;
      continue;
    }
    places[depth] = place + 1;
    const child = children[place]!;
    if (child.type === 'text') out += isRawTextIn(parent) ? child.value : encoded(escapeText(child.value), encode);
    else if (child.type === 'comment') out += `<!--${child.data}-->`;
    else {
      out += tagOf(child, encode);
      if (child.namespace === HTML_NAMESPACE && VOID_ELEMENTS.has(child.name)) continue;
      if (contentsOf(child).length === 0) out += `</${child.name}>`;
      else {
        if (startsWithLostNewline(child)) out += '\n';
        parents.push(child);
        places.push(0);
      }
    }
  }
  return out;
}

/** A start tag as the serializer writes it. */
export function startTag(element: ElementNode): string {
  return tagOf(element, null);
}

function encoded(escaped: string, encode: Encoder): string {
  return encode === null ? escaped : encode(escaped);
}

function tagOf({ name, attributes }: ElementNode, encode: Encoder): string {
  let tag = `<${name}`;
  for (const attribute of attributes) tag += ` ${attribute.name}="${encoded(escapeAttribute(attribute.value), encode)}"`;
  return `${tag}>`;
}

function contentsOf(node: ParentNode): ChildNode[] {
  return node.type === 'element' && node.content !== null ? node.content.children : node.children;
}

function isRawTextIn(parent: ParentNode): boolean {
  return parent.type === 'element' && parent.namespace === HTML_NAMESPACE && RAW_TEXT_ELEMENTS.has(parent.name);
}

function startsWithLostNewline(element: ElementNode): boolean {
  if (element.name !== 'pre' && element.name !== 'textarea' && element.name !== 'listing') return false;
  const first = element.children[0];
  return first?.type === 'text' && first.value.startsWith('\n');
}

const IN_TEXT = /[&<>\r\u00a0]/;
const IN_ATTRIBUTE = /[&<>"\r\u00a0]/;

/** Text with the characters that markup would read replaced by references. */
export function escapeText(text: string): string {
  if (!IN_TEXT.test(text)) return text;
  return text
    .replace(/&/g, '&amp;')
    .replace(/\u00a0/g, '&nbsp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/\r/g, '&#13;');
}

/** An attribute value, to stand between double quotes. */
export function escapeAttribute(value: string): string {
  if (!IN_ATTRIBUTE.test(value)) return value;
  return value
    .replace(/&/g, '&amp;')
    .replace(/\u00a0/g, '&nbsp;')
    .replace(/"/g, '&quot;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/\r/g, '&#13;');
}
