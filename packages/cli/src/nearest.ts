import { distance } from 'fastest-levenshtein';

/** The name that was meant by a mistyped one; null where none is near enough to say so. */
export function nearest(typed: string, names: readonly string[]): string | null {
  const [best] = names
    .map((name) => ({ name, steps: distance(typed.toLowerCase(), name) }))
    .sort((one, other) => one.steps - other.steps || one.name.localeCompare(other.name));
  return best !== undefined && best.steps <= (best.name.length < 5 ? 1 : Math.max(2, Math.floor(best.name.length / 3))) ? best.name : null;
}
