import { isHidden } from '../html/display';
import type { ElementNode, FragmentNode, Node } from '../html/node';
import { startTag } from '../html/serialize';
import { visibleLetters } from '../html/text';
import { placeOfText } from '../html/text-place';
import type { Action, Reason, Severity } from '../ledger/entry';
import type { Authority, Ledger } from '../ledger/ledger';
import { ofAttribute, ofComment, ofElement, ofProperty, ofText, OF_CONTENT, type Subject } from '../ledger/subject';
import { hostOf } from '../markup/address';
import { URL_ATTRIBUTES } from '../markup/floor';
import type { PasteSource, PassId, PastePasses } from '../profile/paste-schema';
import type { Contents } from './contents';
import type { LooseDeclaration } from './declarations';
import type { PastedPicture, PictureBytes } from './pictures';
import type { PastedSheet } from './sheet';
import type { Changed } from './text-runs';

/** What a pass works on. */
export interface PassRun<Id extends PassId = PassId> {
  root: FragmentNode;
  settings: PastePasses[Id];
  source: PasteSource;
  /** The style sheets that came with the paste: they tell what lists and classes looked like. */
  sheet: PastedSheet;
  /** Begins the ids that a pass makes, so that those of two pastes never meet. */
  idPrefix: string;
  /** What the Enter key of the profile begins. */
  enter: 'paragraph' | 'break' | 'block';
  /** The classes that the profile's styles use. */
  styleClasses: ReadonlySet<string>;
  /** Whether a dictionary knows a word. */
  isWord: (word: string) => boolean;
  /** The pictures that the payload holds beside its markup, in order. */
  picturesBeside: () => readonly PictureBytes[];
  /** Takes a picture for the asset library. */
  keepPicture: (picture: PastedPicture) => void;
  report: Reporter;
}

/** One step of paste cleanup. It changes the tree, and reports each thing it changed. */
export interface Pass<Id extends PassId = PassId> {
  id: Id;
  /** Whether it would find something in what stands there; a pass that would not is not run. Without it, it is always run. */
  finds?(contents: Contents, run: Pick<PassRun<Id>, 'settings' | 'sheet'>): boolean;
  run(run: PassRun<Id>): void;
}

/** Reports what a pass did, in the name of its rule. */
export class Reporter {
  /** What it found but was not told to do. */
  offers = 0;
  /** The style attribute that declarations were told of last. */
  private style: StyleSource | null = null;

  constructor(
    private readonly ledger: Ledger,
    private readonly reason: Reason,
    private readonly by: Authority,
  ) {}

  /** An element whose tags went, its content stayed. */
  unwrapped(element: ElementNode, reason = this.reason): void {
    this.element(element, 'unwrapped', 'tidy', 0, '', element.name, reason);
  }

  /** A node that went with all it held. */
  removed(node: Node, severity: Severity = 'tidy', reason = this.reason, detail?: string): void {
    const lost = visibleLetters(node);
    if (node.type === 'element') this.element(node, 'removed', lost > 0 ? 'loss' : severity, lost, '', node.name, reason, detail);
    else this.place(node, 'removed', lost > 0 ? 'loss' : severity, lost, '', reason);
  }

  /** An element that became another; called once it has. */
  renamed(element: ElementNode, before: string, textLost = 0, reason = this.reason, detail?: string): void {
    this.element(element, 'renamed', 'change', textLost, startTag(element), before, reason, detail);
  }

  /** Something in an element or a text that is otherwise than before. */
  changed(node: Node, after: string, severity: Severity = 'tidy', textLost = 0, reason = this.reason, subject?: Subject): void {
    if (node.type === 'element') this.element(node, 'changed', severity, textLost, after, node.name, reason, undefined, subject);
    else this.place(node, 'changed', severity, textLost, after, reason);
  }

  /** Characters of a text that went or became others; they are told by the place that they stood at, and by their name where one is given. */
  characters(
    { node, place }: Changed,
    after: string,
    severity: Severity = 'tidy',
    textLost = 0,
    reason = this.reason,
    name?: string,
  ): void {
    const path = node.parent?.type === 'element' ? node.parent.name : '';
    const subject = name === undefined ? ofText(path) : { ...ofText(path), name };
    const { start, end } =
      place !== null && place.end > place.start ? place : (ownPlace(node) ?? placeNear(node, this.ledger.input.length));
    this.add(path, subject, 'changed', reason, severity, start, end, end, after, textLost);
  }

  /** An element whose tags are to go: what hides its words, or says that they are deleted, takes them along. Gives what becomes of it. */
  unwrap(element: ElementNode, reason = this.reason): 'unwrap' | 'drop' {
    if (isHidden(element) || element.name === 'del') {
      this.removed(element, 'change', reason);
      return 'drop';
    }
    this.unwrapped(element, reason);
    return 'unwrap';
  }

  /** An attribute that went, or stands there otherwise. */
  attribute(element: ElementNode, name: string, after = '', severity: Severity = 'tidy', reason: Reason = this.reason): void {
    const [start, tagEnd] = tagOf(element, this.ledger.input.length);
    const range = this.ledger.tags.attribute(start, tagEnd, name);
    // An attribute that an earlier pass put there has no place of its own.
    const at = range ?? { start, end: tagEnd };
    const value = element.attribute(name);
    this.add(
      element.name,
      ofAttribute(element.name, name, value, value !== undefined && URL_ATTRIBUTES.has(name) ? hostOf(value) : null),
      after === '' && range !== undefined ? 'removed' : 'changed',
      reason,
      severity,
      at.start,
      at.end,
      at.end,
      after,
      0,
    );
  }

  /** A declaration of inline style that went; those of one element are told in the order in which they stand. */
  declaration(element: ElementNode, declaration: LooseDeclaration, severity: Severity, reason = this.reason): void {
    if (this.style?.element !== element) this.style = new StyleSource(element, this.ledger);
    const place = this.style.placeOf(declaration);
    const subject = ofProperty(element.name, declaration.property, declaration.value);
    if (place === null) {
      const [start, tagEnd] = tagOf(element, this.ledger.input.length);
      this.add(element.name, subject, 'changed', reason, severity, start, tagEnd, tagEnd, '', 0);
    } else this.add(element.name, subject, 'removed', reason, severity, place.start, place.end, place.end, '', 0);
  }

  private element(
    element: ElementNode,
    action: Action,
    severity: Severity,
    textLost: number,
    after: string,
    name = element.name,
    reason = this.reason,
    detail?: string,
    subject: Subject = ofElement(name),
  ): void {
    if (element.start < 0 || element.startTagEnd <= element.start) {
      // An element that a stage or the parser made is told by what it holds, or by what holds it.
      const { start, end } = element.start >= 0 && element.end > element.start ? element : placeNear(element, this.ledger.input.length);
      this.add(name, subject, action, reason, severity, start, end, end, after, textLost, detail);
      return;
    }
    const [start, tagEnd] = tagOf(element, this.ledger.input.length);
    const end = Math.max(tagEnd, element.end);
    this.add(
      name,
      subject,
      action,
      reason,
      severity,
      start,
      action === 'changed' ? tagEnd : end,
      action === 'removed' ? end : tagEnd,
      after,
      textLost,
      detail,
    );
  }

  private place(node: Node, action: Action, severity: Severity, textLost: number, after: string, reason: Reason): void {
    const own = node.type === 'text' ? placeOfText(node) : node.type === 'comment' && node.start >= 0 ? node : null;
    const parent = node.parent?.type === 'element' ? node.parent.name : '';
    const path = node.type === 'comment' ? '#comment' : parent;
    const subject = node.type === 'comment' ? ofComment(parent) : node.type === 'text' ? ofText(parent) : OF_CONTENT;
    // What has no place of its own is told by that of the nearest thing that has: beside it, or around it.
    const { start, end } = own !== null && own.end > own.start ? own : placeNear(node, this.ledger.input.length);
    // A comment that nobody closed ends with the input.
    const until = Math.min(end, this.ledger.input.length);
    this.add(path, subject, action, reason, severity, start, until, until, after, textLost);
  }

  private add(
    path: string,
    subject: Subject,
    action: Action,
    reason: Reason,
    severity: Severity,
    start: number,
    end: number,
    beforeEnd: number,
    after: string,
    textLost: number,
    detail?: string,
  ): void {
    this.ledger.add('paste', { by: this.by, action, subject, reason, severity, start, end, beforeEnd, path, after, textLost, detail });
  }
}

/** The place of an element's start tag in the input; of one that was not there, that of the nearest thing that was. */
function tagOf(element: ElementNode, length: number): [start: number, tagEnd: number] {
  if (element.start >= 0 && element.startTagEnd > element.start) return [element.start, element.startTagEnd];
  const { start, end } = placeNear(element, length);
  return [start, end];
}

/** So far around a node its place is looked for. */
const NEAR = 50;

/** The place of the nearest thing that was in the input: in a node, beside it, or around it. */
function placeNear(node: Node, length: number): { start: number; end: number } {
  if (node.type === 'element') {
    let steps = 0;
    const stack: Node[] = node.children.slice(0, NEAR).reverse();
    for (let inner = stack.pop(); inner !== undefined && steps < NEAR; inner = stack.pop(), steps++) {
      const place = ownPlace(inner);
      if (place !== null) return place;
      if (inner.type === 'element') stack.push(...inner.children.slice(0, NEAR).reverse());
    }
  }
  let around: Node = node;
  for (let up = 0; around.parent !== null && up < NEAR; up++) {
    const { children } = around.parent;
    const at = children.length <= NEAR ? children.indexOf(around) : -1;
    for (let i = 1; at !== -1 && i < NEAR; i++)
      for (const beside of [children[at - i], children[at + i]]) {
        const place = beside === undefined ? null : ownPlace(beside);
        if (place !== null) return place;
      }
    around = around.parent;
    const place = ownPlace(around);
    if (place !== null) return place;
  }
  return { start: 0, end: length };
}

function ownPlace(node: Node): { start: number; end: number } | null {
  if (node.type === 'fragment' || node.start < 0) return null;
  const end = node.type === 'element' ? node.startTagEnd : node.end;
  return end > node.start ? { start: node.start, end } : null;
}

/** So many declarations may be searched for in vain in one attribute: values that are written with references are not found. */
const MOST_MISSES = 50;

/** The source of a style attribute, in which declarations are looked for one after another. */
class StyleSource {
  private readonly start: number;
  private readonly source: string;
  private readonly lower: string;
  private from = 0;
  private misses = 0;

  constructor(
    readonly element: ElementNode,
    { input, tags }: Ledger,
  ) {
    const [start, tagEnd] = tagOf(element, input.length);
    const range = tags.attribute(start, tagEnd, 'style');
    this.start = range?.start ?? 0;
    this.source = range === undefined ? '' : input.slice(range.start, range.end);
    this.lower = this.source.toLowerCase();
  }

  /** Where a declaration stands in the input, as it was written there; null where it is not found. */
  placeOf({ property, value }: LooseDeclaration): { start: number; end: number } | null {
    if (this.misses > MOST_MISSES) return null;
    for (let at = this.lower.indexOf(property, this.from); at !== -1; at = this.lower.indexOf(property, at + 1)) {
      const before = this.source[at - 1];
      if (before !== undefined && /[\w-]/.test(before)) continue;
      const after = at + property.length;
      const colon = after + (/^\s*/.exec(this.source.slice(after, after + 8))?.[0].length ?? 0);
      if (this.source[colon] !== ':') continue;
      const close = this.source.slice(colon, colon + value.length + 8).indexOf(value);
      const end = value === '' || close === -1 ? colon + 1 : colon + close + value.length;
      this.from = end;
      return { start: this.start + at, end: this.start + end };
    }
    this.misses++;
    return null;
  }
}
