import type { Cause, ContentToCompare, ContestTable, LikenessInput, Repair, Setting, TextLook } from '@typikon/core';

/** What the worker can be asked to do. */
export type LikenessTask =
  | { kind: 'compare'; input: LikenessInput; documents: readonly ContentToCompare[]; files: readonly string[] }
  /** How texts look on a page before and after; `of` names the two settings, so that what was learnt of them is kept. */
  | { kind: 'looks'; of: string; before: Setting; after: Setting; texts: readonly string[] }
  /** How alike texts are in the editor and on the page; `of` names the settings, so that what was learnt of them is kept. */
  | { kind: 'count'; of: string; input: LikenessInput; texts: readonly string[] }
  | { kind: 'repairs'; cause: string }
  | { kind: 'try'; repair: Repair; cause: string }
  | { kind: 'contest'; document: string; index: number; pseudo: string; property: string };

/** How alike texts are together; those that could not be compared are left out. */
export interface CountedLikeness {
  elements: number;
  alike: number;
  compared: number;
}

/** How one text looks different, or why that could not be told. */
export type ToldLook = TextLook | { failure: string };

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
