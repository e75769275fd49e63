import type { LedgerEntry } from '../../ledger/entry';

/** What a line of a comparison is about. */
export interface ComparedSubject {
  kind:
    | 'element'
    | 'attribute'
    | 'value'
    | 'class'
    | 'property'
    | 'address'
    | 'demand'
    | 'place'
    | 'headings'
    | 'ids'
    | 'text'
    | 'comments'
    | 'limit'
    | 'output'
    | 'pass'
    | 'together';
  element?: string;
  attribute?: string;
  property?: string;
  value?: string;
  /** The setting or pass that is meant, where it is no element's. */
  name?: string;
  /** What a text must have, where the names above do not say it. */
  sought?: Sought;
}

/** What is looked for in texts, beside an element's name. */
export type Sought =
  | { is: 'without'; attributes: readonly string[] }
  | { is: 'refused-source' }
  | { is: 'link'; href: LinkKind; opensNew: boolean }
  | { is: 'shape' }
  | { is: 'empty' }
  | { is: 'within'; parent: string }
  | { is: 'deep'; levels: number }
  | { is: 'headings'; levels: readonly number[] }
  | { is: 'hard-spaces' | 'empty-paragraphs' | 'letters-beyond-ascii' | 'several-blocks' }
  | { is: 'more'; of: 'nesting' | 'elements' | 'letters'; than: number };

export type LinkKind = 'elsewhere' | 'within' | 'other';

/** One thing that two profiles treat differently. */
export interface ComparisonLine {
  subject: ComparedSubject;
  /** Which of the two leaves more of it as it was. */
  kept: 'from' | 'to';
  sentence: string;
  /** Markup that shows it: cleaned by both, it comes out differently. */
  witness: string;
  /** What the witness becomes. */
  results: { from: string; to: string };
}

/** What became of one thing: what the ledger says of it. */
export type Fate = readonly Pick<LedgerEntry, 'action' | 'after' | 'textLost'>[];

/** How much is left of a thing, from all of it (0) to nothing. */
export function harmOf(fate: Fate): number {
  const RANKS = { restructured: 1, changed: 2, renamed: 3, unwrapped: 4, 'shown-as-text': 5, removed: 6 } as const;
  return fate.reduce((most, { action, textLost }) => Math.max(most, RANKS[action] + Math.min(1, textLost / 1000)), 0);
}

/** What a profile does with a thing, in words that follow its name. */
export function fateWords(fate: Fate, html: string): string {
  const worst = [...fate].sort((a, b) => harmOf([b]) - harmOf([a]))[0];
  if (worst === undefined) return 'leaves it as it is';
  const { action, after, textLost } = worst;
  switch (action) {
    case 'removed':
      return textLost > 0 ? 'takes it away with its words' : 'takes it away';
    case 'unwrapped':
      return 'takes the tag away, its content stays';
    case 'renamed':
      return `makes it ${after || 'something else'}`;
    case 'shown-as-text':
      return 'shows its tag as text';
    case 'changed':
      return after === '' ? 'changes it' : `makes it ${after}`;
    case 'restructured':
      return `puts it elsewhere: ${html.length > 60 ? `${html.slice(0, 60)}…` : html}`;
  }
}

/** A subject in words. */
export function subjectWords({ kind, element = '', attribute = '', property = '', value = '', name = '' }: ComparedSubject): string {
  const on = element === '' ? ' on any element' : ` on <${element}>`;
  const shown = value.length > 60 ? `${value.slice(0, 57)}…` : value;
  switch (kind) {
    case 'element':
      return name === '' ? `<${element}>` : `Elements without a rule, such as <${element}>`;
    case 'attribute':
      return `${attribute}${on}`;
    case 'value':
    case 'address':
      return `${attribute}="${shown}"${on}`;
    case 'class':
      return `The class “${shown}”${on}`;
    case 'property':
      return `${property}: ${shown} in the style of ${element === '' ? 'any element' : `<${element}>`}`;
    case 'demand':
    case 'place':
      return `<${element}> ${name}`;
    default:
      return name;
  }
}
