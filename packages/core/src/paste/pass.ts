import type { ElementNode, FragmentNode, Node } from '../html/node';
import { startTag } from '../html/serialize';
import { visibleLetters } from '../html/text';
import type { Action, Reason, Severity } from '../ledger/entry';
import type { Authority, Ledger } from '../ledger/ledger';
import type { PasteSource, PassId, PastePasses } from '../profile/paste-schema';

/** What a pass works on. */
export interface PassRun<Id extends PassId = PassId> {
  root: FragmentNode;
  settings: PastePasses[Id];
  source: PasteSource;
  /** The text of all style sheets that came with the paste: they tell what lists looked like. */
  styles: string;
  /** Begins the ids that a pass makes, so that those of two pastes never meet. */
  idPrefix: string;
  report: Reporter;
}

/** One step of paste cleanup. It changes the tree, and reports each thing it changed. */
export interface Pass<Id extends PassId = PassId> {
  id: Id;
  label: string;
  /** What it does to the author's content, in a sentence. */
  effect: string;
  run(run: PassRun<Id>): void;
}

/** Reports what a pass did, in the name of its rule. */
export class Reporter {
  constructor(
    private readonly ledger: Ledger,
    private readonly reason: Reason,
    private readonly by: Authority,
  ) {}

  /** An element whose tags went, its content stayed. */
  unwrapped(element: ElementNode): void {
    this.element(element, 'unwrapped', 'tidy', 0, '');
  }
  /** A node that went with all it held. */
  removed(node: Node, severity: Severity = 'tidy'): void {
    const lost = visibleLetters(node);
    if (node.type === 'element') this.element(node, 'removed', lost > 0 ? 'loss' : severity, lost, '');
    else this.place(node, 'removed', lost > 0 ? 'loss' : severity, lost);
  }
  /** An element that became another; called once it has. */
  renamed(element: ElementNode, before: string, textLost = 0): void {
    this.element(element, 'renamed', 'change', textLost, startTag(element), before);
  }
  /** Something in an element or a text that is otherwise than before. */
  changed(node: Node, after: string, severity: Severity = 'tidy', textLost = 0): void {
    if (node.type === 'element') this.element(node, 'changed', severity, textLost, after);
    else this.place(node, 'changed', severity, textLost, after);
  }

  private element(element: ElementNode, action: Action, severity: Severity, textLost: number, after: string, name = element.name): void {
    const start = Math.max(0, element.start);
    const tagEnd = Math.max(start, element.startTagEnd);
    const end = Math.max(tagEnd, element.end);
    this.ledger.add('paste', {
      by: this.by,
      action,
      reason: this.reason,
      severity,
      start,
      end: action === 'changed' ? tagEnd : end,
      beforeEnd: action === 'removed' ? end : tagEnd,
      path: name,
      after,
      textLost,
    });
  }

  private place(node: Node, action: Action, severity: Severity, textLost: number, after = ''): void {
    const placed = node.type === 'text' || node.type === 'comment' ? node : null;
    const parent = node.parent?.type === 'element' ? node.parent : null;
    const start = placed !== null && placed.start >= 0 ? placed.start : Math.max(0, parent?.startTagEnd ?? 0);
    // A comment that nobody closed ends with the input.
    const end = Math.min(placed !== null && placed.end >= start ? placed.end : start, this.ledger.input.length);
    const path = node.type === 'comment' ? '#comment' : (parent?.name ?? '');
    this.ledger.add('paste', { by: this.by, action, reason: this.reason, severity, start, end, beforeEnd: end, path, after, textLost });
  }
}
