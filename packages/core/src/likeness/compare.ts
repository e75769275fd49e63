import type { ElementNode } from '../html/node';
import type { Style } from '../css/computed';
import { isInherited, SEEN, type PropertyFacts } from '../css/properties';
import { hasWords, type Placed, type Scene } from './context';

/** A property of an element that looks different in two settings. */
export interface Difference {
  /** Which of the content's elements, in document order. */
  index: number;
  /** `before` or `after`; empty for the element itself. */
  pseudo: string;
  property: string;
  one: string;
  other: string;
  origin: Origin;
}

/** Where a difference comes from: the element and property at which the declarations themselves differ. */
export interface Origin {
  one: Style;
  other: Style;
  property: string;
  /** How many elements further up. */
  levels: number;
  /** Whether it came down by inheritance, rather than by a unit, a variable or the text colour. */
  isInherited: boolean;
}

interface StyleDifference {
  property: string;
  one: string;
  other: string;
  origin: Origin;
}

const PSEUDO_ELEMENTS = ['before', 'after'];
const IN_COLOUR_OF_TEXT = [...SEEN].flatMap(([property, { initial }]) => (initial === 'currentcolor' ? [property] : []));
const PICTURES: ReadonlySet<string> = new Set(['img', 'video', 'iframe', 'svg', 'canvas', 'object', 'embed']);

/** Compares content in two settings, element by element: what a reader could see. */
export class Comparer {
  private readonly known = new Map<Style, Map<Style, readonly StyleDifference[]>>();

  constructor(
    readonly one: Scene,
    readonly other: Scene,
  ) {}

  /** @param html the content; it must be clean, so that both settings parse it to the same elements */
  place(html: string): [Placed, Placed] {
    return [this.one.place(html), this.other.place(html)];
  }

  /** Every difference of placed content, in document order; none of them is kept here. */
  *differences([{ elements: ones }, { elements: others }]: readonly [Placed, Placed]): Iterable<Difference> {
    for (let index = 0; index < Math.min(ones.length, others.length); index++) {
      const element = ones[index]!;
      const styles: [Style, Style] = [this.one.styles.of(element), this.other.styles.of(others[index]!)];
      if (isHidden(styles[0]) && isHidden(styles[1])) continue;
      for (const difference of this.ofStyles(...styles))
        if (isSeen(element, difference.property, styles)) yield { index, pseudo: '', ...difference };
      for (const pseudo of PSEUDO_ELEMENTS) yield* this.ofPseudo(index, pseudo, element, others[index]!);
    }
  }

  private *ofPseudo(index: number, pseudo: string, one: ElementNode, other: ElementNode): Iterable<Difference> {
    const a = this.one.styles.ofPseudo(one, pseudo);
    const b = this.other.styles.ofPseudo(other, pseudo);
    if (a === null && b === null) return;
    const has = (style: Style | null): boolean => style !== null && !/^(normal|none|)$/.test(style.value('content'));
    if (!has(a) && !has(b)) return;
    // Where one of them is not there at all, that is what is seen.
    const left = a ?? this.one.styles.of(one);
    const right = b ?? this.other.styles.of(other);
    const onlyContent = has(a) !== has(b);
    for (const difference of this.ofStyles(left, right))
      if (!onlyContent || difference.property === 'content') yield { index, pseudo, ...difference };
  }

  private ofStyles(one: Style, other: Style): readonly StyleDifference[] {
    let byOther = this.known.get(one);
    if (byOther === undefined) this.known.set(one, (byOther = new Map<Style, readonly StyleDifference[]>()));
    let list = byOther.get(other);
    if (list === undefined) byOther.set(other, (list = this.differing(one, other)));
    return list;
  }

  private differing(one: Style, other: Style): StyleDifference[] {
    const names = new Set<string>([...one.declared(), ...other.declared()]);
    if (one.parent !== null && other.parent !== null)
      for (const { property } of this.ofStyles(one.parent, other.parent)) if (isInherited(property)) names.add(property);
    // What takes the colour of the text changes with it, though nothing declares it.
    if (one.value('color') !== other.value('color')) for (const property of IN_COLOUR_OF_TEXT) names.add(property);
    const list: StyleDifference[] = [];
    for (const property of names) {
      if (!SEEN.has(property) || (/-color$/.test(property) && isWithoutLine(property, one, other))) continue;
      const values = [one.value(property), other.value(property)] as const;
      if (values[0] !== values[1]) list.push({ property, one: values[0], other: values[1], origin: originOf(one, other, property) });
    }
    return list;
  }
}

/** The colour of a line that is nowhere to be seen. */
function isWithoutLine(property: string, one: Style, other: Style): boolean {
  const prefix = /^(border-(?:top|right|bottom|left)|outline|column-rule)-color$/.exec(property)?.[1];
  if (prefix !== undefined) return one.value(`${prefix}-width`) === '0' || other.value(`${prefix}-width`) === '0';
  if (property === 'text-decoration-color')
    return one.value('text-decoration-line') === 'none' || other.value('text-decoration-line') === 'none';
  return false;
}

const hidden = new WeakMap<Style, boolean>();

/** Whether an element or one around it is not shown. Styles are asked from the outside in, so each looks one step up. */
function isHidden(style: Style): boolean {
  let answer = hidden.get(style);
  if (answer === undefined) {
    answer = style.value('display') === 'none' || (style.parent !== null && isHidden(style.parent));
    hidden.set(style, answer);
  }
  return answer;
}

/** Whether a reader could see a property on an element at all. */
function isSeen(element: ElementNode, property: string, styles: readonly [Style, Style]): boolean {
  if (property === 'display') return true;
  const { on } = SEEN.get(property) as PropertyFacts;
  const displays = styles.map((style) => style.value('display'));
  switch (on) {
    case 'text':
      // White space, underlines and the like are seen where there are words, and on what stands for words.
      return hasWords(element) || (property === 'color' && element.name === 'hr') || element.name === 'br';
    case 'item':
      return displays.includes('list-item');
    case 'table':
      return displays.some((display) => /table$/.test(display));
    case 'cell':
      return displays.includes('table-cell');
    case 'caption':
      return displays.includes('table-caption');
    case 'picture':
      return PICTURES.has(element.name);
    case 'block':
      if (/^text-(align|indent)/.test(property)) return displays.some((display) => display !== 'inline') && holdsWords(element);
      return PICTURES.has(element.name) || displays.some((display) => display !== 'inline');
    default:
      return element.name !== 'br';
  }
}

/** Whether text or pictures stand in lines of the element itself. */
const holdsWords = (element: ElementNode): boolean =>
  hasWords(element) || element.children.some((child) => child.type === 'element' && (PICTURES.has(child.name) || hasWords(child)));

/** Follows a difference to where the declarations differ: up the tree, through variables, units and the text colour. */
function originOf(one: Style, other: Style, property: string): Origin {
  let at: Origin = { one, other, property, levels: 0, isInherited: false };
  const seen = new Set<string>();
  for (;;) {
    const step = `${at.levels} ${at.property}`;
    if (seen.has(step)) return at;
    seen.add(step);
    const next = nextOf(at);
    if (next === null) return at;
    at = next;
  }
}

function nextOf({ one, other, property, levels, isInherited: cameDown }: Origin): Origin | null {
  const stay = (name: string): Origin => ({ one, other, property: name, levels, isInherited: cameDown });
  const up = (name: string, down: boolean): Origin | null =>
    one.parent === null || other.parent === null
      ? null
      : { one: one.parent, other: other.parent, property: name, levels: levels + 1, isInherited: cameDown || down };
  const a = one.source(property).contender;
  const b = other.source(property).contender;
  const border = /^(border-(?:top|right|bottom|left)|outline|column-rule)-width$/.exec(property);
  if (border !== null && one.value(`${border[1]}-style`) !== other.value(`${border[1]}-style`)) {
    const gone = [one, other].some((style) => style.value(`${border[1]}-style`) === 'none');
    if (gone && sameText(a?.value, b?.value)) return stay(`${border[1]}-style`);
  }
  if (a === null && b === null)
    return isInherited(property)
      ? up(property, !property.startsWith('--'))
      : SEEN.get(property)?.initial === 'currentcolor'
        ? stay('color')
        : null;
  if (a === null || b === null || !sameText(a.value, b.value) || (a.property !== b.property && /\bvar\(/i.test(a.value))) return null;
  const value = a.value.trim().toLowerCase();
  for (const [, name = ''] of a.value.matchAll(/\bvar\(\s*(--[^\s,)]+)/gi))
    if (one.variable(name) !== other.variable(name)) return stay(name);
  if (value === 'inherit' || (value === 'unset' && isInherited(property)) || /^(-webkit-)?match-parent$/.test(value))
    return up(property, true);
  if (value === 'currentcolor') return property === 'color' ? up(property, true) : stay('color');
  if (property === 'font-size' && /^(smaller|larger|[\d.]+(%|em|ex|ch))$/.test(value)) return up('font-size', true);
  if (property === 'font-weight' && /^(bolder|lighter)$/.test(value)) return up('font-weight', true);
  if (/\d(em|ex|ch|lh)\b/.test(value) || (property === 'line-height' && value.includes('%'))) return stay('font-size');
  if (/\drem\b/.test(value)) {
    let [left, right, steps] = [one, other, levels];
    for (; left.parent !== null && right.parent !== null; steps++) [left, right] = [left.parent, right.parent];
    return { one: left, other: right, property: 'font-size', levels: steps, isInherited: cameDown };
  }
  return null;
}

export const sameText = (one: string | undefined, other: string | undefined): boolean =>
  one?.replace(/\s+/g, ' ').trim().toLowerCase() === other?.replace(/\s+/g, ' ').trim().toLowerCase();
