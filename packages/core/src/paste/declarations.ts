import type { ElementNode } from '../html/node';

/** One declaration of a `style` attribute as other programs write it: read leniently, since most of them are not CSS. */
export interface LooseDeclaration {
  property: string;
  value: string;
}

/** Reads a style attribute without the grammar of CSS: office programs invent properties and values. */
export function looseDeclarations(style: string): LooseDeclaration[] {
  return style
    .split(/;(?![^("']*[)"'])/)
    .map((part) => {
      const colon = part.indexOf(':');
      return colon === -1 ? null : { property: part.slice(0, colon).trim().toLowerCase(), value: part.slice(colon + 1).trim() };
    })
    .filter((declaration): declaration is LooseDeclaration => declaration !== null && declaration.property !== '');
}

/** The value of a property in an element's style, in lower case; empty where it is not there. */
export function styleOf(element: ElementNode, property: string): string {
  const style = element.attribute('style');
  if (style === undefined || !style.toLowerCase().includes(property)) return '';
  return (
    looseDeclarations(style)
      .filter((declaration) => declaration.property === property)
      .at(-1)
      ?.value.toLowerCase() ?? ''
  );
}

/** Gives an element a value for an attribute, or takes the attribute away. */
export function setAttribute(element: ElementNode, name: string, value: string | null): void {
  const place = element.attributes.findIndex((attribute) => attribute.name === name);
  if (value === null) {
    if (place !== -1) element.attributes.splice(place, 1);
  } else if (place === -1) element.attributes.push({ name, value });
  else element.attributes[place] = { name, value };
}
