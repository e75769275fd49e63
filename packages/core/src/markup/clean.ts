import { isBlock } from '../html/elements';
import { FragmentNode, TextNode, append, type ChildNode, type Node, type ParentNode } from '../html/node';
import { firstDifference } from '../html/same';
import { parseFragment, type Ignored, type ParsedFragment } from '../html/parse';
import { serialize } from '../html/serialize';
import { renderedText } from '../html/rendered-text';
import type { LedgerEntry, Stage } from '../ledger/entry';
import { Ledger, type Authority, type Report } from '../ledger/ledger';
import { OF_CONTENT, OF_DOCTYPE, ofAttribute, ofElement, ofText, type Subject } from '../ledger/subject';
import { applyRules } from './apply';
import type { CompiledRules } from './compiled';
import { layOut } from './layout';
import { isSurelyStable } from './stability';

export interface Cleaned {
  /** What may be stored. */
  html: string;
  /** The tree `html` was written from. */
  root: FragmentNode;
  ledger: LedgerEntry[];
}

/** After this many rounds of writing and reading, markup that still will not stand still is kept as text alone. */
const MOST_ROUNDS = 6;

/**
 * Cleans markup by compiled rules: parse, apply, write, and make sure that what was written reads back as the same tree.
 * Cleaning the result again changes nothing.
 *
 * @param input markup from anywhere; never trusted
 * @param rules what may stay
 * @returns the clean markup and one ledger entry for everything that was changed or removed; never throws
 */
export function clean(input: string, rules: CompiledRules): Cleaned {
  return cleanParsed(parseFragment(input), rules);
}

/** The same for markup that was parsed already; its tree is changed. */
export function cleanParsed(fragment: ParsedFragment, rules: CompiledRules): Cleaned {
  const ledger = new Ledger(fragment.input);
  for (const ignored of fragment.ignored) reportIgnored(ledger, ignored);
  applyRules(fragment, rules, ledger);
  const root = settle(fragment, rules, ledger);
  return { html: serialize(root, rules.output.characters), root, ledger: ledger.entries() };
}

/** The same without a record, for bulk work that asks for the result alone. */
export function cleanWithoutLedger(input: string, rules: CompiledRules): string {
  const fragment = parseFragment(input);
  applyRules(fragment, rules, null);
  return serialize(settle(fragment, rules, null), rules.output.characters);
}

/**
 * Some trees cannot be written: a paragraph that came to stand in a paragraph when the element between them was
 * unwrapped is read back as two. The parser is asked how a browser would see it, and the rules are applied to that.
 */
export function settle(fragment: ParsedFragment, rules: CompiledRules, ledger: Ledger | null): FragmentNode {
  let { root } = fragment;
  const { layout } = rules.output;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    if (layout !== 'as-is') layOut(root, layout);
    if (isSurelyStable(root)) return root;
    const difference = firstDifference(root, parseFragment(serialize(root)).root);
    if (difference === null) return root;
    partBlocks(root);
    const again = parseFragment(serialize(root));
    const place = placeIn(fragment.input, difference);
    ledger?.add('settle', restructured(place));
    applyRules(again, rules, ledger === null ? null : new AnchoredLedger(ledger, place), 'settle');
    root = again.root;
  }
  const text = new FragmentNode();
  append(text, new TextNode(renderedText(root)));
  ledger?.add('settle', {
    ...restructured({ start: 0, end: fragment.input.length, path: '' }),
    by: { layer: 'safety-floor', rule: '/nesting' },
  });
  return text;
}

/**
 * Puts a space between each block and words straight behind it. A tree that cannot be written is read with other blocks,
 * and what was inside of one may come to stand beside what followed it.
 */
function partBlocks(root: FragmentNode): void {
  const stack: ParentNode[] = [root];
  for (let parent = stack.pop(); parent !== undefined; parent = stack.pop()) {
    const { children } = parent;
    const parted: ChildNode[] = [];
    let isAfterBlock = false;
    for (const child of children) {
      const isWord = child.type === 'text' ? /^[^\t\n\f\r ]/.test(child.value) : child.type === 'element' && !isBlock(child.name);
      if (isAfterBlock && isWord) {
        const space = new TextNode(' ');
        space.parent = parent;
        parted.push(space);
      }
      if (child.type !== 'comment') isAfterBlock = child.type === 'element' && isBlock(child.name);
      parted.push(child);
      if (child.type === 'element' && child.children.length > 0) stack.push(child);
    }
    if (parted.length > children.length) parent.children = parted;
  }
}

interface Place {
  start: number;
  end: number;
  path: string;
}

/** Later rounds work on text that is not the input, so their entries name the place in the input where the trouble began. */
export class AnchoredLedger extends Ledger {
  constructor(
    private readonly target: Ledger,
    private readonly place: Place,
  ) {
    super(target.input);
  }
  override add(stage: Stage, report: Report): void {
    const { start, end } = this.place;
    this.target.add(stage, { ...report, start, end, beforeEnd: end });
  }
}

function placeIn(input: string, node: Node): Place {
  for (let at: Node | null = node; at !== null; at = at.parent)
    if (at.type === 'element' && at.start >= 0 && at.startTagEnd > at.start && at.end <= input.length)
      return { start: at.start, end: at.startTagEnd, path: at.name };
  return { start: 0, end: input.length, path: '' };
}

const HTML_STANDARD: Authority = { layer: 'html-standard', rule: '' };

function restructured({ start, end, path }: Place): Report {
  return {
    by: HTML_STANDARD,
    action: 'restructured',
    subject: path === '' ? OF_CONTENT : ofElement(path),
    reason: 'nesting-impossible',
    severity: 'tidy',
    start,
    end,
    beforeEnd: end,
    path,
    after: '',
    textLost: 0,
  };
}

const IGNORED_REASONS = {
  'start-tag': 'tag-ignored-by-parser',
  'end-tag': 'tag-ignored-by-parser',
  'repeated-attribute': 'attribute-repeated',
  doctype: 'doctype-ignored',
  'unfinished-tag': 'tag-unfinished',
  'formatting-limit': 'formatting-limit',
  'half-character': 'half-character',
} as const;

/** Reports what the HTML standard's own algorithm left out. */
export function reportIgnored(ledger: Ledger, ignored: Ignored): void {
  const { kind, name, start, end } = ignored;
  const isHalf = kind === 'half-character';
  ledger.add('read', {
    by: HTML_STANDARD,
    action: isHalf ? 'changed' : 'removed',
    subject: subjectOf(ignored),
    reason: IGNORED_REASONS[kind],
    severity: isHalf || kind === 'unfinished-tag' || kind === 'formatting-limit' ? 'change' : 'tidy',
    start,
    end,
    beforeEnd: end,
    path: isHalf ? '#text' : name,
    after: isHalf ? '\ufffd' : '',
    textLost: 0,
  });
}

function subjectOf({ kind, name, attribute }: Ignored): Subject {
  switch (kind) {
    case 'doctype':
      return OF_DOCTYPE;
    case 'half-character':
      return ofText('');
    case 'formatting-limit':
      return OF_CONTENT;
    case 'repeated-attribute':
      return ofAttribute(name, attribute ?? '');
    default:
      return ofElement(name);
  }
}
