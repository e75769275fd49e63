import { HIDDEN_ELEMENTS, NOTHING_WITHOUT_SOURCE, REPLACED_ELEMENTS, VOID_ELEMENTS } from '../html/elements';
import {
  append,
  type Attribute,
  type ChildNode,
  type CommentNode,
  type ElementNode,
  HTML_NAMESPACE,
  type ParentNode,
  TextNode,
} from '../html/node';
import type { ParsedFragment } from '../html/parse';
import { attributeRanges, type Range } from '../html/positions';
import { startTag } from '../html/serialize';
import { visibleLetters } from '../html/text';
import type { Action, Reason, Severity, Stage } from '../ledger/entry';
import type { Authority, Ledger } from '../ledger/ledger';
import { isAddressSafe } from './attribute-test';
import { isAttributeForbidden, type CompiledElement, type CompiledRules } from './compile';
import { SAFETY_FLOOR, URL_ATTRIBUTES } from './floor';

const FLOOR_ATTRIBUTES: Authority = { layer: 'safety-floor', rule: '/attributes' };
const FLOOR_SCHEMES: Authority = { layer: 'safety-floor', rule: '/schemes' };
const FLOOR_FRAME: Authority = { layer: 'safety-floor', rule: '/frame/sandbox' };
const FLOOR_COMMENTS: Authority = { layer: 'safety-floor', rule: '/comments' };
const FLOOR_DROP: Authority = { layer: 'safety-floor', rule: '/elements/drop' };

/** After so many steps a path begins anew with an ellipsis: enough to find the place, and linear on deep input. */
const LONGEST_PATH = 20;

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
  new Walk(fragment, rules, ledger, stage).run();
}

class Walk {
  private readonly frames: Frame[] = [];

  constructor(
    private readonly fragment: ParsedFragment,
    private readonly rules: CompiledRules,
    private readonly ledger: Ledger | null,
    private readonly stage: Stage,
  ) {}

  run(): void {
    const { root } = this.fragment;
    this.open(root, root, 0, '', 0);
    while (this.frames.length > 0) {
      const frame = this.frames[this.frames.length - 1]!;
      if (frame.next === frame.children.length) {
        this.frames.pop();
        if (frame.endText !== '') append(frame.target, new TextNode(frame.endText));
        continue;
      }
      const child = frame.children[frame.next++]!;
      if (child.type === 'text') append(frame.target, child);
      else if (child.type === 'comment') this.comment(child, frame);
      else {
        frame.elementsSeen++;
        this.element(child, frame);
      }
    }
  }

  /** Takes the children off a source element and begins to walk them into `target`. */
  private open(source: ParentNode, target: ParentNode, depth: number, endText: string, nth: number): void {
    const { children } = source;
    source.children = [];
    this.frames.push({ source, children, next: 0, elementsSeen: 0, elementsInAll: -1, target, depth, endText, nth, path: null });
  }

  private element(element: ElementNode, frame: Frame): void {
    const rule = element.namespace === HTML_NAMESPACE ? this.rules.element(element.name) : this.rules.foreign;
    if (rule.outcome === 'keep') {
      if (frame.depth < this.rules.nesting.limit) this.keep(element, rule, frame);
      else {
        this.reportElement(element, frame, 'unwrapped', this.rules.nesting.by, 'nesting-limit', 0);
        this.open(element, frame.target, frame.depth, '', frame.elementsSeen);
      }
    } else if (rule.outcome === 'drop' || (rule.outcome === 'unwrap' && HIDDEN_ELEMENTS.has(element.name))) {
      // What an element hid from readers must not turn up on the page when only its tags go.
      this.reportElement(element, frame, 'removed', rule.by, rule.reason, visibleLetters(element));
    } else if (rule.outcome === 'text' && element.start >= 0 && !element.isCopy) {
      this.reportElement(element, frame, 'shown-as-text', rule.by, 'element-shown-as-text', 0);
      const { input } = this.fragment;
      append(frame.target, new TextNode(input.slice(element.start, element.startTagEnd)));
      this.open(element, frame.target, frame.depth, input.slice(element.endTagStart, element.end), frame.elementsSeen);
    } else {
      this.reportElement(element, frame, 'unwrapped', rule.by, rule.reason, 0);
      this.open(element, frame.target, frame.depth, '', frame.elementsSeen);
    }
  }

  private keep(element: ElementNode, rule: CompiledElement, frame: Frame): void {
    const original = element.name;
    const kept = this.attributes(element, rule, frame);
    if (kept === 'refused') return;
    element.attributes = kept;
    if (rule.name !== original) {
      element.name = rule.name;
      if (this.ledger !== null) this.reportRenamed(element, original, rule, frame);
    }
    append(frame.target, element);
    if (element.name === 'iframe') this.enclose(element, frame);
    else if (VOID_ELEMENTS.has(element.name) && element.children.length > 0) {
      // A void element holds nothing; what was in the element renamed to it follows it.
      this.open(element, frame.target, frame.depth, '', frame.elementsSeen);
    } else if (element.children.length > 0) this.open(element, element, frame.depth + 1, '', frame.elementsSeen);
  }

  /** The attributes that stay, or 'refused' where the element shows nothing without one that goes. */
  private attributes(element: ElementNode, rule: CompiledElement, frame: Frame): Attribute[] | 'refused' {
    const { attributes } = element;
    if (attributes.length === 0) return attributes;
    let ranges: Map<string, Range> | null = null;
    let changed: Attribute[] | null = null;
    for (let i = 0; i < attributes.length; i++) {
      const attribute = attributes[i]!;
      const { name, value } = attribute;
      const judgement = judge(rule, name, value);
      if (judgement === null) {
        changed?.push(attribute);
        continue;
      }
      changed ??= attributes.slice(0, i);
      if (judgement.keep !== undefined) changed.push({ name, value: judgement.keep });
      if (judgement.keep === undefined && name === 'src' && NOTHING_WITHOUT_SOURCE.has(rule.name)) {
        this.reportElement(element, frame, 'removed', judgement.by, judgement.reason, visibleLetters(element));
        return 'refused';
      }
      if (this.ledger !== null && !isCopy(element)) {
        ranges ??= attributeRanges(this.fragment.input, element.start, element.startTagEnd);
        const { start, end } = ranges.get(name) ?? { start: element.start, end: element.startTagEnd };
        const isGone = judgement.keep === undefined;
        const after = isGone ? '' : `${name}="${judgement.keep}"`;
        this.note(
          frame,
          element.name,
          judgement.by,
          isGone ? 'removed' : 'changed',
          judgement.reason,
          severityOfAttribute(name),
          start,
          end,
          end,
          after,
        );
      }
    }
    return changed ?? attributes;
  }

  /** A frame keeps nothing inside and is always sandboxed (HTML, section 4.8.5 "The iframe element"). */
  private enclose(element: ElementNode, frame: Frame): void {
    if (element.children.length > 0) {
      const { startTagEnd, endTagStart } = element;
      this.note(frame, 'iframe', FLOOR_DROP, 'removed', 'fallback-content', 'tidy', startTagEnd, endTagStart, endTagStart);
      element.children = [];
    }
    if (element.attribute('sandbox') !== undefined) return;
    const { sandbox } = SAFETY_FLOOR.frame;
    element.attributes = [...element.attributes, { name: 'sandbox', value: sandbox }];
    const { start, startTagEnd } = element;
    this.note(frame, 'iframe', FLOOR_FRAME, 'changed', 'attribute-forced', 'tidy', start, startTagEnd, startTagEnd, `sandbox="${sandbox}"`);
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
    this.note(frame, original, rule.by, 'renamed', 'element-renamed', 'change', element.start, endOf(element), element.startTagEnd, after);
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
  if (name === '#comment') return name;
  if (parent.elementsInAll === -1) {
    let count = 0;
    for (const { type } of parent.children) if (type === 'element') count++;
    parent.elementsInAll = count;
  }
  return parent.elementsInAll > 1 ? `${name}:nth-child(${nth})` : name;
}

/** What happens to an attribute that does not stay as it is. */
interface Judgement {
  /** The value to keep; undefined where the attribute goes. */
  keep: string | undefined;
  by: Authority;
  reason: Reason;
}

/** Judges one attribute; null says that it stays as it is. */
function judge(rule: CompiledElement, name: string, value: string): Judgement | null {
  if (URL_ATTRIBUTES.has(name) && !isAddressSafe(rule.name, name, value))
    return { keep: undefined, by: FLOOR_SCHEMES, reason: 'address-runs-code' };
  const attribute = rule.attributes.get(name);
  // Compiled rules never hold an attribute that the floor forbids.
  if (attribute === undefined && isAttributeForbidden(name))
    return { keep: undefined, by: FLOOR_ATTRIBUTES, reason: 'attribute-forbidden' };
  if (attribute === undefined) return { keep: undefined, by: rule.otherAttributes(name), reason: 'attribute-not-allowed' };
  let kept = value;
  let by: Authority | null = null;
  for (const test of attribute.tests) {
    const verdict = test.judge(kept);
    if ('refuse' in verdict) return { keep: undefined, by: test.by, reason: verdict.refuse };
    if (verdict.keep !== kept) by = test.by;
    kept = verdict.keep;
  }
  return by === null ? null : { keep: kept, by, reason: 'value-not-allowed' };
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
