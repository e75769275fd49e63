import { contrastOf } from '../css/colour';
import type { Style } from '../css/computed';
import { DESK } from '../css/media';
import { isInherited, SEEN } from '../css/properties';
import type { Sheet } from '../css/stylesheet';
import type { StyleAct } from '../styles/act';
import { sampleOf } from '../styles/sample';
import { Scene, type WrapperElement } from './context';

/** A kind of page as far as styles are concerned. */
export interface StyledPage {
  name: string;
  sheets: readonly Sheet[];
  wrapper: readonly WrapperElement[];
}

/** What a style looks like on a page. */
export interface StyledLook {
  /** The rules that name what the style gives: file, selector and line. */
  rules: { sheet: string; selector: string; line: number }[];
  /** What the reader sees of it: each property with its value. Two styles with the same look cannot be told apart. */
  look: string;
  /** What differs from the same content without the style. */
  changes: { property: string; value: string }[];
  /** Contrast of the text with its ground; null where one of them is not known, such as over a picture. */
  contrast: number | null;
}

/** Works out what styles look like on a page; made once for many styles. */
export class StyledLooks {
  private readonly scene: Scene;

  constructor(page: StyledPage) {
    this.scene = new Scene({ sheets: page.sheets, media: DESK, wrapper: page.wrapper, title: '', columnPx: null });
  }

  of(act: StyleAct): StyledLook {
    const { before, after } = sampleOf(act);
    const placed = this.scene.place(after);
    const isStyled = (element: (typeof placed.elements)[number]): boolean =>
      element.name === act.element &&
      act.classes.every((name) => (element.attribute('class') ?? '').split(' ').includes(name)) &&
      act.attributes.every(({ name, value }) => element.attribute(name) === value);
    const element = placed.elements.find(isStyled);
    if (element === undefined) return { rules: [], look: '', changes: [], contrast: null };
    const style = this.scene.styles.of(element);
    const rules = new Map<string, StyledLook['rules'][number]>();
    for (const { winner, losers } of this.scene.styles.cascade.contests(element))
      for (const { sheet, selector, line } of [winner, ...losers])
        if (names(selector, act)) rules.set(`${sheet} ${selector}`, { sheet, selector, line });
    const without = this.scene.place(before);
    const at = placed.elements.indexOf(element);
    const plain = act.kind === 'inline' ? parentIn(placed.elements, at) : null;
    const reference = this.scene.styles.of(plain ?? without.elements[Math.min(at, without.elements.length - 1)] ?? element);
    const changes: StyledLook['changes'] = [];
    for (const [property] of SEEN) {
      const value = style.value(property);
      const usual = plain !== null && !isInherited(property) ? this.unstyled(act.element, property) : reference.value(property);
      if (value !== usual) changes.push({ property, value });
    }
    const pseudo = ['before', 'after'].map((name) => this.scene.styles.ofPseudo(element, name)?.value('content') ?? '');
    return {
      rules: [...rules.values()],
      look: JSON.stringify([...SEEN.keys()].map((property) => style.value(property)).concat(pseudo)),
      changes,
      contrast: contrastIn(style),
    };
  }

  private unstyled(element: string, property: string): string {
    const placed = this.scene.place(`<p><${element}>x</${element}></p>`);
    return this.scene.styles.of(placed.elements[1] ?? placed.elements[0]!).value(property);
  }
}

function parentIn<T extends { parent: unknown }>(elements: readonly T[], at: number): T | null {
  const parent = elements[at]?.parent;
  return elements.find((element) => element === parent) ?? null;
}

/** Whether a selector is about what the style gives: its classes, its attributes, or else its element. */
function names(selector: string, { classes, attributes, element }: StyleAct): boolean {
  if (selector === '') return false;
  if (classes.length > 0)
    return classes.some((name) => new RegExp(`\\.${escaped(name)}(?![\\w-])`).test(selector) || selector.includes(`="${name}"`));
  if (attributes.length > 0) return attributes.some(({ name }) => selector.includes(`[${name}`));
  return new RegExp(`(^|[\\s>+~,(])${element}(?![\\w-])`).test(selector);
}

const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

function contrastIn(style: Style): number | null {
  let ground = '#ffffff';
  for (let at: Style | null = style; at !== null; at = at.parent) {
    if (at.value('background-image') !== 'none') return null;
    const colour = at.value('background-color');
    if (colour === 'transparent') continue;
    // What shows through is not known without what lies behind.
    if (!colour.startsWith('#')) return null;
    ground = colour;
    break;
  }
  const ratio = contrastOf(style.value('color'), ground);
  return ratio === 0 ? null : ratio;
}

const known = new WeakMap<StyledPage, StyledLooks>();

/** The looks on a page; its stylesheets are read once. */
export function looksOn(page: StyledPage): StyledLooks {
  let looks = known.get(page);
  if (looks === undefined) known.set(page, (looks = new StyledLooks(page)));
  return looks;
}
