import { generate, walk, type CssNode, type Declaration } from 'css-tree';
import { parseCss } from '../css/parse';
import { isValueOf } from '../css/grammar';
import { colourKey } from '../css/colour';
import type { StyleTest } from '../profile/schema';
import type { CompiledTest, Piece, Verdict } from './verdict';
import { isLengthWithin } from './length';

type StyleProperties = Readonly<Record<string, StyleTest>>;

/** Functions that fetch, run or bring in what cannot be judged here (CSS Values 4, CSS Images 4, CSS Variables). */
const FORBIDDEN_FUNCTIONS: ReadonlySet<string> = new Set(
  'url src image image-set -webkit-image-set cross-fade -webkit-cross-fade element -moz-element paint expression attr var env progid'.split(
    ' ',
  ),
);
/** Properties that have run code or loaded documents in one browser or another. */
const FORBIDDEN_PROPERTIES: ReadonlySet<string> = new Set([
  'behavior',
  '-moz-binding',
  '-ms-behavior',
  'filter',
  // These move a box over the page's own parts (CSS Transforms 1 and 2, Motion Path 1).
  'transform',
  'translate',
  'scale',
  'offset',
  'offset-path',
  'offset-position',
  'offset-distance',
]);

/** No escapes, comments, blocks or markup, and every string closed. */
const PLAIN = /^(?:(?!\/\*)[^\\{}@<\0"']|"[^"\\<\0]*"|'[^'\\<\0]*')*$/;
const PROPERTY = /^-?[a-z][a-z-]*$/i;

/** So many different values of `style` are remembered by one test; pasted documents repeat a few of them thousands of times. */
const MOST_REMEMBERED = 500;

/** One declaration of a `style` attribute. */
interface Declared {
  property: string;
  /** As it is written anew: no comments, no escapes, everything closed. */
  value: string;
  node: Declaration | null;
  start: number;
  end: number;
  /** True where the source is not what it seems: an escape, a comment, a string that never ends. */
  isDisguised: boolean;
  isImportant: boolean;
}

/** The declarations of a `style` attribute (CSS Style Attributes, section 3), each with its place; never throws. */
export function readDeclarations(style: string): Declared[] {
  const found: Declared[] = [];
  const broken: number[] = [];
  const root = parseCss(style, {
    context: 'declarationList',
    positions: true,
    onParseError: (_error, fallback) => broken.push((fallback as CssNode | null)?.loc?.start.offset ?? 0),
  });
  if (root.type !== 'DeclarationList') return found;
  root.children.forEach((node) => {
    const start = node.loc?.start.offset ?? 0;
    const end = node.loc?.end.offset ?? style.length;
    const source = style.slice(start, end);
    if (node.type !== 'Declaration') {
      if (source.trim() !== '') found.push({ property: '', value: source, node: null, start, end, isDisguised: true, isImportant: false });
      return;
    }
    const isDisguised =
      !PLAIN.test(source) ||
      !PROPERTY.test(node.property) ||
      node.value.type !== 'Value' ||
      broken.some((offset) => offset >= start && offset <= end);
    found.push({
      property: node.property.toLowerCase(),
      value: generate(node.value),
      node,
      start,
      end,
      isDisguised: isDisguised || source.split('(').length !== source.split(')').length,
      isImportant: node.important !== false,
    });
  });
  return found;
}

/** Whether the safety floor lets a declaration stand: a property that CSS knows, with a value by its grammar, that fetches and runs nothing. */
export function isDeclarationSafe({ property, node, isDisguised }: Declared): boolean {
  if (isDisguised || node === null || FORBIDDEN_PROPERTIES.has(property) || property.startsWith('--')) return false;
  let isSafe = true;
  walk(node.value, (inner: CssNode) => {
    if (inner.type === 'Url' || inner.type === 'Raw' || (inner.type === 'Function' && FORBIDDEN_FUNCTIONS.has(inner.name.toLowerCase())))
      isSafe = false;
  });
  // What leaves its place in the text can lie over the page's own parts.
  if (property === 'position' && generate(node.value).toLowerCase() !== 'static') return false;
  return isSafe && isValueOf(property, node.value);
}

/** What the safety floor makes of a `style` attribute, whatever test a rule gives it. */
export const floorStyleTest: CompiledTest = remembering((style) =>
  judgeDeclarations(style, (declared) => (isDeclarationSafe(declared) ? null : { reason: 'style-forbidden', keys: [] })),
);

/**
 * Makes the function that judges `style` attributes property by property. It stands on the safety floor's own test.
 *
 * @param properties the rule of each property; one without a rule goes
 */
export function compileStyleTest(properties: StyleProperties): CompiledTest {
  const tests = new Map(Object.entries(properties).map(([property, test]) => [property, compileValueTest(test)]));
  return remembering((style) =>
    judgeDeclarations(style, ({ property, value, isImportant }) => {
      const test = tests.get(property);
      if (test === undefined) return { reason: 'style-property-not-allowed', keys: ['properties'] };
      if (!test(value)) return { reason: 'style-value-not-allowed', keys: ['properties', property] };
      return isImportant ? { reason: 'style-importance', keys: ['properties', property] } : null;
    }),
  );
}

function judgeDeclarations(style: string, refusal: (declared: Declared) => Pick<Piece, 'reason' | 'keys'> | null): Verdict {
  const declarations = readDeclarations(style);
  const kept: string[] = [];
  const pieces: Piece[] = [];
  for (const declared of declarations) {
    const { property, value, start, end } = declared;
    const refused = refusal(declared);
    const isKept = refused === null || refused.reason === 'style-importance';
    const isImportant = declared.isImportant && refused === null;
    const written = isKept ? `${property}: ${value}${isImportant ? ' !important' : ''}` : '';
    if (isKept) kept.push(written);
    if (refused !== null) pieces.push({ start, end, property, value, after: written, ...refused });
  }
  if (kept.length === 0) return { refuse: 'value-not-allowed', pieces };
  // What lies between the declarations stays as it is only while it is nothing but white space and semicolons.
  if (pieces.length === 0 && isPlainBetween(style, declarations)) return { keep: style };
  return { keep: kept.join('; '), pieces };
}

function isPlainBetween(style: string, declarations: readonly Declared[]): boolean {
  let at = 0;
  for (const { start, end } of declarations) {
    if (/[^\s;]/.test(style.slice(at, start))) return false;
    at = end;
  }
  return !/[^\s;]/.test(style.slice(at));
}

function compileValueTest(test: StyleTest): (value: string) => boolean {
  switch (test.test) {
    case 'any':
      return () => true;
    case 'list': {
      const values = new Set(test.values.map(normalised));
      return (value) => values.has(normalised(value));
    }
    case 'colour': {
      const keys = new Set(test.values.map(colourKey));
      return (value) => keys.has(colourKey(value) ?? '');
    }
    case 'length':
      return (value) => value.split(/\s+/).every((part) => isLengthWithin(part, test.ranges));
    case 'number': {
      const { min = -Infinity, max = Infinity } = test;
      return (value) => /^[+-]?(\d+\.?\d*|\.\d+)$/.test(value) && Number(value) >= min && Number(value) <= max;
    }
  }
}

/** Values that CSS takes for the same: letter case and white space apart. */
function normalised(value: string): string {
  return value
    .trim()
    .toLowerCase()
    .replace(/\s*([,/])\s*/g, '$1')
    .replace(/\s+/g, ' ');
}

function remembering(judge: CompiledTest): CompiledTest {
  const remembered = new Map<string, Verdict>();
  return (value) => {
    let verdict = remembered.get(value);
    if (verdict === undefined) {
      verdict = judge(value);
      if (remembered.size < MOST_REMEMBERED) remembered.set(value, verdict);
    }
    return verdict;
  };
}
