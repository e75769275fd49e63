/** Content or stylesheets ask for more work than one answer may take. The message is a sentence for a person. */
export class TooMuch extends Error {}

let spent = 0;
let most = Infinity;
let what = '';

/** Counts steps of matching: one for each part of a selector that is tried on an element. */
export function spend(steps = 1): void {
  if ((spent += steps) > most)
    throw new TooMuch(
      `${what} need more than ${most.toLocaleString('en')} steps of comparing selectors with elements. Rules that ask for no class, id or element cost most.`,
    );
}

/**
 * Runs something that matches selectors with elements, and counts the steps.
 *
 * @param limit the most steps that it may take
 * @param subject what the steps are taken for, in the plural, as a sentence begins with it
 * @throws TooMuch where it would take more
 */
export function withinBudget<Result>(limit: number, subject: string, act: () => Result): { result: Result; steps: number } {
  const outer = { spent, most, what };
  [spent, most, what] = [0, limit, subject];
  try {
    return { result: act(), steps: spent };
  } finally {
    ({ spent, most, what } = { ...outer, spent: outer.spent + spent });
  }
}
