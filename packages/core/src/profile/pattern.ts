/** What reads patterns (RE2 syntax: no look-around, no references back). */
export interface PatternEngine {
  /** What is wrong with a pattern, in a sentence; null where it can be used. */
  mistake(pattern: string): string | null;
  /** Makes the function that says whether a text matches a pattern as a whole, in time linear to the text. */
  matcher(pattern: string): (text: string) => boolean;
}

let engine: PatternEngine | null = null;

/** Gives whoever reads settings the engine for patterns; `pattern-engine.ts` does so when it is loaded. */
export function readPatternsWith(given: PatternEngine): void {
  engine = given;
}

/** Whether patterns can be read. */
export function canReadPatterns(): boolean {
  return engine !== null;
}

/**
 * What is wrong with a pattern, in a sentence; null where it can be used, and where no engine is at hand: a screen that only
 * shows settings does without, whoever takes or uses one has it.
 */
export function patternMistake(pattern: string): string | null {
  return engine === null ? null : engine.mistake(pattern);
}

/**
 * Makes the function that says whether a text matches a pattern as a whole, in time linear to the text.
 *
 * @throws where the pattern cannot be used, or no engine is at hand
 */
export function compilePattern(pattern: string): (text: string) => boolean {
  if (engine === null) throw new Error('Patterns cannot be read here: what reads them has not been loaded.');
  return engine.matcher(pattern);
}
