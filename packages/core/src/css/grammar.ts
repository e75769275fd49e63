import { generate, lexer, type CssNode } from 'css-tree';

/** Longer values are not matched: the matcher gives up on them, and no stylesheet has them. */
const LONGEST_VALUE = 1000;

/** Whether a value is one that CSS has for a property, by its grammar. A value that is too long to tell is none. */
export function isValueOf(property: string, value: CssNode | string): boolean {
  const { length } = typeof value === 'string' ? value : generate(value);
  return length <= LONGEST_VALUE && lexer.matchProperty(property, value).error === null;
}

/** Whether CSS has a property of a name. */
export function isProperty(name: string): boolean {
  return lexer.getProperty(name) !== null;
}
