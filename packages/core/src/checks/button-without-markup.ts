import type { CompiledRules } from '../markup/compile';
import type { JsonObject } from '../profile/merge-patch';
import { toPointer } from '../profile/pointer';
import { buttonOf, type ButtonDeclaration } from '../toolbar/buttons';
import type { Check, Finding } from './check';

/** What of a button's markup the rules would take away again. */
export function missingMarkup(button: ButtonDeclaration, rules: CompiledRules): ButtonDeclaration['needs'] {
  return button.needs.filter(({ element, attribute }) => {
    const rule = rules.element(element);
    return rule.outcome !== 'keep' || rule.name !== element || (attribute !== undefined && !rule.attributes.has(attribute));
  });
}

/** The smallest merge patch that lets a button's markup through. */
export function patchToAllow(missing: ButtonDeclaration['needs']): JsonObject {
  const elements: JsonObject = {};
  for (const { element, attribute } of missing) {
    const rule = (elements[element] ??= { outcome: 'keep' }) as JsonObject;
    if (attribute !== undefined)
      rule['attributes'] = {
        ...(rule['attributes'] as JsonObject | undefined),
        [attribute]: { test: attribute === 'href' ? 'url' : 'text' },
      };
  }
  return { markup: { elements } };
}

/** A button that is on although the rules remove what it makes: authors would watch their formatting vanish on saving. */
export const buttonWithoutMarkup: Check = {
  id: 'button-without-markup',
  purpose: 'Finds buttons whose markup the rules remove.',
  run({ resolved, rules }) {
    const { toolbar } = resolved.profile;
    const findings: Finding[] = [];
    for (const group of toolbar.order) {
      for (const id of toolbar.groups[group]?.buttons ?? []) {
        const button = buttonOf(id);
        const missing = missingMarkup(button, rules);
        if (missing.length === 0) continue;
        const isCapped = missing.some(({ element }) => ['house-limits', 'safety-floor'].includes(rules.element(element).by.layer));
        const names = missing
          .map(({ element, attribute }) => (attribute === undefined ? element : `${attribute} on ${element}`))
          .join(', ');
        findings.push({
          check: 'button-without-markup',
          severity: 'error',
          sentence: isCapped
            ? `The button “${button.label}” is on, but the house limits remove its markup (${names}), so what authors make with it is gone when they save.`
            : `The button “${button.label}” is on, but the rules remove its markup (${names}), so what authors make with it is gone when they save.`,
          pointer: toPointer(['toolbar', 'groups', group]),
          ...(isCapped ? {} : { fix: { label: `Allow ${names}`, patch: patchToAllow(missing) } }),
        });
      }
    }
    return findings;
  },
};
