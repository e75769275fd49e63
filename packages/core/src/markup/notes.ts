import type { Boundary } from '../html/boundary';
import type { ChildNode, ElementNode, ParentNode } from '../html/node';
import type { ParsedFragment } from '../html/parse';
import { Tags, type Range } from '../html/positions';
import { startTag } from '../html/serialize';
import type { Action, Reason, Severity, Stage } from '../ledger/entry';
import type { Authority, Ledger } from '../ledger/ledger';
import { ofAttribute, ofElement, ofProperty, type Subject } from '../ledger/subject';
import type { AttributeChange } from './attributes';
import type { CompiledElement } from './compiled';
import { endOf, isCopy, pieceIn, placeWithin } from './place';
import { severityOfAttribute, severityOfElement } from './severity';

/** After so many steps a path begins anew with an ellipsis: enough to find the place, and linear on deep input. */
const LONGEST_PATH = 20;

/** One open element of the source: its children still to come, and the element of the result that receives them. */
export interface Frame {
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
  /** What parts it from the words behind it, where its tags went. */
  after: Boundary | null;
  /** Whether white space in here is as it was written, or else who took what kept it so; null where it never was. */
  lines: Cause | 'kept' | null;
}

/** Who took away what parted words, and where. */
export interface Cause {
  by: Authority;
  path: string;
}

/** Writes the entries of a walk: what was done to the child that a frame is at, with its place and its path. */
export class Notes {
  private readonly tags: Tags;

  constructor(
    private readonly fragment: ParsedFragment,
    private readonly ledger: Ledger | null,
    private readonly stage: Stage,
    /** The frames of the walk, from the root on. */
    private readonly frames: readonly Frame[],
  ) {
    this.tags = new Tags(fragment.input);
  }

  /** What became of an element and of what is in it. */
  element(
    element: ElementNode,
    frame: Frame,
    action: 'removed' | 'unwrapped' | 'shown-as-text',
    by: Authority,
    reason: Reason,
    textLost: number,
    subject: Subject = ofElement(element.name),
  ): void {
    if (this.ledger === null) return;
    // One start tag that the parser made several elements from is one thing to the person who wrote it.
    if (isCopy(element) && textLost === 0) return;
    const severity = severityOfElement(element, action, textLost);
    if (element.start < 0) {
      const { start, end } = placeWithin(element) ?? this.placeIn(frame);
      // Tags that were not there are not what went.
      this.add(frame, subject, by, action, reason, severity, start, end, action === 'removed' ? end : start, '', textLost);
      return;
    }
    const end = endOf(element);
    this.add(
      frame,
      subject,
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

  /** An element that has another name now. */
  renamed(element: ElementNode, original: string, rule: CompiledElement, frame: Frame, textLost: number): void {
    if (textLost === 0 && (isCopy(element) || element.start < 0)) return;
    const after = startTag(element);
    this.add(
      frame,
      ofElement(original),
      rule.by,
      'renamed',
      rule.reason === 'heading-level' ? 'heading-level' : 'element-renamed',
      textLost > 0 ? 'loss' : 'change',
      Math.max(element.start, 0),
      Math.max(endOf(element), 0),
      Math.max(element.startTagEnd, 0),
      after,
      textLost,
    );
  }

  /** What became of attributes; letters that are seen or hidden by it are told with the first. */
  attributes(element: ElementNode, changes: readonly AttributeChange[], frame: Frame, hidden: number): void {
    if (this.ledger === null) return;
    const { input } = this.fragment;
    const tag = element.start < 0 ? this.placeIn(frame) : { start: element.start, end: element.startTagEnd };
    let lost = hidden;
    for (const { name, property, value, host, by, action, reason, after, piece, isAdded } of changes) {
      const range = isAdded || element.start < 0 ? undefined : this.tags.attribute(element.start, element.startTagEnd, name);
      const place = (range !== undefined && piece !== undefined ? pieceIn(input, range, piece) : range) ?? tag;
      const severity = lost > 0 ? 'loss' : severityOfAttribute(name);
      const subject =
        property === undefined ? ofAttribute(element.name, name, value, host) : ofProperty(element.name, property, value ?? '');
      this.add(frame, subject, by, action, reason, severity, place.start, place.end, place.end, after, lost);
      lost = 0;
    }
  }

  /** Adds one entry about the child that `frame` is at. */
  add(
    frame: Frame,
    subject: Subject,
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
    if (this.ledger === null) return;
    const { kind, element } = subject;
    const path = this.pathOf(kind === 'text' ? '#text' : kind === 'comment' ? '#comment' : element, frame);
    this.ledger.add(this.stage, { by, action, subject, reason, severity, start, end, beforeEnd, path, after, textLost });
  }

  /** The place of the element whose children `frame` walks: that of something without a place of its own. */
  placeIn({ source }: Frame): Range {
    return source.type === 'element' && source.start >= 0
      ? { start: source.start, end: source.startTagEnd }
      : { start: 0, end: this.fragment.input.length };
  }

  /** The path of the child that `frame` is at. */
  pathOf(name: string, frame: Frame): string {
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
