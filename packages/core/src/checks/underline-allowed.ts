import { toPointer } from '../profile/pointer';
import type { Check } from './check';

/** Underlined words read as links (WCAG 2.2, techniques G182 and G183 rest on links alone being underlined). */
export const underlineAllowed: Check = {
  id: 'underline-allowed',
  purpose: 'Finds profiles that allow underlining, which readers take for links.',
  run({ rules }) {
    const rule = rules.element('u');
    if (rule.outcome !== 'keep' || rule.name !== 'u') return [];
    return [
      {
        check: 'underline-allowed',
        severity: 'note',
        sentence: 'u is allowed: readers take underlined words for links.',
        pointer: toPointer(['markup', 'elements', 'u']),
        fix: { label: 'Take the underline off, keep the words', patch: { markup: { elements: { u: { outcome: 'unwrap', to: null } } } } },
      },
    ];
  },
};
