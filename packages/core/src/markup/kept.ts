import type { CompiledRules } from './compiled';

/** Whether the rules keep an attribute with a value on an element; of several words, each must be kept. */
export function isValueKept(rules: CompiledRules, element: string, attribute: string, value: string): boolean {
  const rule = rules.element(element);
  const compiled = rule.attributes.get(attribute);
  if (rule.outcome !== 'keep' || rule.name !== element || compiled === undefined) return false;
  let kept: string | null = value;
  for (const { judge } of compiled.tests) {
    if (kept === null) return false;
    const verdict = judge(kept);
    kept = 'keep' in verdict ? verdict.keep : null;
  }
  return kept !== null && (kept.trim() !== '') === (value.trim() !== '');
}
