import type { Contender, Reason } from '../css/cascade';
import type { Specificity } from '../css/specificity';

/** Why something looks different. */
export type CauseKind = 'no-rule' | 'outweighed' | 'inherited' | 'condition' | 'only-in-editor' | 'does-not-fit';

/** Where one of the two settings lacks something. */
export type Side = 'editor' | 'page';

/** What of a rule is told. */
export interface RuleNote {
  sheet: string;
  selector: string;
  /** One-based, of the declaration. */
  line: number;
  property: string;
  value: string;
  important: boolean;
  layer: string;
  specificity: Specificity;
}

export interface PlaceDifference {
  property: string;
  editor: string;
  page: string;
}

/** An element that looks different. */
export interface Place {
  document: string;
  /** Which of the content's elements, in document order. */
  index: number;
  path: string;
  /** The element as one would write it in a selector. */
  element: string;
  /** `::before` or `::after`; empty for the element itself. */
  pseudo: string;
  /** One-based, in the content. */
  line: number;
  /** UTF-16 offsets of the start tag in the content; -1 for an element that the parser added. */
  start: number;
  end: number;
  differences: PlaceDifference[];
  /** For what does not fit: how wide it is and how wide the column, in pixels. */
  fit?: { neededPx: number; columnPx: number; side: Side };
}

export interface Cause {
  /** The same for the same cause in another run. */
  id: string;
  kind: CauseKind;
  /** For what is inherited: why the element further up looks different. */
  because: Exclude<CauseKind, 'inherited'>;
  /** Which of the two lacks the rule, or where it loses. */
  side: Side;
  /** The rule whose effect is missing on that side. */
  rule: RuleNote | null;
  /** What is in force there instead. */
  instead: RuleNote | null;
  /** For outweighed: by what the other rule wins. */
  reason: Reason | null;
  /** For no-rule: the file is not there; it is there without the rule; or the rule asks for other surroundings than there are. */
  lack: 'file' | 'rule' | 'surroundings' | null;
  /** For condition: what does not hold. */
  condition: string;
  /** For inherited: the path of the element from which it comes down. */
  from: string;
  /** Custom properties through which it comes. */
  variables: string[];
  properties: string[];
  places: Place[];
}

export const noteOf = ({ sheet, selector, line, property, declared, important, layer, specificity }: Contender): RuleNote => ({
  sheet,
  selector,
  line,
  property,
  value: declared,
  important,
  layer,
  specificity,
});
