import type { Reason } from './reasons';
import type { Subject } from './subject';
import type { Action, Layer, Severity, Stage } from './terms';

export type { Reason } from './reasons';
export type { Action, Layer, Severity, Stage } from './terms';

/** One thing that was changed or removed. */
export interface LedgerEntry {
  stage: Stage;
  layer: Layer;
  /** JSON Pointer (RFC 6901) into the resolved profile, into the house limits or into the safety floor, as `layer` says; empty for the HTML standard. */
  rule: string;
  /** The profile that set the rule, for the layers `profile` and `parent-profile`. */
  origin?: string;
  action: Action;
  /** What it was done to. */
  subject: Subject;
  /** UTF-16 offsets into the input text: the whole element, attribute or comment. */
  start: number;
  end: number;
  /** From 1. */
  line: number;
  /** From 1, in UTF-16 units. */
  column: number;
  /** Where in the tree, in the manner of a CSS selector: `ul > li:nth-child(2) > span`. */
  path: string;
  /** The source that stood there, cut after 500 characters. Of an unwrapped or renamed element its start tag. */
  before: string;
  /** What stands there now; empty for nothing. */
  after: string;
  /** Letters a reader could see that are gone (UTF-16 units that are not white space). */
  textLost: number;
  severity: Severity;
  reason: Reason;
  /** What is said beside the reason: what a guess rests on. */
  detail?: string;
}
