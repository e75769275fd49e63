import { wholesOf } from '../../markup/parts';
import type { ComparisonLine } from './line';

/** So many things are named in one sentence. */
const MOST_NAMED = 3;

/** The first few things that lines of a comparison are about, the largest first. */
export function namedThings(lines: readonly ComparisonLine[]): string {
  const all = new Set(lines.map(({ subject }) => subject.element ?? subject.attribute ?? subject.name?.toLowerCase() ?? subject.kind));
  // A table says its rows and cells.
  const names = [...all].filter((name) => ![...(wholesOf(name) ?? [])].some((whole) => all.has(whole)));
  const first = names.slice(0, MOST_NAMED).join(', ');
  return names.length > MOST_NAMED ? `${first} and ${names.length - MOST_NAMED} more` : first;
}
