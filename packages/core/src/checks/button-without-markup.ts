import { toPointer } from '../profile/pointer';
import { arrangeToolbar } from '../toolbar/arrange';
import { buttonOf } from '../toolbar/buttons';
import { missingMarkup, needInWords, patchToAllow } from '../toolbar/needs';
import type { Check, Finding } from './check';

/** A button that is on although the rules remove what it makes: authors would watch their formatting vanish on saving. */
export const buttonWithoutMarkup: Check = {
  id: 'button-without-markup',
  purpose: 'Finds buttons whose markup the rules remove.',
  run({ resolved, rules }) {
    const { toolbar } = resolved.profile;
    const findings: Finding[] = [];
    for (const { id: group, buttons } of arrangeToolbar(toolbar)) {
      for (const id of buttons) {
        const button = buttonOf(id);
        const missing = missingMarkup(button, rules, toolbar.options);
        if (missing.length === 0) continue;
        const isCapped = missing.some(({ element }) => ['house-limits', 'safety-floor'].includes(rules.element(element).by.layer));
        const names = missing.map(needInWords).join(', ');
        findings.push({
          check: 'button-without-markup',
          severity: 'error',
          sentence: isCapped
            ? `The button “${button.label}” is on, but the house limits remove its markup (${names}), so what authors make with it is gone when they save.`
            : `The button “${button.label}” is on, but the rules remove its markup (${names}), so what authors make with it is gone when they save.`,
          pointer: toPointer(['toolbar', 'groups', group]),
          ...(isCapped ? {} : { fix: { label: `Allow ${names}`, patch: patchToAllow(missing, resolved) } }),
        });
      }
    }
    return findings;
  },
};
