import { toPointer } from '../profile/pointer';
import { looksOn } from '../likeness/styled';
import { readStyle } from '../styles/act';
import type { Check, Finding } from './check';

/** Two styles that readers cannot tell apart: authors choose by chance. */
export const stylesLookAlike: Check = {
  id: 'styles-look-alike',
  purpose: 'Finds styles that look the same on every page kind where the profile is used.',
  run({ resolved, pages = [] }) {
    if (pages.length === 0) return [];
    const looks = pages.map((page) => looksOn(page));
    const seen = new Map<string, string>();
    return Object.entries(resolved.profile.styles).flatMap(([id, { label, selector }]): Finding[] => {
      const read = readStyle(selector);
      if (!read.ok) return [];
      const all = looks.map((page) => page.of(read.act));
      // What shows nothing at all is told by another check.
      if (all.every(({ rules }) => rules.length === 0)) return [];
      const key = `${read.act.element} ${all.map(({ look }) => look).join('\n')}`;
      const other = seen.get(key);
      if (other === undefined) {
        seen.set(key, label);
        return [];
      }
      return [
        {
          check: 'styles-look-alike',
          severity: 'warning',
          sentence: `The styles “${other}” and “${label}” look the same on the page. Readers cannot tell them apart; keep one, or give one of them a look of its own.`,
          pointer: toPointer(['styles', id]),
        },
      ];
    });
  },
};
