import { HIDDEN_ELEMENTS, NOTHING_WITHOUT_SOURCE, REPLACED_ELEMENTS, VOID_ELEMENTS } from '../html/elements';
import { append, type ChildNode, type CommentNode, ElementNode, HTML_NAMESPACE, type ParentNode, TextNode } from '../html/node';
import type { ParsedFragment } from '../html/parse';
import { attributeRanges, type Range } from '../html/positions';
import { startTag } from '../html/serialize';
import { countLetters, hasLetters, offsetAfterLetters, visibleLetters } from '../html/text';
import type { Action, Reason, Severity, Stage } from '../ledger/entry';
import type { Authority, Ledger } from '../ledger/ledger';
import { judgeAttributes, type AttributeChange } from './attributes';
import type { CompiledElement, CompiledRules } from './compile';
import { tidyHardSpaces } from './hard-spaces';
import { headingRules, shiftOf } from './headings';
import { collectIds, type IdNames } from './ids';

const FLOOR_COMMENTS: Authority = { layer: 'safety-floor', rule: '/comments' };
const FLOOR_DROP: Authority = { layer: 'safety-floor', rule: '/elements/drop' };

/** After so many steps a path begins anew with an ellipsis: enough to find the place, and linear on deep input. */
const LONGEST_PATH = 20;

/** Headings have six levels, so that after as many rounds all are where they belong. */
const MOST_SHIFTS = 6;

/** One open element of the source: its children still to come, and the element of the result that receives them. */
interface Frame {
  source: ParentNode;
  children: readonly ChildNode[];
  next: number;
  elementsSeen: number;
  elementsInAll: number;
  target: ParentNode;
  /** Depth of `target` below the root of the result. */
  depth: number;
  /** Source of an end tag to write as text once the children are done. */
  endText: string;
  /** This frame's place among its siblings, for paths. */
  nth: number;
  /** The path of `source`, once something in it was reported. */
  path: string | null;
  /** The rule of the element that this frame fills; null where the children go into an element further out. */
  fills: CompiledElement | null;
  /** Whether anything was put into `target` that a reader sees. */
  shows: boolean;
  /** Whether readers see nothing of what is in here. */
  isHidden: boolean;
}

/**
 * Applies compiled markup rules to a tree, in one walk with a stack of its own.
 * The tree is changed in place: kept nodes stay the same objects.
 *
 * @param fragment what the parser returned
 * @param rules what may stay
 * @param ledger gets one entry for each thing changed or removed; null does the same work without a record
 * @param stage the stage to name in the entries
 */
export function applyRules(fragment: ParsedFragment, rules: CompiledRules, ledger: Ledger | null, stage: Stage = 'markup'): void {
  let walk = new Walk(fragment, rules, ledger, stage);
  walk.run();
  // Where the highest heading itself went, the others move once more.
  for (let round = 0; round < MOST_SHIFTS && shiftOf(fragment.root, rules) !== 0; round++) {
    walk = new Walk(fragment, rules, ledger, stage);
    walk.run();
  }
  if (rules.hardSpaces !== null && walk.hardSpaced.size > 0)
    tidyHardSpaces(fragment.root, walk.hardSpaced, rules.hardSpaces, ledger, stage);
}

class Walk {
  private readonly frames: Frame[] = [];
  private readonly headings: ReadonlyMap<string, CompiledElement> | null;
  private readonly ids: IdNames | null;
  private readonly seesEmpty: boolean;
  private elementsKept = 0;
  private lettersKept = 0;
  private isFull = false;
  /** How many elements are open of each name whose depth is limited. */
  private readonly openOf = new Map<string, number>();
  /** Empty paragraphs that stay, of which only one in a row does. */
  private readonly emptyKept = new Set<ChildNode>();
  /** The texts of the result that hold hard spaces. */
  readonly hardSpaced = new Set<ChildNode>();

  constructor(
    private readonly fragment: ParsedFragment,
    private readonly rules: CompiledRules,
    private readonly ledger: Ledger | null,
    private readonly stage: Stage,
  ) {
    this.headings = rules.headings === null ? null : headingRules(fragment.root, rules);
    this.ids = rules.ids === null ? null : collectIds(fragment.root, fragment.input, rules.ids);
    this.seesEmpty = rules.seesEmpty;
  }

  run(): void {
    const { root } = this.fragment;
    this.open(root, root, 0, '', 0, null, false);
    while (this.frames.length > 0) {
      const frame = this.frames[this.frames.length - 1]!;
      if (frame.next === frame.children.length) {
        this.close(frame);
        continue;
      }
      const child = frame.children[frame.next++]!;
      if (child.type === 'text') this.text(child, frame);
      else if (child.type === 'comment') this.comment(child, frame);
      else {
        frame.elementsSeen++;
        this.element(child, frame);
      }
    }
  }

  /** Takes the children off a source element and begins to walk them into `target`. */
  private open(
    source: ParentNode,
    target: ParentNode,
    depth: number,
    endText: string,
    nth: number,
    fills: CompiledElement | null,
    isHidden: boolean,
  ): void {
    const { children } = source;
    source.children = [];
    this.frames.push({
      source,
      children,
      next: 0,
      elementsSeen: 0,
      elementsInAll: -1,
      target,
      depth,
      endText,
      nth,
      path: null,
      fills,
      shows: false,
      isHidden,
    });
  }

  /** The same for an element that goes while its content stays. */
  private openInto(element: ElementNode, frame: Frame, endText = ''): void {
    this.open(element, frame.target, frame.depth, endText, frame.elementsSeen, null, frame.isHidden);
  }

  private close(frame: Frame): void {
    if (frame.endText !== '') this.text(new TextNode(frame.endText), frame);
    this.frames.pop();
    const parent = this.frames[this.frames.length - 1];
    if (parent === undefined) return;
    const { fills } = frame;
    if (fills !== null) {
      if (fills.demands?.depth != null) this.openOf.set(fills.name, this.openOf.get(fills.name)! - 1);
      if (this.seesEmpty && !frame.shows) this.closeEmpty(frame.target as ElementNode, fills, parent);
    }
    if (frame.shows) parent.shows = true;
  }

  private text(text: TextNode, frame: Frame): void {
    const { letters } = this.rules;
    if (this.rules.hardSpaces !== null && text.value.includes('\u00a0')) {
      const { start, end } = this.textRange(frame);
      text.start = start;
      text.end = end;
    }
    if (letters === null || frame.isHidden) {
      this.put(text, frame);
      return;
    }
    const all = countLetters(text.value);
    if (!this.isFull && this.lettersKept + all <= letters.limit) {
      this.lettersKept += all;
      this.put(text, frame);
      return;
    }
    const kept = this.isFull ? 0 : offsetAfterLetters(text.value, letters.limit - this.lettersKept);
    const before = countLetters(text.value.slice(0, kept));
    this.lettersKept += before;
    this.isFull = true;
    if (all > before) {
      const { start, end } = this.textRange(frame);
      this.note(frame, '#text', letters.by, 'removed', 'letter-limit', 'loss', start, end, end, '', all - before);
    }
    text.value = text.value.slice(0, kept);
    this.put(text, frame);
  }

  private put(text: TextNode, frame: Frame): void {
    if (this.seesEmpty && !frame.shows && hasLetters(text.value)) frame.shows = true;
    append(frame.target, text);
    // The text may have been joined to the one before it.
    if (text.start >= 0) this.hardSpaced.add(frame.target.children[frame.target.children.length - 1]!);
  }

  /** Where the text that `frame` is at stands in the input, by what stands around it. */
  private textRange({ source, children, next }: Frame): Range {
    const before = children[next - 2];
    const after = children[next];
    const { length } = this.fragment.input;
    const start = before !== undefined && before.type !== 'text' ? before.end : source.type === 'element' ? source.startTagEnd : 0;
    const end = after !== undefined && after.type !== 'text' ? after.start : source.type === 'element' ? source.endTagStart : length;
    const from = Math.min(Math.max(start, 0), length);
    return { start: from, end: Math.min(Math.max(end, from), length) };
  }

  private element(element: ElementNode, frame: Frame): void {
    if (this.isFull) {
      const lost = frame.isHidden ? 0 : visibleLetters(element);
      this.reportElement(element, frame, 'removed', this.rules.letters!.by, 'letter-limit', lost);
      return;
    }
    const { name } = element;
    const rule = element.namespace !== HTML_NAMESPACE ? this.rules.foreign : (this.headings?.get(name) ?? this.rules.element(name));
    if (rule.outcome === 'keep') this.keep(element, rule, frame);
    else if (rule.outcome === 'text' && element.start >= 0 && !element.isCopy && !HIDDEN_ELEMENTS.has(name)) {
      this.reportElement(element, frame, 'shown-as-text', rule.by, 'element-shown-as-text', 0);
      this.text(new TextNode(this.source(element.start, element.startTagEnd)), frame);
      this.openInto(element, frame, this.source(element.endTagStart, element.end));
    } else this.refuse(element, frame, rule.outcome === 'drop' ? 'drop' : 'unwrap', rule.by, rule.reason);
  }

  /** A piece of the input as text can hold it (HTML, section 13.2.3.5 "Preprocessing the input stream"). */
  private source(start: number, end: number): string {
    return this.fragment.input.slice(start, end).replace(/\r\n?/g, '\n').replaceAll('\0', '');
  }

  /** Takes an element away, with its content or without. */
  private refuse(element: ElementNode, frame: Frame, outcome: 'drop' | 'unwrap', by: Authority, reason: Reason): void {
    // What an element hid from readers must not turn up on the page when only its tags go.
    if (outcome === 'drop' || HIDDEN_ELEMENTS.has(element.name)) {
      this.reportElement(element, frame, 'removed', by, reason, frame.isHidden ? 0 : visibleLetters(element));
      return;
    }
    this.reportElement(element, frame, 'unwrapped', by, reason, 0);
    this.openInto(element, frame);
  }

  private keep(element: ElementNode, rule: CompiledElement, frame: Frame): void {
    const { nesting, elements } = this.rules;
    const { demands } = rule;
    if (frame.depth >= nesting.limit) return this.refuse(element, frame, 'unwrap', nesting.by, 'nesting-limit');
    if (elements !== null && this.elementsKept >= elements.limit)
      return this.refuse(element, frame, 'unwrap', elements.by, 'element-limit');
    if (demands !== null) {
      const parent = frame.target.type === 'element' ? frame.target.name : '';
      for (const { names, by } of demands.parents)
        if (!names.has(parent)) return this.refuse(element, frame, 'unwrap', by, 'parent-not-allowed');
      const { depth } = demands;
      if (depth !== null && (this.openOf.get(rule.name) ?? 0) >= depth.limit)
        return this.refuse(element, frame, 'unwrap', depth.by, 'depth-limit');
    }
    if (!this.keepAttributes(element, rule, frame)) return;
    const original = element.name;
    if (rule.name !== original) {
      element.name = rule.name;
      if (this.ledger !== null) this.reportRenamed(element, original, rule, frame);
    }
    this.elementsKept++;
    append(frame.target, element);
    if (REPLACED_ELEMENTS.has(element.name) || element.name === 'hr') frame.shows = true;
    if (element.name === 'iframe') this.hollow(element, frame);
    else if (VOID_ELEMENTS.has(element.name) && element.children.length > 0) {
      // A void element holds nothing; what was in the element renamed to it follows it.
      this.openInto(element, frame);
    } else if (element.children.length > 0) {
      if (demands?.depth != null) this.openOf.set(rule.name, (this.openOf.get(rule.name) ?? 0) + 1);
      this.open(element, element, frame.depth + 1, '', frame.elementsSeen, rule, frame.isHidden || HIDDEN_ELEMENTS.has(element.name));
    } else if (this.seesEmpty && !VOID_ELEMENTS.has(element.name) && !REPLACED_ELEMENTS.has(element.name))
      this.closeEmpty(element, rule, frame);
  }

  /** Judges the attributes of an element that would stay; false where it does not stay after all. */
  private keepAttributes(element: ElementNode, rule: CompiledElement, frame: Frame): boolean {
    const { attributes } = element;
    if (attributes.length === 0 && rule.demands === null) return true;
    const nothingWithout = NOTHING_WITHOUT_SOURCE.has(rule.name) ? 'src' : null;
    const judged = judgeAttributes(attributes, rule, nothingWithout, this.ids);
    if (judged === null) return true;
    const { refused } = judged;
    if (refused !== null) {
      this.refuse(element, frame, refused.outcome, refused.by, refused.reason);
      return false;
    }
    if (this.ledger !== null && !isCopy(element)) this.reportAttributes(element, judged.changes, frame);
    element.attributes = judged.attributes;
    return true;
  }

  private reportAttributes(element: ElementNode, changes: readonly AttributeChange[], frame: Frame): void {
    const { input } = this.fragment;
    const tag = { start: Math.max(element.start, 0), end: Math.max(element.startTagEnd, 0) };
    let ranges: Map<string, Range> | null = null;
    for (const { name, by, action, reason, after, piece, isAdded } of changes) {
      ranges ??= isAdded || element.start < 0 ? null : attributeRanges(input, element.start, element.startTagEnd);
      const range = isAdded ? undefined : ranges?.get(name);
      const place = (range !== undefined && piece !== undefined ? pieceIn(input, range, piece) : range) ?? tag;
      this.note(frame, element.name, by, action, reason, severityOfAttribute(name), place.start, place.end, place.end, after);
    }
  }

  /** What becomes of an element that shows nothing, now that all in it is done. */
  private closeEmpty(element: ElementNode, rule: CompiledElement, parent: Frame): void {
    const { emptyParagraphs } = this.rules;
    const empty = rule.demands?.empty ?? null;
    if (emptyParagraphs !== null && element.name === 'p') {
      if (emptyParagraphs.keep === 'none' || this.followsEmptyParagraph(element))
        return this.removeEmpty(element, parent, emptyParagraphs.by, 'empty-paragraph');
      this.emptyKept.add(element);
    }
    if (empty?.outcome === 'remove') return this.removeEmpty(element, parent, empty.by, 'empty-element');
    if (empty?.outcome === 'pad' && !PADLESS.has(element.name) && !element.children.some(isBreak)) {
      const br = this.rules.element('br');
      if (br.outcome !== 'keep' || br.name !== 'br' || br.demands !== null) return;
      append(element, new ElementNode('br', HTML_NAMESPACE, []));
      const at = Math.max(element.startTagEnd, 0);
      this.note(parent, element.name, empty.by, 'changed', 'empty-element', 'tidy', at, at, at, '<br>');
    }
  }

  private followsEmptyParagraph(element: ElementNode): boolean {
    const siblings = element.parent!.children;
    for (let i = siblings.length - 2; i >= 0; i--) {
      const sibling = siblings[i]!;
      if (sibling.type === 'element') return this.emptyKept.has(sibling);
      if (sibling.type === 'text' && hasLetters(sibling.value)) return false;
    }
    return false;
  }

  /** The element is the last of its parent's children, since nothing was put behind it yet. */
  private removeEmpty(element: ElementNode, parent: Frame, by: Authority, reason: Reason): void {
    element.parent!.children.pop();
    this.elementsKept--;
    const start = Math.max(element.start, 0);
    const end = Math.max(endOf(element), start);
    if (!isCopy(element) && element.start >= 0)
      this.note(parent, element.name, by, 'removed', reason, reason === 'empty-paragraph' ? 'change' : 'tidy', start, end, end);
  }

  /** A frame keeps nothing inside (HTML, section 4.8.5 "The iframe element"). */
  private hollow(element: ElementNode, frame: Frame): void {
    if (element.children.length > 0) {
      const { startTagEnd, endTagStart } = element;
      this.note(frame, 'iframe', FLOOR_DROP, 'removed', 'fallback-content', 'tidy', startTagEnd, endTagStart, endTagStart);
      element.children = [];
    }
  }

  private comment(comment: CommentNode, frame: Frame): void {
    const { keep, by } = this.rules.comments;
    const isSafe = !/^-?>|--!?>|<!--|--!?$|-$|^\[if|<|>/i.test(comment.data);
    if (keep && isSafe) {
      append(frame.target, comment);
      return;
    }
    const start = Math.max(comment.start, 0);
    // A comment that nobody closed ends with the input.
    const end = Math.min(Math.max(comment.end, 0), this.fragment.input.length);
    this.note(
      frame,
      '#comment',
      keep ? FLOOR_COMMENTS : by,
      'removed',
      keep ? 'comment-forbidden' : 'comment-not-allowed',
      'tidy',
      start,
      end,
      end,
    );
  }

  private reportElement(
    element: ElementNode,
    frame: Frame,
    action: 'removed' | 'unwrapped' | 'shown-as-text',
    by: Authority,
    reason: Reason,
    textLost: number,
  ): void {
    if (this.ledger === null) return;
    // One start tag that the parser made several elements from is one thing to the person who wrote it.
    if (isCopy(element) && textLost === 0) return;
    const severity = severityOfElement(element, action, textLost);
    if (element.start < 0) {
      const at = frame.source.type === 'element' ? Math.max(frame.source.startTagEnd, 0) : 0;
      this.note(frame, element.name, by, action, reason, severity, at, at, at, '', textLost);
      return;
    }
    const end = endOf(element);
    this.note(
      frame,
      element.name,
      by,
      action,
      reason,
      severity,
      element.start,
      end,
      action === 'removed' ? end : element.startTagEnd,
      '',
      textLost,
    );
  }

  private reportRenamed(element: ElementNode, original: string, rule: CompiledElement, frame: Frame): void {
    if (isCopy(element) || element.start < 0) return;
    const after = startTag(element);
    this.note(
      frame,
      original,
      rule.by,
      'renamed',
      rule.reason === 'heading-level' ? 'heading-level' : 'element-renamed',
      'change',
      element.start,
      endOf(element),
      element.startTagEnd,
      after,
    );
  }

  /** Adds one entry about the child that `frame` is at. */
  private note(
    frame: Frame,
    name: string,
    by: Authority,
    action: Action,
    reason: Reason,
    severity: Severity,
    start: number,
    end: number,
    beforeEnd: number,
    after = '',
    textLost = 0,
  ): void {
    this.ledger?.add(this.stage, { by, action, reason, severity, start, end, beforeEnd, path: this.pathOf(name, frame), after, textLost });
  }

  /** The path of the child that `frame` is at. */
  private pathOf(name: string, frame: Frame): string {
    const parent = this.framePath(this.frames.length - 1);
    const last = step(name, frame.elementsSeen, frame);
    return parent === '' ? last : `${parent} > ${last}`;
  }

  /** The path of the element whose children are walked at a depth; deep ones are cut, so that their sum stays linear. */
  private framePath(depth: number): string {
    const frame = this.frames[depth]!;
    if (frame.source.type !== 'element') return '';
    if (frame.path !== null) return frame.path;
    const own = step(frame.source.name, frame.nth, this.frames[depth - 1]!);
    if (depth % LONGEST_PATH === 0) return (frame.path = `… > ${own}`);
    const parent = this.framePath(depth - 1);
    return (frame.path = parent === '' ? own : `${parent} > ${own}`);
  }
}

function step(name: string, nth: number, parent: Frame): string {
  if (name.startsWith('#')) return name;
  if (parent.elementsInAll === -1) {
    let count = 0;
    for (const { type } of parent.children) if (type === 'element') count++;
    parent.elementsInAll = count;
  }
  return parent.elementsInAll > 1 ? `${name}:nth-child(${nth})` : name;
}

/** Elements that hold no line of their own to stand on. */
const PADLESS: ReadonlySet<string> = new Set('table thead tbody tfoot tr colgroup ul ol menu dl select optgroup picture'.split(' '));

function isBreak(node: ChildNode): boolean {
  return node.type === 'element' && node.name === 'br';
}

/** The place of a piece of an attribute's value, where the source shows the value as it is: without references. */
function pieceIn(input: string, { start, end }: Range, piece: Range): Range | undefined {
  const source = input.slice(start, end);
  const equals = /^[^=]*=[\t\n\f\r ]*["']?/.exec(source);
  if (equals === null || /[&\r\0]/.test(source)) return undefined;
  return { start: start + equals[0].length + piece.start, end: Math.min(end, start + equals[0].length + piece.end) };
}

const FORMATTING: ReadonlySet<string> = new Set('a b big code em font i nobr s small strike strong tt u'.split(' '));

/**
 * Whether the parser made an element in addition to the one that stands in the input: formatting that was reopened in the
 * next block or split around one (HTML, section 13.2.6.4.7, the adoption agency algorithm). The first one is reported.
 */
function isCopy(element: ElementNode): boolean {
  return element.isCopy || (element.start < 0 && FORMATTING.has(element.name));
}

function endOf(element: ElementNode): number {
  return element.end < 0 ? element.startTagEnd : element.end;
}

function severityOfElement(element: ElementNode, action: string, textLost: number): Severity {
  if (textLost > 0 || (REPLACED_ELEMENTS.has(element.name) && action !== 'shown-as-text')) return 'loss';
  if (action === 'shown-as-text') return 'change';
  return HIDDEN_ELEMENTS.has(element.name) || isBareWrapper(element) ? 'tidy' : 'change';
}

function isBareWrapper(element: ElementNode): boolean {
  return (element.name === 'span' || element.name === 'div' || element.name.includes(':')) && element.attributes.length === 0;
}

const NOTICED_ATTRIBUTES: ReadonlySet<string> = new Set([
  'href',
  'src',
  'style',
  'class',
  'align',
  'color',
  'bgcolor',
  'width',
  'height',
  'target',
  'start',
  'type',
  'colspan',
  'rowspan',
]);

function severityOfAttribute(name: string): Severity {
  return NOTICED_ATTRIBUTES.has(name) ? 'change' : 'tidy';
}
