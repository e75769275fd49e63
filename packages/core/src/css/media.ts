/** The circumstances of a page that `@media` asks about. */
export interface MediaContext {
  widthPx: number;
  heightPx: number;
  type: 'screen' | 'print';
  /** prefers-color-scheme. */
  scheme: 'light' | 'dark';
  /** prefers-reduced-motion. */
  reducedMotion: boolean;
}

export const DESK: MediaContext = { widthPx: 1280, heightPx: 800, type: 'screen', scheme: 'light', reducedMotion: false };

/** Font size that relative units in media queries count from (Media Queries Level 4, section 1.3). */
const EM_PX = 16;

/**
 * Whether a list of media queries holds (Media Queries Level 4).
 *
 * @param list as it stands behind `@media`; an empty one holds always
 * @returns false too for what is not known, as a browser has it
 */
export function mediaHolds(list: string, context: MediaContext): boolean {
  if (list.trim() === '') return true;
  return splitOutside(list, ',').some((query) => queryHolds(query.trim(), context));
}

function queryHolds(query: string, context: MediaContext): boolean {
  const match = /^(?:(not|only)\s+)?(all|screen|print|speech)\b(?:\s+and\s+(.+))?$/is.exec(query);
  if (match === null) return conditionHolds(query, context) === true;
  const [, modifier, type, rest] = match;
  const isType = type!.toLowerCase() === 'all' || type!.toLowerCase() === context.type;
  const holds = rest === undefined ? isType : isType && conditionHolds(rest, context) === true;
  return modifier?.toLowerCase() === 'not' ? !holds : holds;
}

/** true, false, or null for what is not known; the three of them go together as in Media Queries Level 4, section 3.1. */
function conditionHolds(condition: string, context: MediaContext): boolean | null {
  const text = condition.trim();
  const any = splitWord(text, 'or');
  if (any.length > 1) {
    const answers = any.map((part) => conditionHolds(part, context));
    return answers.includes(true) ? true : answers.includes(null) ? null : false;
  }
  const all = splitWord(text, 'and');
  if (all.length > 1) {
    const answers = all.map((part) => conditionHolds(part, context));
    return answers.includes(false) ? false : answers.includes(null) ? null : true;
  }
  if (/^not\b/i.test(text)) {
    const answer = conditionHolds(text.slice(3), context);
    return answer === null ? null : !answer;
  }
  const inside = /^\((.*)\)$/s.exec(text)?.[1];
  if (inside === undefined) return null;
  if (/^\s*(\(|not\b)/i.test(inside)) return conditionHolds(inside, context);
  return featureHolds(inside.trim().toLowerCase(), context);
}

function featureHolds(feature: string, context: MediaContext): boolean | null {
  const range = /^(?:(.+?)\s*(<=|>=|<|>|=)\s*)?(width|height|aspect-ratio|resolution)(?:\s*(<=|>=|<|>|=)\s*(.+))?$/.exec(feature);
  if (range !== null && (range[2] !== undefined || range[4] !== undefined)) {
    const [, left, leftSign, name, rightSign, right] = range;
    const value = valueOf(name!, context);
    const fits = (one: number, sign: string, other: number): boolean =>
      sign === '<' ? one < other : sign === '<=' ? one <= other : sign === '>' ? one > other : sign === '>=' ? one >= other : one === other;
    const a = left === undefined ? null : amount(left);
    const b = right === undefined ? null : amount(right);
    if ((left !== undefined && a === null) || (right !== undefined && b === null)) return null;
    return (a === null || fits(a, leftSign!, value)) && (b === null || fits(value, rightSign!, b));
  }
  const [name = '', given] = feature.split(/\s*:\s*/, 2);
  const bounded = /^(min|max)-(.+)$/.exec(name);
  if (bounded !== null && given !== undefined && ['width', 'height', 'aspect-ratio', 'resolution'].includes(bounded[2]!)) {
    const wanted = amount(given);
    const value = valueOf(bounded[2]!, context);
    return wanted === null ? null : bounded[1] === 'min' ? value >= wanted : value <= wanted;
  }
  switch (name) {
    case 'width':
    case 'height':
      return given === undefined ? valueOf(name, context) > 0 : amount(given) === valueOf(name, context);
    case 'orientation':
      return given === undefined || given === (context.heightPx >= context.widthPx ? 'portrait' : 'landscape');
    case 'prefers-color-scheme':
      return given === undefined || given === context.scheme;
    case 'prefers-reduced-motion':
      return given === undefined ? context.reducedMotion : given === (context.reducedMotion ? 'reduce' : 'no-preference');
    case 'prefers-contrast':
    case 'prefers-reduced-transparency':
    case 'prefers-reduced-data':
      return given === 'no-preference';
    case 'hover':
    case 'any-hover':
      return given === undefined || given === 'hover';
    case 'pointer':
    case 'any-pointer':
      return given === undefined || given === 'fine';
    case 'color':
    case 'min-color':
      return true;
    case 'monochrome':
    case 'forced-colors':
    case 'inverted-colors':
      return given === 'none' || given === '0';
    case 'grid':
      return given === '0';
    case 'update':
      return given === undefined || given === 'fast';
    case 'scripting':
      return given === 'none';
    case 'display-mode':
      return given === 'browser';
    default:
      return null;
  }
}

function valueOf(name: string, { widthPx, heightPx }: MediaContext): number {
  return name === 'width' ? widthPx : name === 'height' ? heightPx : name === 'resolution' ? 1 : widthPx / heightPx;
}

/** A length in pixels, a ratio or a resolution in dots per pixel; null for what is none. */
function amount(text: string): number | null {
  const ratio = /^([\d.]+)\s*\/\s*([\d.]+)$/.exec(text.trim());
  if (ratio !== null) return Number(ratio[1]) / Number(ratio[2]);
  const match = /^([+-]?[\d.]+(?:e[+-]?\d+)?)(px|em|rem|cm|mm|in|pt|pc|dppx|x|dpi|dpcm)?$/.exec(text.trim());
  if (match === null) return null;
  const units: Readonly<Record<string, number>> = {
    px: 1,
    em: EM_PX,
    rem: EM_PX,
    cm: 96 / 2.54,
    mm: 9.6 / 2.54,
    in: 96,
    pt: 4 / 3,
    pc: 16,
    dppx: 1,
    x: 1,
    dpi: 1 / 96,
    dpcm: 2.54 / 96,
  };
  return Number(match[1]) * (match[2] === undefined ? 1 : units[match[2]]!);
}

function splitOutside(text: string, sign: string): string[] {
  const parts: string[] = [''];
  let depth = 0;
  for (const character of text) {
    if (character === '(') depth++;
    if (character === ')') depth--;
    if (character === sign && depth === 0) parts.push('');
    else parts[parts.length - 1] += character;
  }
  return parts;
}

function splitWord(text: string, word: 'and' | 'or'): string[] {
  const parts: string[] = [];
  let depth = 0;
  let start = 0;
  const pattern = new RegExp(`^\\s${word}\\s`, 'i');
  for (let at = 0; at < text.length; at++) {
    if (text[at] === '(') depth++;
    else if (text[at] === ')') depth--;
    else if (
      depth === 0 &&
      (pattern.test(text.slice(at, at + word.length + 2)) ||
        (text[at - 1] === ')' && new RegExp(`^${word}[\\s(]`, 'i').test(text.slice(at))))
    ) {
      parts.push(text.slice(start, at));
      start = text.slice(at).search(new RegExp(word, 'i')) + at + word.length;
      at = start - 1;
    }
  }
  return [...parts, text.slice(start)];
}
