import { RE2JS } from 're2js';

/** What is wrong with a pattern, in a sentence; null where it can be used. */
export function patternMistake(pattern: string): string | null {
  try {
    RE2JS.compile(pattern);
    return null;
  } catch (error) {
    const detail = error instanceof Error ? error.message.replace(/^error parsing regexp: /, '') : String(error);
    return `The pattern cannot be used: ${detail}`;
  }
}

/**
 * Makes the function that says whether a text matches a pattern as a whole, in time linear to the text (RE2 syntax: no
 * look-around, no references back).
 */
export function compilePattern(pattern: string): (text: string) => boolean {
  const compiled = RE2JS.compile(pattern);
  return (text) => compiled.matches(text);
}
