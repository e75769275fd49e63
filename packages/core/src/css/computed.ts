import type { ElementNode } from '../html/node';
import { Cascade, type Contender, type Contest } from './cascade';
import { colourKey } from './colour';
import { DESK, type MediaContext } from './media';
import { isInherited, SEEN } from './properties';
import { Rooms } from './room';
import { parentOf } from './relations';
import { expand } from './shorthands';
import { USER_AGENT_CSS } from './user-agent';

/** What decides a property of an element: a declaration, or nothing at all. */
export interface Source {
  contender: Contender | null;
  /** Where the declaration is the browser's own. */
  isBrowser: boolean;
}

const NOTHING: Source = { contender: null, isBrowser: false };
const FONT_SIZES: Readonly<Record<string, number>> = {
  'xx-small': 9,
  'x-small': 10,
  small: 13,
  medium: 16,
  large: 18,
  'x-large': 24,
  'xx-large': 32,
  'xxx-large': 48,
};
const PX_PER_UNIT: Readonly<Record<string, number>> = {
  px: 1,
  in: 96,
  cm: 96 / 2.54,
  mm: 9.6 / 2.54,
  q: 2.4 / 2.54,
  pt: 4 / 3,
  pc: 16,
};
/** Deeper references of variables than this are a circle. */
const DEEPEST_VARIABLE = 30;
const LENGTH = /(?<![\w#.-])([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)(px|in|cm|mm|q|pt|pc|em|rem|ex|ch|vw|vh|vmin|vmax|lh|rlh)\b/gi;

/** Stylesheets, with what elements look like by them: values by CSS Cascading Level 5, section 4, short of layout. */
export class Styles {
  readonly cascade: Cascade;
  private readonly browser: Cascade;
  private readonly known = new WeakMap<ElementNode, Style>();
  private readonly children = new Map<Style | null, Map<readonly Contest[], Map<readonly Contest[], Style>>>();

  /** @param cascade the page's stylesheets */
  constructor(
    cascade: Cascade,
    readonly media: MediaContext = DESK,
  ) {
    this.cascade = cascade;
    this.browser = new Cascade([{ name: 'browser', css: USER_AGENT_CSS }], media);
    const rooms = new Rooms(this);
    cascade.askForContainers((element, name) => {
      for (let at = parentOf(element); at !== null; at = parentOf(at)) {
        const style = this.of(at);
        // The shorthand is `name / type`.
        const [names = '', type = ''] = style.value('container').split('/');
        const isContainer = /^(inline-size|size)$/.test(type.trim() || style.value('container-type'));
        if (isContainer && (name === '' || `${names} ${style.value('container-name')}`.split(/\s+/).includes(name)))
          return rooms.within(at);
      }
      return null;
    });
  }

  /** What an element looks like. Elements that are styled alike share one. */
  of(element: ElementNode): Style {
    let style = this.known.get(element);
    if (style === undefined) {
      const parent = parentOf(element);
      style = this.styleOf(parent === null ? null : this.of(parent), this.cascade.contests(element), this.browser.contests(element));
      this.known.set(element, style);
    }
    return style;
  }

  /** What an element's `::before` or `::after` looks like; null where nothing styles it. */
  ofPseudo(element: ElementNode, name: string): Style | null {
    if (!this.cascade.styles(name)) return null;
    const contests = this.cascade.contests(element, name);
    return contests.length === 0 ? null : this.styleOf(this.of(element), contests, this.browser.contests(element, name));
  }

  private styleOf(parent: Style | null, contests: readonly Contest[], browser: readonly Contest[]): Style {
    let byOwn = this.children.get(parent);
    if (byOwn === undefined) this.children.set(parent, (byOwn = new Map<readonly Contest[], Map<readonly Contest[], Style>>()));
    let byBrowser = byOwn.get(contests);
    if (byBrowser === undefined) byOwn.set(contests, (byBrowser = new Map<readonly Contest[], Style>()));
    let style = byBrowser.get(browser);
    if (style === undefined) byBrowser.set(browser, (style = new Style(parent, contests, browser, this.media)));
    return style;
  }
}

/** What one element looks like. */
export class Style {
  readonly contests: ReadonlyMap<string, Contest>;
  private readonly browser: ReadonlyMap<string, Contest>;
  private readonly values = new Map<string, string>();
  private readonly custom = new Map<string, string | null>();

  constructor(
    readonly parent: Style | null,
    contests: readonly Contest[],
    browser: readonly Contest[],
    private readonly media: MediaContext,
  ) {
    this.contests = new Map(contests.map((contest) => [contest.property, contest]));
    this.browser = new Map(browser.map((contest) => [contest.property, contest]));
  }

  /** Every property that something declares here. */
  *declared(): Iterable<string> {
    yield* this.contests.keys();
    for (const name of this.browser.keys()) if (!this.contests.has(name)) yield name;
  }

  /** What decides a property, with `revert` and `revert-layer` followed to what they lead to. */
  source(property: string): Source {
    const contest = this.contests.get(property);
    const browser = (): Source => {
      const own = this.browser.get(property);
      return own === undefined ? NOTHING : { contender: own.winner, isBrowser: true };
    };
    if (contest === undefined) return browser();
    const all = [contest.winner, ...contest.losers];
    let at = 0;
    for (; at < all.length; at++) {
      const word = all[at]!.value.trim().toLowerCase();
      if (word === 'revert') return browser();
      if (word !== 'revert-layer') return { contender: all[at]!, isBrowser: false };
      const { layer } = all[at]!;
      while (at + 1 < all.length && all[at + 1]!.layer === layer) at++;
    }
    return browser();
  }

  /** The value of a custom property, or null where there is none. */
  variable(name: string, depth = 0): string | null {
    let value = this.custom.get(name);
    if (value === undefined) {
      const { contender } = this.source(name);
      const word = contender?.value.trim().toLowerCase();
      if (contender === null || word === 'inherit' || word === 'unset') value = this.parent?.variable(name, depth + 1) ?? null;
      else value = word === 'initial' ? null : this.substituted(contender.value, depth + 1);
      this.custom.set(name, value);
    }
    return value;
  }

  /** A value with its variables put in; null where one of them has no value (CSS Custom Properties Level 1, section 3). */
  private substituted(value: string, depth = 0): string | null {
    if (!/\bvar\(/i.test(value)) return value;
    if (depth > DEEPEST_VARIABLE) return null;
    let result = '';
    let rest = value;
    for (;;) {
      const start = rest.search(/\bvar\(/i);
      if (start === -1) return result + rest;
      let level = 0;
      let end = start + 3;
      for (; end < rest.length; end++) {
        if (rest[end] === '(') level++;
        else if (rest[end] === ')' && --level === 0) break;
      }
      const inside = rest.slice(start + 4, end);
      const comma = inside.indexOf(',');
      const name = (comma === -1 ? inside : inside.slice(0, comma)).trim();
      const found = this.variable(name, depth + 1) ?? (comma === -1 ? null : this.substituted(inside.slice(comma + 1).trim(), depth + 1));
      if (found === null) return null;
      result += rest.slice(0, start) + found;
      rest = rest.slice(end + 1);
    }
  }

  /** The value as far as it is known without layout, written one way: lengths in pixels, colours by their channels. */
  value(property: string): string {
    let value = this.values.get(property);
    if (value === undefined) {
      // A value that leads to itself has none.
      this.values.set(property, SEEN.get(property)?.initial ?? '');
      value = property.startsWith('--') ? (this.variable(property) ?? '') : this.compute(property);
      this.values.set(property, value);
    }
    return value;
  }

  /** A length in pixels, or null for what is none. */
  px(property: string): number | null {
    const value = this.value(property);
    return value === '0' ? 0 : /^-?[\d.]+px$/.test(value) ? Number.parseFloat(value) : null;
  }

  private inherited(property: string): string {
    return this.parent === null ? this.first(property) : this.parent.value(property);
  }

  private first(property: string): string {
    const initial = SEEN.get(property)?.initial ?? '';
    return initial === 'currentcolor' ? this.value('color') : property === 'color' ? colourOf(initial) : initial;
  }

  private compute(property: string): string {
    const border = /^(border-(?:top|right|bottom|left)|outline|column-rule)-width$/.exec(property);
    // What has no line has no width of one (CSS Backgrounds Level 3, section 3.3).
    if (border !== null && /^(none|hidden)$/.test(this.value(`${border[1]}-style`))) return '0';
    const { contender } = this.source(property);
    const unset = (): string => (isInherited(property) ? this.inherited(property) : this.first(property));
    if (contender === null) return unset();
    let value: string | null = this.substituted(contender.value);
    if (value === null) return unset();
    if (value !== contender.value && contender.property !== property)
      value = expand(contender.property, value).find((longhand) => longhand.property === property)?.value ?? '';
    const word = value.trim().toLowerCase();
    if (word === 'inherit') return this.inherited(property);
    if (word === 'initial') return this.first(property);
    if (word === 'unset' || word === '') return unset();
    return this.written(property, value.trim());
  }

  private written(property: string, value: string): string {
    const word = value.toLowerCase();
    switch (property) {
      case 'font-size':
        return this.fontSize(word);
      case 'font-weight': {
        const outer = Number(this.inherited('font-weight'));
        if (word === 'bolder') return outer < 350 ? '400' : outer < 550 ? '700' : '900';
        if (word === 'lighter') return outer < 550 ? '100' : outer < 750 ? '400' : '700';
        return word === 'bold' ? '700' : word === 'normal' ? '400' : word;
      }
      case 'font-family':
        return familiesOf(value);
      case 'line-height': {
        const share = /^([\d.]+)%$/.exec(word);
        if (share !== null) return px((Number(share[1]) / 100) * this.fontSizePx());
        return /^[\d.]+$/.test(word) ? String(Number(word)) : this.lengths(property, word);
      }
      case 'text-align':
        if (/^(-webkit-)?match-parent$/.test(word)) return this.inherited(property);
        // Headers of a table stand in the middle where nothing around them says otherwise.
        if (word === '-internal-center()') return this.parent?.isSet('text-align') === true ? this.inherited(property) : 'center';
        return word === 'start' ? 'left' : word === 'end' ? 'right' : word;
      case 'letter-spacing':
      case 'word-spacing':
        return word === 'normal' ? '0' : this.lengths(property, word);
      case 'color':
        return word === 'currentcolor' ? this.inherited('color') : colourOf(value);
      case 'font-stretch':
        return word === 'normal' ? '100%' : word;
      case 'text-decoration':
        return word;
      default:
    }
    if (/color$/.test(property)) return word === 'currentcolor' ? this.value('color') : colourOf(value);
    const border = /^(border-(?:top|right|bottom|left)|outline|column-rule)-width$/.exec(property);
    if (border !== null && (word === 'thin' || word === 'medium' || word === 'thick'))
      return { thin: '1px', medium: '3px', thick: '5px' }[word];
    const written = this.lengths(property, value);
    // Lines are as wide as whole pixels, and never vanish by that (CSS Values Level 4, "snap as a border width").
    return border !== null && /^[\d.]+px$/.test(written) ? px(Math.max(1, Math.floor(Number.parseFloat(written)))) : written;
  }

  /** Whether an author's rule gives a property here or further up. */
  private isSet(property: string): boolean {
    return this.contests.has(property) || this.parent?.isSet(property) === true;
  }

  private fontSizePx(): number {
    return Number.parseFloat(this.value('font-size'));
  }

  private rootPx(): number {
    return this.parent === null ? this.fontSizePx() : this.parent.rootPx();
  }

  private fontSize(word: string): string {
    const outer = this.parent === null ? FONT_SIZES['medium']! : this.parent.fontSizePx();
    const fixed = FONT_SIZES[word];
    if (fixed !== undefined) return px(fixed);
    if (word === 'smaller') return px(outer / 1.2);
    if (word === 'larger') return px(outer * 1.2);
    const match = /^([\d.]+)(%|[a-z]+)$/.exec(word);
    if (match === null) return this.lengths('font-size', word, outer);
    const amount = Number(match[1]);
    return match[2] === '%' ? px((amount / 100) * outer) : this.lengths('font-size', word, outer);
  }

  /** A value in which every length that is known is in pixels. */
  private lengths(property: string, value: string, em = property === 'font-size' ? Number.NaN : this.fontSizePx()): string {
    const { widthPx, heightPx } = this.media;
    const parts = value.split(/("[^"]*"|'[^']*'|url\([^)]*\))/i);
    return parts
      .map((part, at) => {
        if (at % 2 === 1)
          return part
            .replace(/^url\(\s*["']?(.*?)["']?\s*\)$/i, (_all, address: string) => `url(${address.replace(/\\(.)/g, '$1')})`)
            .replace(/^'(.*)'$/, '"$1"');
        const lower = /^(content|grid-template-areas|quotes|counter-|animation-name)/.test(property) ? part : part.toLowerCase();
        return lower
          .replace(LENGTH, (_all, amount: string, unit: string) => {
            const one =
              PX_PER_UNIT[unit] ??
              {
                em,
                rem: this.parent === null && property === 'font-size' ? 16 : this.rootPx(),
                ex: em / 2,
                ch: em / 2,
                vw: widthPx / 100,
                vh: heightPx / 100,
                vmin: Math.min(widthPx, heightPx) / 100,
                vmax: Math.max(widthPx, heightPx) / 100,
                lh: em * 1.2,
                rlh: 16 * 1.2,
              }[unit]!;
            return px(Number(amount) * one);
          })
          .replace(/(?<![\w.#-])(?:\d*\.\d+)(?![\w.])/g, (all) => String(Number(all)))
          .replace(/\s*,\s*/g, ', ')
          .replace(/(?<![\w.#-])[+-]?0(\.0+)?(px|%)?(?![\w.%])/g, (all) => (all.endsWith('%') ? '0%' : '0'))
          .replace(/#[\da-f]{3,8}\b|\b(?:rgb|hsl)a?\([^()]*\)/g, colourOf);
      })
      .join('')
      .replace(/\s+/g, ' ')
      .trim();
  }
}

function px(amount: number): string {
  const rounded = Math.round(amount * 100) / 100;
  return rounded === 0 ? '0' : `${rounded}px`;
}

/** One way of writing for every way of writing a colour. */
function colourOf(value: string): string {
  if (value.trim().toLowerCase() === 'transparent') return 'transparent';
  const key = colourKey(value);
  if (key === null) return value.trim().toLowerCase();
  const [red, green, blue, opacity] = key.split(' ').map(Number) as [number, number, number, number];
  if (opacity === 0) return 'transparent';
  const hex = `#${[red, green, blue].map((channel) => channel.toString(16).padStart(2, '0')).join('')}`;
  return opacity === 100 ? hex : `rgb(${red} ${green} ${blue} / ${opacity}%)`;
}

function familiesOf(value: string): string {
  return value
    .split(',')
    .map((name) =>
      name
        .trim()
        .replace(/^["']|["']$/g, '')
        .toLowerCase(),
    )
    .join(', ');
}

/**
 * A value as browsers write it (CSSOM, section 6.7.2): colours as `rgb()`, lengths with their unit.
 *
 * @param value as `Style.value` writes it
 */
export function asBrowsersWrite(property: string, value: string): string {
  const coloured = value
    .replace(
      /#([\da-f]{2})([\da-f]{2})([\da-f]{2})\b/g,
      (_all, ...channels: string[]) =>
        `rgb(${channels
          .slice(0, 3)
          .map((channel) => Number.parseInt(channel, 16))
          .join(', ')})`,
    )
    .replace(
      /rgb\((\d+) (\d+) (\d+) \/ (\d+)%\)/g,
      (_all, r: string, g: string, b: string, a: string) => `rgba(${r}, ${g}, ${b}, ${Number(a) / 100})`,
    );
  if (value === 'transparent') return 'rgba(0, 0, 0, 0)';
  const isLength =
    /^(margin|padding|border-.*-(width|radius)|text-indent|(letter|word)-spacing|(min-|max-)?(width|height)|top|right|bottom|left|outline-(width|offset)|.*-gap|border-spacing|text-underline-offset)/.test(
      property,
    );
  return isLength && coloured === '0' ? (/^(letter)-spacing/.test(property) ? 'normal' : '0px') : coloured;
}
