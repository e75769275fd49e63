import type { Cause, ContentToCompare, ContestTable, LikenessInput, Repair } from '@typikon/core';

/** What the worker can be asked to do. */
export type LikenessTask =
  | { kind: 'compare'; input: LikenessInput; documents: readonly ContentToCompare[]; files: readonly string[] }
  | { kind: 'repairs'; cause: string }
  | { kind: 'try'; repair: Repair; cause: string }
  | { kind: 'contest'; document: string; index: number; pseudo: string; property: string };

export interface LikenessSummary {
  elements: number;
  alike: number;
  documents: number;
  documentsUnlike: number;
  causes: Cause[];
  /** How long the comparison took, in milliseconds. */
  ms: number;
}

/** The contest for one property in both settings. */
export interface TwoContests {
  editor: ContestTable | null;
  page: ContestTable | null;
}
