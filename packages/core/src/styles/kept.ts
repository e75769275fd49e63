import type { CompiledRules } from '../markup/compiled';
import { isValueKept } from '../markup/kept';
import type { StyleAct } from './act';

/** What of a style the markup rules take away: its element, or classes and attributes on it; empty where all stays. */
export function lostOf({ element, classes, attributes }: StyleAct, rules: CompiledRules): string[] {
  const rule = rules.element(element);
  if (rule.outcome !== 'keep' || rule.name !== element) return [element];
  return [
    ...classes.filter((name) => !isValueKept(rules, element, 'class', name)).map((name) => `the class ${name} on ${element}`),
    ...attributes.filter(({ name, value }) => !isValueKept(rules, element, name, value)).map(({ name }) => `${name} on ${element}`),
  ];
}
