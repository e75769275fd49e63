import type { CompiledRules, Demands } from './compiled';

/** Whether an element without attributes that is put somewhere stays there as it is. */
export function isMakeable(rules: CompiledRules, name: string): boolean {
  const { outcome, name: kept, demands } = rules.element(name);
  return outcome === 'keep' && kept === name && (demands === null || asksNothing(demands));
}

function asksNothing({ anyOf, required, forced, parents, depth, ratio, newWindow }: Demands): boolean {
  return anyOf.length + required.length + forced.length + parents.length === 0 && depth === null && ratio === null && newWindow === null;
}
