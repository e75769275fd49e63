import type { ElementNode, FragmentNode, Node } from '../html/node';
import { attributeRanges } from '../html/positions';
import { startTag } from '../html/serialize';
import { visibleLetters } from '../html/text';
import type { Action, Reason, Severity } from '../ledger/entry';
import type { Authority, Ledger } from '../ledger/ledger';
import type { PasteSource, PassId, PastePasses } from '../profile/paste-schema';
import type { LooseDeclaration } from './declarations';
import type { PastedPicture, PictureBytes } from './pictures';
import type { PastedSheet } from './sheet';

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
  isWord(word: string): boolean;
  /** The pictures that the payload holds beside its markup, in order. */
  picturesBeside(): readonly PictureBytes[];
  /** Takes a picture for the asset library. */
  keepPicture(picture: PastedPicture): void;
  report: Reporter;
}

/** One step of paste cleanup. It changes the tree, and reports each thing it changed. */
export interface Pass<Id extends PassId = PassId> {
  id: Id;
  label: string;
  /** What it does to the author's content, in a sentence. */
  effect: string;
  /** How its work is counted: "lists", "declarations". */
  unit: readonly [one: string, many: string];
  run(run: PassRun<Id>): void;
}

/** Reports what a pass did, in the name of its rule. */
export class Reporter {
  /** What it found but was not told to do. */
  offers = 0;

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
  removed(node: Node, severity: Severity = 'tidy', reason = this.reason): void {
    const lost = visibleLetters(node);
    if (node.type === 'element') this.element(node, 'removed', lost > 0 ? 'loss' : severity, lost, '', node.name, reason);
    else this.place(node, 'removed', lost > 0 ? 'loss' : severity, lost, '', reason);
  }

  /** An element that became another; called once it has. */
  renamed(element: ElementNode, before: string, textLost = 0, reason = this.reason): void {
    this.element(element, 'renamed', 'change', textLost, startTag(element), before, reason);
  }

  /** Something in an element or a text that is otherwise than before. */
  changed(node: Node, after: string, severity: Severity = 'tidy', textLost = 0, reason = this.reason): void {
    if (node.type === 'element') this.element(node, 'changed', severity, textLost, after, node.name, reason);
    else this.place(node, 'changed', severity, textLost, after, reason);
  }

  /** An attribute that went, or stands there otherwise. */
  attribute(element: ElementNode, name: string, after = '', severity: Severity = 'tidy', reason: Reason = this.reason): void {
    const [start, tagEnd] = tagOf(element);
    const range = attributeRanges(this.ledger.input, start, tagEnd).get(name);
    // An attribute that an earlier pass put there has no place of its own.
    const at = range ?? { start, end: tagEnd };
    this.add(
      element.name,
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

  /** A declaration of inline style that went. */
  declaration(element: ElementNode, { property, value }: LooseDeclaration, severity: Severity): void {
    const [start, tagEnd] = tagOf(element);
    const range = attributeRanges(this.ledger.input, start, tagEnd).get('style');
    const source = range === undefined ? '' : this.ledger.input.slice(range.start, range.end);
    const at = placeOfDeclaration(source, property, value);
    if (range === undefined || at === null) {
      this.add(element.name, 'changed', this.reason, severity, start, tagEnd, tagEnd, '', 0);
      return;
    }
    const [from, to] = [range.start + at.start, range.start + at.end];
    this.add(element.name, 'removed', this.reason, severity, from, to, to, '', 0);
  }

  private element(
    element: ElementNode,
    action: Action,
    severity: Severity,
    textLost: number,
    after: string,
    name = element.name,
    reason = this.reason,
  ): void {
    const [start, tagEnd] = tagOf(element);
    const end = Math.max(tagEnd, element.end);
    this.add(
      name,
      action,
      reason,
      severity,
      start,
      action === 'changed' ? tagEnd : end,
      action === 'removed' ? end : tagEnd,
      after,
      textLost,
    );
  }

  private place(node: Node, action: Action, severity: Severity, textLost: number, after: string, reason: Reason): void {
    const placed = node.type === 'text' || node.type === 'comment' ? node : null;
    const parent = node.parent?.type === 'element' ? node.parent : null;
    const start = placed !== null && placed.start >= 0 ? placed.start : Math.max(0, parent?.startTagEnd ?? 0);
    // A comment that nobody closed ends with the input.
    const end = Math.min(placed !== null && placed.end >= start ? placed.end : start, this.ledger.input.length);
    const path = node.type === 'comment' ? '#comment' : (parent?.name ?? '');
    this.add(path, action, reason, severity, start, end, end, after, textLost);
  }

  private add(
    path: string,
    action: Action,
    reason: Reason,
    severity: Severity,
    start: number,
    end: number,
    beforeEnd: number,
    after: string,
    textLost: number,
  ): void {
    this.ledger.add('paste', { by: this.by, action, reason, severity, start, end, beforeEnd, path, after, textLost });
  }
}

/** The place of an element's start tag in the input. */
function tagOf(element: ElementNode): [start: number, tagEnd: number] {
  const start = Math.max(0, element.start);
  return [start, Math.max(start, element.startTagEnd)];
}

/** Where a declaration stands in the source of a style attribute, as it was written there. */
function placeOfDeclaration(source: string, property: string, value: string): { start: number; end: number } | null {
  const lower = source.toLowerCase();
  for (let at = lower.indexOf(property); at !== -1; at = lower.indexOf(property, at + 1)) {
    const before = source[at - 1];
    if (before !== undefined && /[\w-]/.test(before)) continue;
    const colon = at + property.length + (/^\s*/.exec(source.slice(at + property.length, at + property.length + 8))?.[0].length ?? 0);
    if (source[colon] !== ':') continue;
    const place = source.indexOf(value, colon);
    // A value that is written with references is not found so; the name says enough.
    return { start: at, end: place === -1 || value === '' ? colon + 1 : place + value.length };
  }
  return null;
}
