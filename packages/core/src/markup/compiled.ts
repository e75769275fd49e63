import type { Authority } from '../ledger/ledger';
import type { HouseLimits } from '../profile/schema';
import type { CompiledTest } from './verdict';

/** One test of an attribute, with the layer and rule it comes from. */
export interface BoundTest {
  judge: CompiledTest;
  by: Authority;
  /** All that the judge was made from, as JSON can hold it: two tests made from the same judge alike. */
  madeFrom: unknown;
}

/** The judgement of one attribute: every test that binds it. */
export interface CompiledAttribute {
  tests: readonly BoundTest[];
}

export type Outcome = 'keep' | 'unwrap' | 'drop' | 'text';

/** What an element must have, beyond the attributes that it may have. */
export interface Demands {
  anyOf: readonly { names: readonly string[]; otherwise: 'drop' | 'unwrap'; by: Authority }[];
  required: readonly { name: string; otherwise: 'drop' | 'unwrap' | 'add'; value: string; by: Authority }[];
  forced: readonly {
    name: string;
    value: string;
    isWords: boolean;
    when: 'always' | 'absent' | 'new-window' | 'with-address';
    by: Authority;
  }[];
  empty: { outcome: 'remove' | 'pad'; by: Authority } | null;
  parents: readonly { names: ReadonlySet<string>; by: Authority }[];
  depth: Limit | null;
  ratio: { min: number; max: number; by: Authority } | null;
  newWindow: { policy: 'never' | 'other-sites'; ownHosts: ReadonlySet<string>; by: Authority } | null;
  /** Whose pages in a frame are our own; null for elements that are no frames. */
  ownFrame: { ownHosts: ReadonlySet<string> } | null;
}

/** What becomes of one element. */
export interface CompiledElement {
  outcome: Outcome;
  /** The name under which it is kept; differs from its own where the rules rename it. */
  name: string;
  by: Authority;
  /** Why, where it does not stay as it is. */
  reason: 'element-forbidden' | 'element-not-allowed' | 'element-dropped' | 'element-renamed' | 'element-shown-as-text' | 'heading-level';
  attributes: ReadonlyMap<string, CompiledAttribute>;
  /** Who answers for an attribute that is not in `attributes`. */
  otherAttributes(name: string): Authority;
  /** Who says that the alternative text stands for a picture whose source is refused; null where it goes. */
  alternativeText: Authority | null;
  /** null for an element of which nothing more is asked. */
  demands: Demands | null;
}

export interface Limit {
  limit: number;
  by: Authority;
}

/** What becomes of headings as a whole, where the profile does not leave that to the rule of each level. */
export interface HeadingPolicy {
  others: 'shift' | 'clamp' | 'paragraph';
  /** The level of the highest heading, for shift. */
  top: number;
  by: Authority;
  /** The levels that are kept; at least one, except for `paragraph`. */
  levels: readonly number[];
}

/** A profile's markup rules with the house limits and the safety floor worked in: made once, then asked for every node. */
export interface CompiledRules {
  element(name: string): CompiledElement;
  /** Elements of SVG and MathML. */
  foreign: CompiledElement;
  comments: { keep: boolean; by: Authority };
  nesting: Limit;
  elements: Limit | null;
  letters: Limit | null;
  headings: HeadingPolicy | null;
  ids: { prefix: string; by: Authority } | null;
  hardSpaces: { keep: 'meaningful' | 'none'; by: Authority } | null;
  emptyParagraphs: { keep: 'one' | 'none'; by: Authority } | null;
  /** Whether any rule asks if an element shows nothing. */
  seesEmpty: boolean;
  output: { characters: 'raw' | 'named' | 'numeric'; layout: 'as-is' | 'compact' | 'indented' };
  /** Every element that is kept under its own name. */
  kept: ReadonlySet<string>;
}

export interface CompileOptions {
  house?: HouseLimits;
  /** The role of the person whose content is cleaned; house limits may except it. */
  role?: string;
}
