import { looseDeclarations, type LooseDeclaration } from './declarations';
import type { ElementNode } from '../html/node';

/** What the style sheets of a paste say of classes and elements, as far as it can mean something: weight, slant, lines through, alignment. */
export class PastedSheet {
  private readonly byClass = new Map<string, LooseDeclaration[]>();

  /** @param css the text of all `style` elements; office programs put it into a comment */
  constructor(readonly css: string) {
    // Only rules for one class, with or without an element before it, as office programs write them.
    for (const [, selectors, body] of css.matchAll(/([^{}]{1,2000})\{([^{}]{1,20000})\}/g)) {
      if (selectors!.includes('@')) continue;
      const telling = looseDeclarations(body!).flatMap(meaningful);
      if (telling.length === 0) continue;
      for (const selector of selectors!.split(',')) {
        const name = /^\s*(?:<!--)?\s*[a-z0-9]*\.([\w-]+)\s*$/i.exec(selector)?.[1];
        if (name === undefined) continue;
        const known = this.byClass.get(name) ?? [];
        for (const one of telling) known.push(one);
        this.byClass.set(name, known);
      }
    }
  }

  /** Whether it says nothing that can mean something. */
  get isEmpty(): boolean {
    return this.byClass.size === 0;
  }

  /** The declarations that an element's classes bring. */
  declarationsOf(element: ElementNode): readonly LooseDeclaration[] {
    if (this.byClass.size === 0) return NONE;
    const classes = element.attribute('class');
    if (classes === undefined) return NONE;
    const found = classes.split(/\s+/).flatMap((name) => this.byClass.get(name) ?? []);
    return found.length === 0 ? NONE : found;
  }
}

const NONE: readonly LooseDeclaration[] = [];
const TELLING: ReadonlySet<string> = new Set([
  'font-weight',
  'font-style',
  'text-decoration',
  'text-decoration-line',
  'vertical-align',
  'text-align',
]);

function meaningful(declaration: LooseDeclaration): LooseDeclaration[] {
  const { property, value } = declaration;
  if (TELLING.has(property)) return [declaration];
  if (property !== 'font') return [];
  // The shorthand says weight and slant before the size (CSS Fonts 4, section 2.7).
  return value
    .split(/\s+/)
    .flatMap((word): LooseDeclaration[] =>
      /^(bold|bolder|[6-9]00)$/i.test(word)
        ? [{ property: 'font-weight', value: 'bold' }]
        : /^(italic|oblique)$/i.test(word)
          ? [{ property: 'font-style', value: 'italic' }]
          : [],
    );
}
