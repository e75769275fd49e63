import { generate, type CssNode } from 'css-tree';
import { parseCss } from './parse';
import type { ElementNode, ParentNode } from '../html/node';
import { presentationalHints } from './hints';
import { DESK, mediaHolds, type MediaContext } from './media';
import { classesOf, mayBeAround, placeOf } from './relations';
import type { CompiledSelector } from './selector';
import { bySpecificity, type Specificity } from './specificity';
import { expand } from './shorthands';
import { spend } from './budget';
import { isKnownDeclaration, readSheets, type LeftOut, type Sheet, type StyleRule } from './stylesheet';

/** A declaration that competes for a property of an element. */
export interface Contender {
  /** The sheet's name; `style` for the element's own attribute, `attributes` for what attributes such as `align` mean. */
  sheet: string;
  selector: string;
  /** As it was declared, such as a shorthand. */
  property: string;
  /** What the longhand gets of it. */
  value: string;
  /** The whole value, as it was declared. */
  declared: string;
  important: boolean;
  line: number;
  layer: string;
  specificity: Specificity;
  /** Order of appearance; later is stronger. */
  order: number;
  /** The condition that does not hold, of a rule that would match otherwise; empty for one that counts. */
  off: string;
}

/** One property of one element: who won, and who lost, the nearest first. */
export interface Contest {
  property: string;
  winner: Contender;
  losers: Contender[];
}

/** By what one contender beats another (CSS Cascading and Inheritance Level 5, section 6.1). */
export type Reason = 'importance' | 'origin' | 'inline' | 'layer' | 'specificity' | 'order';

/** So many contenders are remembered, in contests of whatever kind. */
const MOST_KNOWN = 400_000;
/** What it costs to put a rule that matches in its place, and to weigh a contender, in steps of matching a selector. */
const STEPS_PER_MATCH = 10;
const STEPS_PER_CONTENDER = 25;
const INLINE = 'style';
const HINTS = 'attributes';

/** Stylesheets with their rules found by what the rightmost part of a selector asks for: made once for many documents. */
export class Cascade {
  readonly leftOut: readonly LeftOut[];
  /** The rules that count, by the pseudo-element that they style; empty for the element itself. */
  private readonly active = new Map<string, RuleIndex>();
  private readonly dormant = new RuleIndex();
  /** The sheet and selector of every rule, whether it counts or not. */
  private readonly written = new Set<string>();
  /** How wide the container of a name around an element is; null where there is none or nobody knows. */
  private widthAround: (element: ElementNode, name: string) => number | null = () => null;
  private known = new KnownContests();
  private readonly layerRank: ReadonlyMap<string, number>;

  /**
   * @param sheets in the order in which the page loads them
   * @param media the circumstances that `@media` asks about
   */
  constructor(sheets: readonly Sheet[], media: MediaContext = DESK) {
    const { rules, dormant, layers, leftOut } = readSheets(sheets, media);
    this.leftOut = leftOut;
    // What is in no layer is stronger than all layers.
    this.layerRank = new Map([...layers.map((name, rank): [string, number] => [name, rank]), ['', layers.length]]);
    for (const rule of [...rules, ...dormant]) {
      this.written.add(`${rule.sheet}\n${rule.selectorText}`);
      for (const selector of rule.selectors) {
        const indexed = { rule, selector };
        // What asks for a container's width holds here and not there.
        if ((rule.off !== '' || rule.containers.length > 0) && selector.pseudoElement === '') this.dormant.add(indexed);
        if (rule.off !== '') continue;
        let index = this.active.get(selector.pseudoElement);
        if (index === undefined) this.active.set(selector.pseudoElement, (index = new RuleIndex()));
        index.add(indexed);
      }
    }
  }

  /** Whether any sheet has a rule with this selector, be it that it matches nothing or does not count now. */
  has({ sheet, selector }: Pick<Contender, 'sheet' | 'selector'>): boolean {
    return this.written.has(`${sheet}\n${selector}`);
  }

  /** Whether any rule styles this pseudo-element, such as `before`. */
  styles(pseudoElement: string): boolean {
    return this.active.has(pseudoElement);
  }

  /** What rules under conditions that do not hold would declare for an element. */
  wouldDeclare(element: ElementNode): Contender[] {
    return this.dormant
      .matching(element)
      .filter(([{ rule }]) => rule.off !== '' || !this.fits(element, rule))
      .flatMap(([indexed, specificity]) =>
        contendersOf(indexed, specificity).map(([, one]) =>
          one.off === '' ? { ...one, off: `@container ${indexed.rule.containers.join(' and ')}` } : one,
        ),
      );
  }

  /** Lets rules within `@container` ask how wide containers are; without it none of them counts. */
  askForContainers(widthOf: (element: ElementNode, name: string) => number | null): void {
    this.widthAround = widthOf;
  }

  /** Whether the containers around an element are as a rule asks (CSS Conditional Rules Level 5, section 5, for widths). */
  private fits(element: ElementNode, { containers }: StyleRule): boolean {
    return containers.every((condition) => {
      const [, name = '', query = ''] = /^\s*([\w-]*)\s*(.*)$/s.exec(condition) ?? [];
      const isName = name !== '' && name.toLowerCase() !== 'not';
      const widthPx = this.widthAround(element, isName ? name : '');
      if (widthPx === null) return false;
      return mediaHolds((isName ? query : condition).replace(/\binline-size\b/gi, 'width'), { ...DESK, widthPx });
    });
  }

  /**
   * Every contest on an element: each property that anything declares for it.
   *
   * @param pseudoElement such as `before`, to ask for the element's pseudo-element instead
   */
  contests(element: ElementNode, pseudoElement = ''): readonly Contest[] {
    const hints = pseudoElement === '' ? presentationalHints(element) : [];
    const matching = (this.active.get(pseudoElement)?.matching(element) ?? []).filter(
      ([{ rule }]) => rule.containers.length === 0 || this.fits(element, rule),
    );
    const inline = pseudoElement === '' ? (element.attribute('style') ?? '') : '';
    spend(matching.length * STEPS_PER_MATCH);
    // Most elements of a page are styled as others are: what decides is the rules, not the place.
    const key = `${inline} ${hints.map(({ property, value }) => `${property}:${value}`).join(';')}`;
    if (this.known.contenders >= MOST_KNOWN) this.known = new KnownContests();
    return this.known.of(matching, key, () => this.decideAll(inline, hints, matching));
  }

  private decideAll(
    inline: string,
    hints: readonly { property: string; value: string }[],
    matching: readonly (readonly [IndexedRule, Specificity])[],
  ): Contest[] {
    spend(matching.length * STEPS_PER_CONTENDER);
    const all = new Map<string, Contender[]>();
    const enter = (property: string, contender: Contender): void => {
      const list = all.get(property);
      if (list === undefined) all.set(property, [contender]);
      else list.push(contender);
    };
    for (const { property, value } of hints)
      enter(property, {
        sheet: HINTS,
        selector: '',
        property,
        value,
        declared: value,
        important: false,
        line: 0,
        layer: '',
        specificity: [0, 0, 0],
        order: -1,
        off: '',
      });
    for (const [indexed, specificity] of matching)
      for (const [longhand, contender] of contendersOf(indexed, specificity)) enter(longhand, contender);
    for (const { property, value, written, declared, important } of inlineLonghands(inline))
      enter(property, {
        sheet: INLINE,
        selector: '',
        property: written,
        value,
        declared,
        important,
        line: 0,
        layer: '',
        specificity: [0, 0, 0],
        order: 0,
        off: '',
      });
    return [...all].map(([property, contenders]) => {
      // A later declaration of one rule is stronger, so the order in which they were entered decides among equals.
      const sorted = contenders
        .map((contender, at) => ({ contender, at }))
        .sort((a, b) => this.compare(b.contender, a.contender) || b.at - a.at);
      const [winner, ...losers] = sorted.map(({ contender }) => contender);
      return { property, winner: winner!, losers };
    });
  }

  /** Positive where one contender is stronger than another; 0 where only their place in one rule tells. */
  compare(one: Contender, other: Contender): number {
    return this.decide(one, other).by;
  }

  /** By what one contender beats another, or is beaten. */
  decide(one: Contender, other: Contender): { reason: Reason; by: number } {
    if (one.important !== other.important) return { reason: 'importance', by: one.important ? 1 : -1 };
    const hint = Number(other.sheet === HINTS) - Number(one.sheet === HINTS);
    if (hint !== 0) return { reason: 'origin', by: hint };
    const inline = Number(one.sheet === INLINE) - Number(other.sheet === INLINE);
    if (inline !== 0) return { reason: 'inline', by: inline };
    const layer = this.layerRank.get(one.layer)! - this.layerRank.get(other.layer)!;
    // Of what is important, the weaker layer wins.
    if (layer !== 0) return { reason: 'layer', by: one.important ? -layer : layer };
    const specificity = bySpecificity(one.specificity, other.specificity);
    if (specificity !== 0) return { reason: 'specificity', by: specificity };
    return { reason: 'order', by: one.order - other.order };
  }
}

/** Contests by the rules that match: a tree with a step for each rule, so that a long list of them is never written out. */
class KnownContests {
  /** How many contenders are held. */
  contenders = 0;
  private readonly next = new Map<IndexedRule, KnownContests>();
  private readonly here = new Map<string, readonly Contest[]>();

  /** What is known of the rules so far with one more. */
  private behind(rule: IndexedRule): KnownContests {
    let step = this.next.get(rule);
    if (step === undefined) this.next.set(rule, (step = new KnownContests()));
    return step;
  }

  of(matching: readonly (readonly [IndexedRule, Specificity])[], key: string, decide: () => readonly Contest[]): readonly Contest[] {
    const at = matching.reduce((from, [indexed]) => from.behind(indexed), this as KnownContests);
    let contests = at.here.get(key);
    if (contests === undefined) {
      at.here.set(key, (contests = decide()));
      this.contenders += 1 + matching.length;
    }
    return contests;
  }
}

/** What a rule declares for an element that it matches: the longhand, and the contender for it. */
function contendersOf({ rule }: IndexedRule, specificity: Specificity): [longhand: string, contender: Contender][] {
  return longhandsOf(rule).map(({ property, value, written, declared, important, line }) => [
    property,
    {
      sheet: rule.sheet,
      selector: rule.selectorText,
      property: written,
      value,
      declared,
      important,
      line,
      layer: rule.layer,
      specificity,
      order: rule.order,
      off: rule.off,
    },
  ]);
}

/** Rules, found by what the rightmost part of their selectors asks for. */
class RuleIndex {
  private readonly byId = new Map<string, IndexedRule[]>();
  private readonly byClass = new Map<string, IndexedRule[]>();
  private readonly byName = new Map<string, IndexedRule[]>();
  private readonly anywhere: IndexedRule[] = [];

  add(indexed: IndexedRule): void {
    const { key } = indexed.selector;
    const into = key === null ? null : key.kind === 'id' ? this.byId : key.kind === 'class' ? this.byClass : this.byName;
    if (into === null) this.anywhere.push(indexed);
    else {
      const list = into.get(key!.name);
      if (list === undefined) into.set(key!.name, [indexed]);
      else list.push(indexed);
    }
  }

  /** The rules that match an element, each with the greatest specificity of its selectors that do. */
  matching(element: ElementNode): (readonly [IndexedRule, Specificity])[] {
    const found = new Map<StyleRule, [IndexedRule, Specificity]>();
    const isAround = mayBeAround(element);
    const look = (list: readonly IndexedRule[] | undefined): void => {
      if (list === undefined) return;
      for (const indexed of list) {
        if (indexed.selector.above !== '' && !isAround(indexed.selector.above)) continue;
        const known = found.get(indexed.rule);
        if (known !== undefined && bySpecificity(known[1], indexed.selector.specificity) >= 0) continue;
        if (indexed.selector.matches(element)) found.set(indexed.rule, [indexed, indexed.selector.specificity]);
      }
    };
    const id = element.attribute('id');
    if (id !== undefined) look(this.byId.get(id));
    for (const name of new Set(classesOf(element))) look(this.byClass.get(name));
    look(this.byName.get(element.name.toLowerCase()));
    look(this.anywhere);
    return [...found.values()].sort((a, b) => a[0].rule.order - b[0].rule.order);
  }
}

interface DeclaredLonghand {
  property: string;
  value: string;
  /** The property as it was written, such as a shorthand. */
  written: string;
  declared: string;
  important: boolean;
  line: number;
}

interface IndexedRule {
  rule: StyleRule;
  selector: CompiledSelector;
}

const expanded = new WeakMap<StyleRule, readonly DeclaredLonghand[]>();

function longhandsOf(rule: StyleRule): readonly DeclaredLonghand[] {
  let longhands = expanded.get(rule);
  if (longhands === undefined) {
    longhands = rule.declarations
      .filter(isKnownDeclaration)
      .flatMap(({ property, value, important, line }) =>
        expand(property, value).map((longhand) => ({ ...longhand, written: property, declared: value, important, line })),
      );
    expanded.set(rule, longhands);
  }
  return longhands;
}

function inlineLonghands(style: string): DeclaredLonghand[] {
  if (style.trim() === '') return [];
  let list: CssNode;
  try {
    list = parseCss(style, { context: 'declarationList' });
  } catch {
    return [];
  }
  if (list.type !== 'DeclarationList') return [];
  return list.children.toArray().flatMap((node) => {
    if (node.type !== 'Declaration') return [];
    const declared = generate(node.value).trim();
    const important = node.important !== false;
    return expand(node.property, declared).map((longhand) => ({ ...longhand, written: node.property, declared, important, line: 0 }));
  });
}

/** Every element of a tree in document order. */
export function* elementsIn(root: ParentNode): Iterable<ElementNode> {
  const stack = [...root.children].reverse();
  for (let node = stack.pop(); node !== undefined; node = stack.pop()) {
    if (node.type !== 'element') continue;
    yield node;
    for (let at = node.children.length - 1; at >= 0; at--) stack.push(node.children[at]!);
  }
}

/** Where an element is: `html > body > p:nth-child(2)`, with a number only where its parent holds several elements. */
export function pathOf(element: ElementNode): string {
  const parts: string[] = [];
  for (let at: ElementNode | null = element; at !== null; at = at.parent?.type === 'element' ? at.parent : null) {
    const { place, count } = placeOf(at);
    parts.push(count > 1 ? `${at.name}:nth-child(${place})` : at.name);
  }
  return parts.reverse().join(' > ');
}
