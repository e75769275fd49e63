import type { FragmentNode, ParentNode, TextNode } from '../html/node';
import { isBlock } from '../html/elements';
import { placeOfText } from '../html/text-place';
import type { Authority, Ledger } from '../ledger/ledger';
import { ofText } from '../ledger/subject';
import type { Stage } from '../ledger/entry';

const HARD_SPACE = '\u00a0';

/** Units and the like that a number should not be parted from (SI Brochure, section 5.4.3; months and parts of the day beside them). */
const UNIT = new RegExp(
  `^(?:${
    '[%‰°€£$¥¢]|°[CF]|[µμ]?[gmlsAVWNJΩFH]|[kMGTmcdhnp](?:g|m|l|s|A|V|W|N|J|B|b|Hz|Pa|Wh|bar)|k?Wh|Hz|Pa|bar|K|B|t|h|d|min|hrs?|secs?|kn|kts?|knots|NM|nmi?|' +
    'ft|in|yd|mi|mph|lbs?|oz|st|px|pt|em|rem|dpi|rpm|[ap]\\.?m\\.?|pp?|metres?|meters?|miles?|feet|foot|cables?|fathoms?|hours?|minutes?|seconds?|' +
    'days?|weeks?|months?|years?|tonnes?|litres?|degrees?|percent|million|billion|' +
    'Jan(?:uary)?|Feb(?:ruary)?|Mar(?:ch)?|Apr(?:il)?|May|June?|July?|Aug(?:ust)?|Sept?(?:ember)?|Oct(?:ober)?|Nov(?:ember)?|Dec(?:ember)?'
  }|m[²³23]|km[²³23/]h?)(?![\\p{L}\\p{N}])`,
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
  /** The text before, where it stands on the same line; and one with hard spaces, which waits for what follows it. */
  let before: TextNode | null = null;
  let waiting: { node: TextNode; before: string } | null = null;
  const tidy = (after: string): void => {
    if (waiting !== null) tidyText(waiting.node, waiting.before, after, keep, by, ledger, stage);
    waiting = null;
  };
  eachText(root, (node, isOnLine) => {
    tidy(isOnLine ? node.value : '');
    if (node.value.includes(HARD_SPACE)) waiting = { node, before: isOnLine ? (before?.value ?? '') : '' };
    before = node;
  });
  tidy('');
}

function tidyText(
  node: TextNode,
  before: string,
  after: string,
  keep: 'meaningful' | 'none',
  by: Authority,
  ledger: Ledger | null,
  stage: Stage,
): void {
  const { value } = node;
  const plain: number[] = [];
  for (let at = value.indexOf(HARD_SPACE), nth = 0; at !== -1; at = value.indexOf(HARD_SPACE, at + 1), nth++) {
    const isKept =
      keep === 'meaningful' &&
      isMeaningful(
        at === 0 ? before.slice(-CONTEXT) : value.slice(Math.max(0, at - CONTEXT), at),
        at + 1 === value.length ? after.slice(0, CONTEXT) : value.slice(at + 1, at + 1 + CONTEXT),
      );
    if (!isKept) plain.push(nth);
  }
  if (plain.length === 0) return;
  if (ledger !== null) report(ledger, stage, by, node, value, plain);
  let nth = 0;
  let next = 0;
  node.value =
    plain.length === value.split(HARD_SPACE).length - 1
      ? value.replaceAll(HARD_SPACE, ' ')
      : value.replace(/\u00a0/g, (space) => {
          const isPlain = plain[next] === nth++;
          if (isPlain) next++;
          return isPlain ? ' ' : space;
        });
}

/** Tells of each text of a tree, in order, and whether it goes on the line of the text before it. */
function eachText(root: ParentNode, tell: (text: TextNode, isOnLine: boolean) => void): void {
  let isOnLine = false;
  const parents: ParentNode[] = [root];
  const places: number[] = [0];
  while (parents.length > 0) {
    const depth = parents.length - 1;
    const parent = parents[depth]!;
    const child = parent.children[places[depth]!++];
    if (child === undefined) {
      parents.pop();
      places.pop();
      if (parent.type === 'element' && isBlock(parent.name)) isOnLine = false;
    } else if (child.type === 'text') {
      tell(child, isOnLine);
      isOnLine = true;
    } else if (child.type === 'element') {
      if (child.name === 'br' || child.name === 'img' || isBlock(child.name)) isOnLine = false;
      if (child.children.length > 0) {
        parents.push(child);
        places.push(0);
      }
    }
  }
}

function report(ledger: Ledger, stage: Stage, by: Authority, node: TextNode, value: string, plain: readonly number[]): void {
  const { parent } = node;
  const path = parent?.type === 'element' ? parent.name : '';
  let at = value.indexOf(HARD_SPACE);
  let seen = 0;
  for (const nth of plain) {
    for (; seen < nth; seen++) at = value.indexOf(HARD_SPACE, at + 1);
    const { start, end } = placeOfText(node, at, at + 1) ?? { start: 0, end: 0 };
    ledger.add(stage, {
      by,
      action: 'changed',
      subject: ofText(path),
      reason: 'hard-space',
      severity: 'tidy',
      start,
      end,
      beforeEnd: end,
      path,
      after: ' ',
      textLost: 0,
    });
  }
}
