import type { LedgerEntry, Severity } from '../ledger/entry';
import { isElementAsSuch } from '../ledger/subject';
import { inOneLine } from './outline';
import type { Proof } from './prove';
import type { Expectation } from './specimen';

const RANK: Readonly<Record<Severity, number>> = { loss: 0, change: 1, tidy: 2 };

/** So many entries explain one expectation. */
const MOST = 3;

/**
 * The entries of a proof's ledger that explain why an expectation is not met, what a reader misses first.
 *
 * @returns none where nothing was done that could explain it: the thing came with the content, and every rule lets it through
 */
export function explanationOf(expectation: Expectation, { input, ledger }: Proof): LedgerEntry[] {
  const isAbout = relevance(expectation, input);
  return ledger
    .filter(isAbout)
    .sort((one, other) => RANK[one.severity] - RANK[other.severity] || other.textLost - one.textLost || one.start - other.start)
    .slice(0, MOST);
}

function relevance(expectation: Expectation, input: string): (entry: LedgerEntry) => boolean {
  switch (expectation.expect) {
    case 'text-has': {
      const words = inOneLine(expectation.text);
      return ({ start, end, textLost, action }) => {
        const there = wordsIn(input.slice(start, end));
        return (textLost !== 0 || action === 'changed') && there !== '' && (there.includes(words) || words.includes(there));
      };
    }
    case 'text-is':
    case 'text-kept':
      return ({ textLost }) => textLost > 0;
    case 'text-lacks':
      return ({ after }) => wordsIn(after).includes(inOneLine(expectation.text));
    case 'count': {
      const { of } = expectation;
      if (of.startsWith('@')) return ({ subject }) => subject.attribute === of.slice(1);
      if (of.startsWith('.'))
        return ({ subject }) => subject.attribute === 'class' && subject.value?.split(/\s+/).includes(of.slice(1)) === true;
      return ({ subject, after }) => (isElementAsSuch(subject) && subject.element === of) || opens(after, of);
    }
    case 'outline':
      return ({ subject, after }) => HEADINGS.has(subject.element) || [...HEADINGS].some((name) => opens(after, name));
    case 'links-lead-somewhere':
      return ({ subject }) => subject.attribute === 'id' || subject.attribute === 'name';
    case 'pictures-to-upload':
      return ({ subject, reason }) => subject.element === 'img' || reason === 'paste-picture-box';
    case 'markup-has':
    case 'markup-lacks': {
      const names = new Set(
        [...expectation.html.matchAll(/<\/?([a-z][a-z0-9-]*)|([a-z-]+)=/gi)].map(([, element, attribute]) =>
          (element ?? attribute ?? '').toLowerCase(),
        ),
      );
      return ({ subject, after }) => names.has(subject.attribute ?? subject.element) || [...names].some((name) => opens(after, name));
    }
    // What was not to be left came with the content, or a rule makes it: no entry took it.
    default:
      return () => false;
  }
}

const HEADINGS: ReadonlySet<string> = new Set(['h1', 'h2', 'h3', 'h4', 'h5', 'h6']);

/** Whether what stands there now begins an element of this name. */
const opens = (after: string, name: string): boolean => after === `<${name}>` || after.startsWith(`<${name} `);

/** The words of a piece of source, without its tags. */
const wordsIn = (source: string): string => inOneLine(source.replace(/<[^>]*>/g, ''));
