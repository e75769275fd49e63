import { generate, type CssNode, type Rule } from 'css-tree';
import { parseCss } from '../css/parse';
import { selectorText } from '../css/stylesheet';
import type { Profile, StyleDefinition } from '../profile/schema';
import { readStyle, type StyleAct } from './act';
import { actSentence } from './words';

/** A style found in a stylesheet. */
export interface FoundStyle {
  id: string;
  style: StyleDefinition;
  act: StyleAct;
  /** Whether comments of the stylesheet name it as a style; others are guesses from class names. */
  isNamed: boolean;
  /** One-based. */
  line: number;
}

export type Styles = Profile['styles'];

const FIELDS = ['Style', 'Group', 'Description', 'Within'] as const;
type Fields = Partial<Record<(typeof FIELDS)[number], string>>;

/**
 * Finds the styles of a stylesheet: those that comments name (`Style: Note` before a rule), and rules whose class makes
 * sense on an element of the content.
 *
 * @param css any stylesheet; what cannot be read is passed over
 * @param frame classes that stand around content, such as those of page kinds; selectors are read without them
 * @returns each selector once, in order
 */
export function stylesInCss(css: string, frame: ReadonlySet<string> = new Set()): FoundStyle[] {
  const found = new Map<string, FoundStyle>();
  const ids = new Set<string>();
  const comments: { end: number; fields: Fields }[] = [];
  const root = parseCss(css, {
    positions: true,
    parseValue: false,
    onComment: (value, { end }) => {
      const fields = fieldsIn(value);
      if (fields.Style !== undefined) comments.push({ end: end.offset, fields });
    },
  });
  const take = (selector: string, line: number, named: Fields): void => {
    const bare = withoutFrame(selector, frame);
    const read = readStyle(bare);
    if (!read.ok || (read.act.classes.length === 0 && named.Style === undefined)) return;
    // What stands around content on every page is nothing to choose.
    if (read.act.classes.length > 0 && read.act.classes.every((name) => frame.has(name))) return;
    const known = found.get(bare);
    if (known !== undefined) {
      if (named.Style !== undefined && !known.isNamed) found.set(bare, { ...known, ...describe(bare, named), isNamed: true });
      return;
    }
    const { style } = describe(bare, named);
    let id = idOf(named.Style ?? read.act.classes[0] ?? read.act.element);
    for (let number = 2; ids.has(id); number++) id = `${idOf(named.Style ?? read.act.classes[0] ?? read.act.element)}-${number}`;
    ids.add(id);
    found.set(bare, { id, style, act: read.act, isNamed: named.Style !== undefined, line });
  };
  const visit = (nodes: readonly CssNode[]): void => {
    for (const node of nodes) {
      if (node.type === 'Rule') {
        // A comment names the rule that comes next.
        const start = node.loc?.start.offset ?? 0;
        let fields: Fields = {};
        while (comments.length > 0 && comments[0]!.end <= start) ({ fields } = comments.shift()!);
        selectorsOf(node, css).forEach((selector, at) => take(selector, node.loc?.start.line ?? 0, at === 0 ? fields : {}));
      } else if (node.type === 'Atrule' && node.block !== null && /^(media|supports|layer|container)$/i.test(node.name))
        visit(node.block.children.toArray());
    }
  };
  if (root.type === 'StyleSheet') visit(root.children.toArray());
  return [...found.values()];
}

function describe(selector: string, { Style, Group, Description, Within }: Fields): { style: StyleDefinition } {
  const within = (Within ?? '')
    .split(/[\s,]+/)
    .map((name) => name.toLowerCase())
    .filter((name) => /^[a-z][a-z0-9-]*$/.test(name));
  return {
    style: {
      label: (Style ?? labelOf(selector)).slice(0, 80),
      selector,
      ...(Description === undefined ? {} : { description: Description.slice(0, 300) }),
      ...(Group === undefined ? {} : { group: Group.slice(0, 60) }),
      ...(within.length === 0 ? {} : { within }),
    },
  };
}

/** `Style: Note`, `Group: Boxes`: one to a line, or separated by semicolons. */
function fieldsIn(comment: string): Fields {
  const fields: Fields = {};
  for (const part of comment.split(/[\n;]/)) {
    const match = /^[\s*]*(Style|Group|Description|Within)\s*:\s*(.*?)\s*$/i.exec(part);
    const name = FIELDS.find((field) => field.toLowerCase() === match?.[1]?.toLowerCase());
    if (match !== null && name !== undefined && match[2] !== '') fields[name] = match[2]!;
  }
  return fields;
}

function selectorsOf(rule: Rule, css: string): string[] {
  if (rule.prelude.type !== 'SelectorList') return [];
  return rule.prelude.children
    .toArray()
    .map((node) => (node.loc == null ? generate(node) : selectorText(css.slice(node.loc.start.offset, node.loc.end.offset))));
}

/** A selector without what only says on which pages it counts: `.page .body p.note` is `p.note`. */
function withoutFrame(selector: string, frame: ReadonlySet<string>): string {
  const parts = selector.split(/\s*>\s*|\s+/);
  let from = 0;
  while (from < parts.length - 1) {
    const classes = [...parts[from]!.matchAll(/\.([\w-]+)/g)].map(([, name]) => name!);
    const isFrame = /^(html|body|main|article)?(\.[\w-]+)*$/.test(parts[from]!) && classes.every((name) => frame.has(name));
    if (!isFrame) break;
    from++;
  }
  return from === 0 ? selector : selector.slice(indexOfPart(selector, from));
}

function indexOfPart(selector: string, part: number): number {
  let seen = 0;
  const separators = selector.matchAll(/\s*>\s*|\s+/g);
  for (const match of separators) if (++seen === part) return match.index + match[0].length;
  return 0;
}

const labelOf = (selector: string): string => {
  const read = readStyle(selector);
  const name = read.ok ? (read.act.classes.at(-1) ?? read.act.element) : selector;
  const words = name.replace(/[-_]+/g, ' ').trim();
  return words.charAt(0).toUpperCase() + words.slice(1);
};

const idOf = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 60) || 'style';

/**
 * Writes a style set as CSS: each style is a rule with a comment that names it. `stylesInCss` reads it again.
 *
 * @param declarations what a stylesheet says of each style, by its selector; a style without any gets an empty rule
 */
export function stylesAsCss(styles: Styles, declarations: ReadonlyMap<string, string> = new Map()): string {
  return Object.values(styles)
    .map(({ label, selector, description, group, within }) => {
      const read = readStyle(selector);
      const lines = [
        `Style: ${oneLine(label)}`,
        ...(group === undefined ? [] : [`Group: ${oneLine(group)}`]),
        ...(within === undefined ? [] : [`Within: ${within.join(', ')}`]),
        ...(description === undefined ? [] : [`Description: ${oneLine(description)}`]),
        ...(read.ok ? [actSentence(read.act)] : []),
      ].map((line) => line.replace(/\*\//g, '* /'));
      return `/*\n${lines.map((line) => ` * ${line}`).join('\n')}\n */\n${selector} {${declarations.get(selector) ?? ''}}\n`;
    })
    .join('\n');
}

const oneLine = (text: string): string => text.replace(/[\s;]+/g, ' ').trim();

/** What a stylesheet declares for selectors, as it stands there between the braces. */
export function declarationsIn(css: string): Map<string, string> {
  const found = new Map<string, string>();
  const root = parseCss(css, { positions: true, parseValue: false });
  if (root.type !== 'StyleSheet') return found;
  for (const node of root.children.toArray()) {
    if (node.type !== 'Rule' || node.block.loc == null) continue;
    const inside = css.slice(node.block.loc.start.offset + 1, node.block.loc.end.offset - 1);
    for (const selector of selectorsOf(node, css)) found.set(selector, `${found.get(selector) ?? ''}${inside}`);
  }
  return found;
}
