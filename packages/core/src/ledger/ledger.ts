import { Lines } from '../html/positions';
import type { LedgerEntry, Stage } from './entry';

/** What a stage reports; the ledger adds the stage, the line, the column and the source. */
export type Report = Omit<LedgerEntry, 'stage' | 'line' | 'column' | 'before'> & {
  /** End of the source shown as `before`, where that is shorter than the whole (an element's start tag). */
  beforeEnd?: number;
};

const LONGEST_SOURCE = 500;

/** The record of one run. Stages add to it in the order in which they work. */
export class Ledger {
  private readonly reports: { stage: Stage; report: Report; input: string }[] = [];

  get size(): number {
    return this.reports.length;
  }

  /**
   * @param stage the reporting stage
   * @param input the text that the report's offsets count in
   */
  add(stage: Stage, input: string, report: Report): void {
    this.reports.push({ stage, report, input });
  }

  /** All entries, complete, in the order in which they were reported. */
  entries(): LedgerEntry[] {
    const linesOf = new Map<string, Lines>();
    return this.reports.map(({ stage, report, input }) => {
      let lines = linesOf.get(input);
      if (lines === undefined) linesOf.set(input, (lines = new Lines(input)));
      const { beforeEnd, layer, rule, origin, action, start, end, path, after, textLost, severity, reason } = report;
      return {
        stage,
        layer,
        rule,
        ...(origin === undefined ? {} : { origin }),
        action,
        start,
        end,
        ...lines.at(start),
        path,
        before: cut(input, start, beforeEnd ?? end),
        after,
        textLost,
        severity,
        reason,
      };
    });
  }
}

function cut(input: string, start: number, end: number): string {
  return end - start <= LONGEST_SOURCE ? input.slice(start, end) : `${input.slice(start, start + LONGEST_SOURCE)}…`;
}
