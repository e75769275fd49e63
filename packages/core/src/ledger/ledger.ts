import { Lines, Tags } from '../html/positions';
import type { Action, Layer, LedgerEntry, Reason, Severity, Stage } from './entry';
import type { Subject } from './subject';

/** Who decided, as it stands in a ledger entry. */
export interface Authority {
  layer: Layer;
  /** JSON Pointer into the document that `layer` says. */
  rule: string;
  /** The profile that set the rule. */
  origin?: string;
}

/** What a stage reports; the ledger adds the stage, the line, the column and the source. */
export interface Report {
  by: Authority;
  action: Action;
  subject: Subject;
  reason: Reason;
  severity: Severity;
  /** UTF-16 offsets into the input. */
  start: number;
  end: number;
  /** End of the source shown as `before`: that of the start tag, where the whole is an element that is not removed whole. */
  beforeEnd: number;
  path: string;
  after: string;
  textLost: number;
  /** What is said beside the reason: what a guess rests on. */
  detail?: string | undefined;
}

const LONGEST_SOURCE = 500;

/** The record of one run. Stages add to it in the order in which they work. */
export class Ledger {
  private readonly all: LedgerEntry[] = [];
  private readonly lines: Lines;
  /** Where attributes stand in the input, for those who report them. */
  readonly tags: Tags;

  /** @param input the text that every offset counts in */
  constructor(readonly input: string) {
    this.lines = new Lines(input);
    this.tags = new Tags(input);
  }

  /** Adds one entry. The entry is made here and now, since keeping the report for later would cost a second object for each. */
  add(stage: Stage, report: Report): void {
    const { by, action, subject, reason, severity, start, end, beforeEnd, path, after, textLost } = report;
    const { layer, rule, origin } = by;
    const { line, column } = this.lines.at(start);
    const before = cut(this.input, start, beforeEnd);
    // Two literals instead of one with a spread: the shape of the entries stays fixed, which is several times as fast.
    this.all.push(
      origin === undefined
        ? { stage, layer, rule, action, subject, start, end, line, column, path, before, after, textLost, severity, reason }
        : { stage, layer, rule, origin, action, subject, start, end, line, column, path, before, after, textLost, severity, reason },
    );
    if (report.detail !== undefined) this.all[this.all.length - 1]!.detail = report.detail;
  }

  /** Takes back all entries but the first ones. */
  forget(kept: number): void {
    this.all.length = Math.min(kept, this.all.length);
  }

  /** All entries, in the order in which they were reported. */
  entries(): LedgerEntry[] {
    return this.all;
  }
}

function cut(input: string, start: number, end: number): string {
  return end - start <= LONGEST_SOURCE ? input.slice(start, end) : `${input.slice(start, start + LONGEST_SOURCE)}…`;
}
