import type { RulesSummary } from './summary';

/** Whether the house limits refuse the attribute of an element that stays, whatever the profile says of it. */
export function isAttributeRefused(summary: RulesSummary, element: string, attribute: string): boolean {
  const rule = Object.hasOwn(summary.elements, element) ? summary.elements[element] : undefined;
  return rule?.outcome === 'keep' && rule.name === element && !rule.attributes.includes(attribute);
}
