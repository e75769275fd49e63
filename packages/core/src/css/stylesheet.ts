import { generate, type Atrule, type Block, type CssNode, type Rule } from 'css-tree';
import { parseCss, piecesOf, withoutDepths } from './parse';
import { isProperty, isValueOf } from './grammar';
import { mediaHolds, type MediaContext } from './media';
import { aroundOf, compileList, compileSelectors, type Around, type CompiledSelector } from './selector';

/** A CSS file of the site. */
export interface Sheet {
  /** What it is called, such as the name of its file; `@import` finds it by this. */
  name: string;
  css: string;
  /** The media query with which it is linked; empty or absent for always. */
  media?: string;
}

export interface SheetDeclaration {
  property: string;
  value: string;
  important: boolean;
  /** One-based, in its sheet. */
  line: number;
}

/** A rule that holds under the given circumstances; a nested one's selectors know those around it. */
export interface StyleRule {
  sheet: string;
  /** As it stands in the sheet. */
  selectorText: string;
  selectors: readonly CompiledSelector[];
  declarations: readonly SheetDeclaration[];
  line: number;
  /** The cascade layer's full name; empty for none. */
  layer: string;
  /** Order of appearance over all sheets. */
  order: number;
  /** The condition that does not hold, such as `@media (width < 600px)`; empty where all hold. */
  off: string;
  /** The conditions on containers around it, such as `(min-width: 400px)`, with the container's name in front where it has one. */
  containers: readonly string[];
}

/** A rule that does not count, and why. */
export interface LeftOut {
  sheet: string;
  line: number;
  text: string;
  reason: 'selector' | 'too-many' | 'media' | 'supports' | 'container' | 'scope' | 'import' | 'not-known';
}

export interface ReadSheets {
  rules: StyleRule[];
  /** Rules under a condition that does not hold. */
  dormant: StyleRule[];
  /** Layers from the weakest to the strongest for what is not important. */
  layers: readonly string[];
  leftOut: LeftOut[];
}

interface Position {
  sheet: string;
  layer: string;
  /** The selectors around a nested rule; null at the top. */
  parent: Around | null;
  /** The condition around it that does not hold; empty for none. */
  off: string;
  containers: readonly string[];
}

/**
 * Reads stylesheets in their order (CSS Cascading and Inheritance Level 5; CSS Nesting Level 1): layers, conditions, imports.
 *
 * @param sheets in the order in which the page loads them
 * @param media the circumstances that `@media` asks about
 */
export function readSheets(sheets: readonly Sheet[], media: MediaContext): ReadSheets {
  const reader = new SheetReader(sheets, media);
  for (const sheet of sheets) {
    const query = sheet.media?.trim() ?? '';
    reader.read(sheet, { layer: '', off: mediaHolds(query, media) ? '' : `@media ${query}` }, 0);
  }
  return { rules: reader.rules, dormant: reader.dormant, layers: reader.layerOrder(), leftOut: reader.leftOut };
}

/** A selector as it stands in a stylesheet, on one line, without comments. */
export const selectorText = (text: string): string =>
  withoutComments(text)
    .replace(/\s+/g, ' ')
    .replace(/\s*,\s*/g, ', ')
    .trim();

/** A text with a space for each comment; one that never closes stays. */
function withoutComments(text: string): string {
  let out = '';
  let at = 0;
  for (;;) {
    const start = text.indexOf('/*', at);
    const end = start === -1 ? -1 : text.indexOf('*/', start + 2);
    if (end === -1) return out + text.slice(at);
    out += `${text.slice(at, start)} `;
    at = end + 2;
  }
}

/** So many selectors of all sheets of a page are read; what comes after them is left out. */
export const MOST_SELECTORS = 40_000;
/** Imports deeper than this are a circle or might as well be. */
const DEEPEST_IMPORT = 12;
/** A page that imports more than this imports itself. */
const MOST_IMPORTS = 100;

class SheetReader {
  readonly rules: StyleRule[] = [];
  readonly dormant: StyleRule[] = [];
  readonly leftOut: LeftOut[] = [];
  /** Layers by their full names, in the order in which they were first named, each with those directly in it. */
  private readonly layers = new Map<string, string[]>([['', []]]);
  private anonymous = 0;
  private imports = 0;
  /** How many selectors were read. */
  private selectors = 0;
  private isFull = false;
  /** The text of the sheet that is being read; every place counts from its begin. */
  private css = '';

  constructor(
    private readonly sheets: readonly Sheet[],
    private readonly media: MediaContext,
  ) {}

  read({ name, css }: Sheet, around: Pick<Position, 'layer' | 'off'>, depth: number): void {
    const outer = this.css;
    // Every slice of it is read once more, so what is nested too deep must be out of it.
    this.css = withoutDepths(css).css;
    // Values are looked at once a rule matches something, which most rules of a large stylesheet never do.
    const root = parseCss(this.css, { positions: true, parseValue: false, parseCustomProperty: false });
    if (root.type === 'StyleSheet')
      for (const node of root.children.toArray()) this.node(node, { ...around, sheet: name, parent: null, containers: [] }, depth);
    this.css = outer;
  }

  /** What stands at a node, as it is written but for comments. */
  private text(node: CssNode): string {
    const { loc } = node;
    return loc == null ? generate(node) : withoutComments(this.css.slice(loc.start.offset, loc.end.offset));
  }

  /** Layers from the weakest on: those within a layer come before what stands in it directly (CSS Cascading Level 5, section 6.4.3). */
  layerOrder(): string[] {
    const ordered: string[] = [];
    const stack = [{ name: '', isReady: false }];
    for (let top = stack.pop(); top !== undefined; top = stack.pop()) {
      if (top.isReady) ordered.push(top.name);
      else {
        if (top.name !== '') stack.push({ name: top.name, isReady: true });
        for (const name of [...this.layers.get(top.name)!].reverse()) stack.push({ name, isReady: false });
      }
    }
    return ordered;
  }

  private node(node: CssNode, at: Position, depth: number): void {
    if (node.type === 'Rule') this.rule(node, at, depth);
    else if (node.type === 'Atrule') this.atrule(node, at, depth);
  }

  private rule(rule: Rule, at: Position, depth: number): void {
    const written = selectorText(this.text(rule.prelude));
    const line = rule.loc?.start.line ?? 0;
    let selectors: CompiledSelector[];
    try {
      selectors = compileList(rule.prelude, at.parent);
    } catch {
      this.leftOut.push({ sheet: at.sheet, line, text: written, reason: 'selector' });
      return;
    }
    this.selectors += selectors.length;
    if (this.selectors > MOST_SELECTORS) {
      if (!this.isFull) this.leftOut.push({ sheet: at.sheet, line, text: written, reason: 'too-many' });
      this.isFull = true;
      return;
    }
    this.block(this.contentsOf(rule.block, true), { ...at, parent: aroundOf(selectors) }, written, selectors, line, depth);
  }

  /** Declarations count where they stand: those behind a nested rule come after it (CSS Nesting Level 1, section 3.4). */
  private block(
    nodes: readonly CssNode[],
    at: Position,
    written: string,
    selectors: readonly CompiledSelector[],
    line: number,
    depth: number,
  ): void {
    let declarations: SheetDeclaration[] = [];
    const flush = (): void => {
      if (declarations.length > 0)
        (at.off === '' ? this.rules : this.dormant).push({
          sheet: at.sheet,
          selectorText: written,
          selectors,
          declarations,
          line,
          layer: at.layer,
          order: this.rules.length,
          off: at.off,
          containers: at.containers,
        });
      declarations = [];
    };
    for (const node of nodes) {
      if (node.type === 'Declaration') {
        const value = this.text(node.value).trim();
        declarations.push({
          property: node.property,
          value: /\s\s|[\n\t]/.test(value) ? value.replace(/\s+/g, ' ') : value,
          important: node.important !== false,
          line: node.loc?.start.line ?? line,
        });
      } else if (node.type === 'Rule') {
        flush();
        this.rule(node, at, depth);
      } else if (node.type === 'Atrule') {
        flush();
        this.conditional(node, at, depth, (_children, inside) =>
          this.block(this.contentsOf(node.block, false), inside, written, selectors, line, depth),
        );
      }
    }
    flush();
  }

  /** What stands in a block, with nested rules: the parser takes many of them for declarations, or hands them over as text. */
  private contentsOf(block: Block | null, isOfRule: boolean): readonly CssNode[] {
    if (block === null) return [];
    if (block.loc == null) return block.children.toArray();
    const { start, end } = block.loc;
    const text = this.css.slice(start.offset + 1, end.offset - (this.css[end.offset - 1] === '}' ? 1 : 0)).trimEnd();
    return isOfRule && !text.includes('{') ? block.children.toArray() : readContents(text, start.offset + 1, start.line);
  }

  private atrule(node: Atrule, at: Position, depth: number): void {
    const name = node.name.toLowerCase();
    if (name === 'import') this.import(node, at, depth);
    else if (name === 'layer') this.layer(node, at, depth);
    else this.conditional(node, at, depth, (children, inside) => children.forEach((child) => this.node(child, inside, depth)));
  }

  private conditional(node: Atrule, at: Position, depth: number, enter: (children: readonly CssNode[], inside: Position) => void): void {
    const name = node.name.toLowerCase();
    const prelude = node.prelude === null ? '' : generate(node.prelude);
    const children = node.block?.children.toArray() ?? [];
    if (name === 'layer') this.layer(node, at, depth);
    else if (name === 'media' || name === 'supports' || name === 'container' || name === 'scope') {
      const text = `@${name} ${prelude}`;
      if (name === 'container' && isKnowable(prelude)) {
        enter(children, { ...at, containers: [...at.containers, prelude] });
        return;
      }
      const holds = name === 'media' ? mediaHolds(prelude, this.media) : name === 'supports' && supports(prelude);
      if (!holds) this.leftOut.push({ sheet: at.sheet, line: node.loc?.start.line ?? 0, text, reason: name });
      enter(children, holds || at.off !== '' ? at : { ...at, off: text });
    }
    // Others (font-face, keyframes, page, property, ...) style no element.
  }

  private layer(node: Atrule, at: Position, depth: number): void {
    const names =
      node.prelude === null
        ? []
        : generate(node.prelude)
            .split(',')
            .map((name) => name.trim());
    if (node.block === null) {
      if (at.off === '') for (const name of names) this.named(at.layer, name);
      return;
    }
    // A layer under a condition that does not hold is not named by it.
    const layer = at.off === '' ? this.named(at.layer, names[0] ?? `(${++this.anonymous})`) : at.layer;
    for (const child of node.block.children.toArray()) this.node(child, { ...at, layer }, depth);
  }

  /** The full name of a layer in another, which is noted in the order of first mention. */
  private named(outer: string, given: string): string {
    const full = outer === '' ? given : `${outer}.${given}`;
    const parts = full.split('.');
    let around = '';
    for (const part of parts) {
      const name = around === '' ? part : `${around}.${part}`;
      if (!this.layers.has(name)) {
        this.layers.set(name, []);
        this.layers.get(around)!.push(name);
      }
      around = name;
    }
    return full;
  }

  private import(node: Atrule, at: Position, depth: number): void {
    const nodes = node.prelude?.type === 'AtrulePrelude' ? node.prelude.children.toArray() : [];
    const [target, ...rest] = nodes;
    const address = target?.type === 'String' ? target.value : target?.type === 'Url' ? target.value : '';
    const leave = (reason: LeftOut['reason']): void =>
      void this.leftOut.push({ sheet: at.sheet, line: node.loc?.start.line ?? 0, text: `@import ${address}`, reason });
    const found = this.sheets.find(
      ({ name }) => name === address || name.endsWith(`/${address.replace(/^\.?\//, '')}`) || name === address.split('/').at(-1),
    );
    if (found === undefined || depth > DEEPEST_IMPORT || ++this.imports > MOST_IMPORTS) {
      leave('import');
      return;
    }
    let { layer } = at;
    const conditions: string[] = [];
    for (const part of rest) {
      if (part.type === 'Function' && part.name.toLowerCase() === 'layer')
        layer = this.named(
          at.layer,
          part.children
            .toArray()
            .map((child) => generate(child))
            .join('')
            .trim(),
        );
      else if (part.type === 'Identifier' && part.name.toLowerCase() === 'layer') layer = this.named(at.layer, `(${++this.anonymous})`);
      else if (part.type === 'Function' && part.name.toLowerCase() === 'supports') {
        if (
          !supports(
            `(${part.children
              .toArray()
              .map((child) => generate(child))
              .join('')})`,
          )
        ) {
          leave('supports');
          return;
        }
      } else conditions.push(generate(part));
    }
    const condition = conditions.join(' ').trim();
    const holds = condition === '' || mediaHolds(condition, this.media);
    if (!holds) leave('media');
    this.read(found, { layer, off: holds || at.off !== '' ? at.off : `@import ${condition}` }, depth + 1);
  }
}

/** Whether a container query asks only for the width, which follows from stylesheets where containers have one of their own. */
const isKnowable = (prelude: string): boolean =>
  /\(/.test(prelude) && !/height|block-size|aspect-ratio|orientation|\b(style|scroll-state)\(/i.test(prelude);

/**
 * Reads rules and declarations one after another (CSS Syntax Level 3, section 5.5.4, contents of a block): all rules at once
 * and all declarations at once, with white space where the others stand, so that every place counts in the sheet.
 */
function readContents(text: string, offset: number, line: number): CssNode[] {
  let [rules, declarations] = ['', ''];
  const blank = (part: string): string => part.replace(/[^\n\r\f]/g, ' ');
  for (const { start, end, block } of piecesOf(text)) {
    if (block === -1) {
      rules += blank(text.slice(start, end));
      declarations += text.slice(start, end);
    } else {
      // What nested rules hold of others is read when their turn comes, so that each level of a text is read once.
      const inner = text.slice(block + 1, end - 1);
      rules += inner.includes('{') ? `${text.slice(start, block + 1)}${blank(inner)}}` : text.slice(start, end);
      declarations += blank(text.slice(start, end));
    }
  }
  const sheet = parseCss(rules, { positions: true, parseValue: false, parseCustomProperty: false, line, offset });
  const list = parseCss(`{${declarations}}`, {
    context: 'block',
    positions: true,
    parseValue: false,
    parseCustomProperty: false,
    line,
    offset: offset - 1,
  });
  return [
    ...(sheet.type === 'StyleSheet' ? sheet.children.toArray() : []),
    ...(list.type === 'Block' ? list.children.toArray().filter(({ type }) => type === 'Declaration') : []),
  ].sort((a, b) => (a.loc?.start.offset ?? 0) - (b.loc?.start.offset ?? 0));
}

/** What was found of declarations; stylesheets say the same again and again. */
const known = new Map<string, boolean>();
const MOST_KNOWN = 20_000;

/** Whether a browser would know a declaration; of one that it does not know it takes no notice. */
export function isKnownDeclaration({ property, value }: Pick<SheetDeclaration, 'property' | 'value'>): boolean {
  if (property.startsWith('--') || /\b(var|env)\(/i.test(value)) return true;
  const key = `${property}:${value}`;
  let answer = known.get(key);
  if (answer === undefined) {
    // What has a prefix is known to the browser whose prefix it is; functions may be newer than the lexer.
    answer =
      isValueOf(property, value) ||
      (!isProperty(property) ? property.startsWith('-webkit-') : value.includes('(') || value.includes('-webkit-'));
    if (known.size >= MOST_KNOWN) known.clear();
    known.set(key, answer);
  }
  return answer;
}

/** `@supports` (CSS Conditional Rules Level 4), as far as the properties and values that are known here tell. */
function supports(condition: string): boolean {
  const text = condition.trim();
  const parts = topLevel(text, ' or ');
  if (parts.length > 1) return parts.some(supports);
  const all = topLevel(text, ' and ');
  if (all.length > 1) return all.every(supports);
  if (/^not\b/i.test(text)) return !supports(text.slice(3));
  const selector = /^selector\((.*)\)$/is.exec(text);
  if (selector !== null) {
    try {
      return compileSelectors(selector[1]!).length > 0;
    } catch {
      return false;
    }
  }
  const inside = /^\((.*)\)$/s.exec(text)?.[1];
  if (inside === undefined) return false;
  const declaration = /^\s*([a-z-]+)\s*:\s*(.+)$/is.exec(inside);
  if (declaration === null) return supports(inside);
  return declaration[1]!.startsWith('--') || isValueOf(declaration[1]!, declaration[2]!.trim());
}

/** The parts of a text between a word that stands outside all brackets. */
function topLevel(text: string, word: string): string[] {
  const parts: string[] = [];
  let depth = 0;
  let start = 0;
  for (let at = 0; at < text.length; at++) {
    if (text[at] === '(') depth++;
    else if (text[at] === ')') depth--;
    else if (depth === 0 && text.slice(at, at + word.length).toLowerCase() === word) {
      parts.push(text.slice(start, at));
      start = at + word.length;
      at = start - 1;
    }
  }
  return [...parts, text.slice(start)];
}
