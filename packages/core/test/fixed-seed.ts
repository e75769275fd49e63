import fc from 'fast-check';

/*
 * The laws are tried with the same contents each time, and with a part of what they name. `npm run laws` tries all of it, with
 * contents of its own: it sets these two.
 */
const SEED = Number(process.env['TYPIKON_LAWS_SEED'] ?? 14);
const SHARE = Number(process.env['TYPIKON_LAWS_SHARE'] ?? 0.2);

fc.configureGlobal({ seed: SEED });

/** How often a law is tried that is to be tried so often where there is time. */
export const runs = (whole: number): number => Math.ceil(whole * SHARE);

/** As many of the cases as the laws are tried with; which of them, the seed says. */
export function someOf<T>(cases: readonly T[]): T[] {
  const first = Math.abs(SEED) % cases.length;
  return [...cases.slice(first), ...cases.slice(0, first)].filter((_, at) => at % Math.ceil(1 / SHARE) === 0);
}
