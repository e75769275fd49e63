import { diffArrays } from 'diff';

/** Texts that differ in more lines than this are told by counting: which line went where is not looked for. */
const MOST_EDITS = 500;

/** How many lines one text has that another has not, and the other way round. */
export function lineChanges(before: string, after: string): { more: number; fewer: number } {
  const [then, now] = [before.split('\n'), after.split('\n')];
  const changes = diffArrays(then, now, { maxEditLength: MOST_EDITS });
  if (changes === undefined) return { more: unmatched(now, then), fewer: unmatched(then, now) };
  let [more, fewer] = [0, 0];
  for (const { added, removed, count } of changes) {
    if (added) more += count;
    if (removed) fewer += count;
  }
  return { more, fewer };
}

/** How many lines of one text have no equal in another, wherever they stand. */
function unmatched(lines: readonly string[], others: readonly string[]): number {
  const left = new Map<string, number>();
  for (const line of others) left.set(line, (left.get(line) ?? 0) + 1);
  let count = 0;
  for (const line of lines) {
    const there = left.get(line) ?? 0;
    if (there === 0) count++;
    else left.set(line, there - 1);
  }
  return count;
}
