import { Lines } from '../html/positions';
import type { Action, Layer, LedgerEntry, Reason, Severity, Stage } from './entry';

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
}

const LONGEST_SOURCE = 500;

/** The record of one run. Stages add to it in the order in which they work. */
export class Ledger {
  private readonly reports: Report[] = [];
  private readonly stages: Stage[] = [];
  private lines: Lines | null = null;

  /** @param input the text that every offset counts in */
  constructor(readonly input: string) {}

  add(stage: Stage, report: Report): void {
    this.stages.push(stage);
    this.reports.push(report);
  }

  /** All entries, complete, in the order in which they were reported. */
  entries(): LedgerEntry[] {
    const lines = (this.lines ??= new Lines(this.input));
    return this.reports.map((report, index) => {
      const { by, action, start, end, path, after, textLost, severity, reason } = report;
      const { line, column } = lines.at(start);
      const before = cut(this.input, start, report.beforeEnd);
      const stage = this.stages[index]!;
      const { layer, rule, origin } = by;
      // Two literals instead of one with a spread: the shape of the entries stays fixed, which is several times as fast.
      return origin === undefined
        ? { stage, layer, rule, action, start, end, line, column, path, before, after, textLost, severity, reason }
        : { stage, layer, rule, origin, action, start, end, line, column, path, before, after, textLost, severity, reason };
    });
  }
}

function cut(input: string, start: number, end: number): string {
  return end - start <= LONGEST_SOURCE ? input.slice(start, end) : `${input.slice(start, start + LONGEST_SOURCE)}…`;
}
