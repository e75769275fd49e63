import type { Reason } from '../ledger/entry';

/** A piece of a value that goes while the rest may stay: a style declaration. */
export interface Piece {
  /** UTF-16 offsets into the value. */
  start: number;
  end: number;
  property: string;
  /** The value of the property, as it is written anew. */
  value: string;
  reason: Reason;
  /** Keys below the attribute's rule that lead to the rule that decided. */
  keys: readonly string[];
  /** What stands there now; empty for nothing. */
  after: string;
}

/** What a test says of a value: it stays, it stays in part, or it goes and why. */
export type Verdict = { keep: string; pieces?: readonly Piece[] } | { refuse: Reason; pieces?: readonly Piece[] };

/** Judges one value of an attribute. */
export type CompiledTest = (value: string) => Verdict;
