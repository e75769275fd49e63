import type { FragmentNode, ParentNode, TextNode } from '../html/node';
import { isBlock } from '../html/elements';
import type { Authority, Ledger } from '../ledger/ledger';
import type { Stage } from '../ledger/entry';

const HARD_SPACE = '\u00a0';
const SPELLINGS = /&nbsp;?|&#0*160;?|&#x0*a0;?|\u00a0/gi;

/** Units and the like that a number should not be parted from (SI Brochure, section 5.4.3; months and parts of the day beside them). */
const UNIT = new RegExp(
  `^(?:${(
    '[%‰°€£$¥¢]|°[CF]|[µμ]?[gmlsAVWNJΩFH]|[kMGTmcdhnp](?:g|m|l|s|A|V|W|N|J|B|b|Hz|Pa|Wh|bar)|k?Wh|Hz|Pa|bar|K|B|t|h|d|min|hrs?|secs?|kn|kts?|knots|NM|nmi?|' +
    'ft|in|yd|mi|mph|lbs?|oz|st|px|pt|em|rem|dpi|rpm|[ap]\\.?m\\.?|pp?|metres?|meters?|miles?|feet|foot|cables?|fathoms?|hours?|minutes?|seconds?|' +
    'days?|weeks?|months?|years?|tonnes?|litres?|degrees?|percent|million|billion|' +
    'Jan(?:uary)?|Feb(?:ruary)?|Mar(?:ch)?|Apr(?:il)?|May|June?|July?|Aug(?:ust)?|Sept?(?:ember)?|Oct(?:ober)?|Nov(?:ember)?|Dec(?:ember)?'
  )}|m[²³23]|km[²³23/]h?)(?![\\p{L}\\p{N}])`,
  'u',
);
const PUNCTUATION_AFTER = /^[!?:;»›%‰–—…]/u;
const BEFORE_NUMBER = /(?:[§¶№#€£$¥±+−–«‹]|\b(?:[Nn]os?|[Pp]{1,2}|[Ff]igs?|[Vv]ols?|[Cc]h|[Aa]rt|[Ss]ect?|[Cc]a|[Cc])\.)$/u;

/** Whether the hard space between two texts holds together what a line should not part: a number and its unit, digits, punctuation. */
export function isMeaningful(before: string, after: string): boolean {
  if (/\p{N}$/u.test(before) && (/^\p{N}/u.test(after) || UNIT.test(after))) return true;
  if (/\S$/u.test(before) && PUNCTUATION_AFTER.test(after)) return true;
  return /[«‹]$/u.test(before) && /^\S/u.test(after) ? true : BEFORE_NUMBER.test(before) && /^\p{N}/u.test(after);
}

/** As far as this on either side a hard space is judged by. */
const CONTEXT = 16;

/**
 * Makes hard spaces plain: all, or those that hold nothing together.
 *
 * @param root the tree after the rules were applied
 * @param rule which stay, and who says so
 * @param ledger gets an entry for each, with its place where the source shows it
 */
export function tidyHardSpaces(
  root: FragmentNode,
  { keep, by }: { keep: 'meaningful' | 'none'; by: Authority },
  ledger: Ledger | null,
  stage: Stage,
): void {
  const texts = textsInOrder(root);
  for (let i = 0; i < texts.length; i++) {
    const { node, follows, path } = texts[i]!;
    if (!node.value.includes(HARD_SPACE)) continue;
    const { value } = node;
    const plain: number[] = [];
    for (let at = value.indexOf(HARD_SPACE), nth = 0; at !== -1; at = value.indexOf(HARD_SPACE, at + 1), nth++) {
      const isKept =
        keep === 'meaningful' && isMeaningful(textBefore(texts, i, at), textAfter(texts, i, at + 1)) && (at > 0 || follows || i > 0);
      if (!isKept) plain.push(nth);
    }
    if (plain.length === 0) continue;
    const doomed = new Set(plain);
    let nth = 0;
    node.value = value.replace(/\u00a0/g, (space) => (doomed.has(nth++) ? ' ' : space));
    if (ledger !== null) report(ledger, stage, by, node, value, plain, path);
  }
}

interface PlacedText {
  node: TextNode;
  /** Whether it goes on the line of the text before it. */
  follows: boolean;
  path: string;
}

function textsInOrder(root: ParentNode): PlacedText[] {
  const texts: PlacedText[] = [];
  let follows = false;
  const stack: { node: ParentNode; next: number }[] = [{ node: root, next: 0 }];
  while (stack.length > 0) {
    const open = stack[stack.length - 1]!;
    const child = open.node.children[open.next++];
    if (child === undefined) {
      stack.pop();
      if (open.node.type === 'element' && isBlock(open.node.name)) follows = false;
    } else if (child.type === 'text') {
      texts.push({ node: child, follows, path: open.node.type === 'element' ? open.node.name : '' });
      follows = true;
    } else if (child.type === 'element') {
      if (isBlock(child.name) || child.name === 'br' || child.name === 'img') follows = false;
      if (child.children.length > 0) stack.push({ node: child, next: 0 });
    }
  }
  return texts;
}

function textBefore(texts: readonly PlacedText[], index: number, at: number): string {
  const { node, follows } = texts[index]!;
  const own = node.value.slice(Math.max(0, at - CONTEXT), at);
  return own !== '' || !follows ? own : texts[index - 1]!.node.value.slice(-CONTEXT);
}

function textAfter(texts: readonly PlacedText[], index: number, at: number): string {
  const own = texts[index]!.node.value.slice(at, at + CONTEXT);
  const next = texts[index + 1];
  return own !== '' || next === undefined || !next.follows ? own : next.node.value.slice(0, CONTEXT);
}

function report(ledger: Ledger, stage: Stage, by: Authority, node: TextNode, value: string, plain: readonly number[], path: string): void {
  const common = { by, action: 'changed', reason: 'hard-space', severity: 'tidy', path, after: ' ', textLost: 0 } as const;
  const { start, end } = node;
  const spellings = start < 0 ? [] : [...ledger.input.slice(start, end).matchAll(SPELLINGS)];
  if (spellings.length === value.split(HARD_SPACE).length - 1) {
    for (const nth of plain) {
      const { index, 0: spelling } = spellings[nth]!;
      const from = start + index;
      ledger.add(stage, { ...common, start: from, end: from + spelling.length, beforeEnd: from + spelling.length });
    }
  } else for (let i = 0; i < plain.length; i++) ledger.add(stage, { ...common, start: Math.max(0, start), end: Math.max(0, end), beforeEnd: Math.max(0, end) });
}
