import type { ElementNode } from '../html/node';

/** One declaration of a `style` attribute as other programs write it: read leniently, since most of them are not CSS. */
export interface LooseDeclaration {
  property: string;
  value: string;
}

/** What was read last: programs write the same style on every cell and every paragraph, and each pass asks for it again. */
const read = new Map<string, readonly LooseDeclaration[]>();
const MOST_READ = 500;
const LONGEST_READ = 2000;

/** Reads a style attribute without the grammar of CSS: office programs invent properties and values. Linear in its length. */
export function looseDeclarations(style: string): readonly LooseDeclaration[] {
  const known = read.get(style);
  if (known !== undefined) return known;
  const found = readDeclarations(style);
  if (style.length > LONGEST_READ) return found;
  if (read.size >= MOST_READ) read.clear();
  read.set(style, found);
  return found;
}

function readDeclarations(style: string): LooseDeclaration[] {
  const found: LooseDeclaration[] = [];
  const close = (from: number, to: number): void => {
    const part = style.slice(from, to);
    const colon = part.indexOf(':');
    if (colon === -1) return;
    const property = part.slice(0, colon).trim().toLowerCase();
    if (property !== '') found.push({ property, value: part.slice(colon + 1).trim() });
  };
  let from = 0;
  let quote = '';
  let depth = 0;
  const lastClose = style.lastIndexOf(')');
  for (let i = 0; i < style.length; i++) {
    const character = style[i]!;
    if (quote !== '') {
      if (character === quote) quote = '';
    } else if (character === '"' || character === "'") {
      // A quote that nobody closes is no quote.
      if (style.indexOf(character, i + 1) !== -1) quote = character;
    } else if (character === '(') depth++;
    else if (character === ')') depth = Math.max(0, depth - 1);
    else if (character === ';' && (depth === 0 || lastClose < i)) {
      close(from, i);
      from = i + 1;
    }
  }
  close(from, style.length);
  return found;
}

/** The value of a property in an element's style, in lower case; empty where it is not there. */
export function styleOf(element: ElementNode, property: string): string {
  const style = element.attribute('style');
  if (style === undefined || style === '') return '';
  let value = '';
  for (const declaration of looseDeclarations(style)) if (declaration.property === property) value = declaration.value;
  return value.toLowerCase();
}

/** A length in a style as points, roughly: what tells depths of indentation apart; 0 where there is none. */
export function pointsOf(value: string): number {
  const match = /(-?[\d.]+)\s*(pt|px|in|cm|mm|em|rem)?/.exec(value);
  if (match === null) return 0;
  const factor = { pt: 1, px: 0.75, in: 72, cm: 28.35, mm: 2.835, em: 12, rem: 12 }[match[2] ?? 'px'] ?? 1;
  return Number(match[1]) * factor;
}

/** Gives an element a value for an attribute, or takes the attribute away. */
export function setAttribute(element: ElementNode, name: string, value: string | null): void {
  const place = element.attributes.findIndex((attribute) => attribute.name === name);
  if (value === null) {
    if (place !== -1) element.attributes.splice(place, 1);
  } else if (place === -1) element.attributes.push({ name, value });
  else element.attributes[place] = { name, value };
}
