import { toPointer } from '../profile/pointer';
import { looksOn } from '../likeness/styled';
import { readStyle } from '../styles/act';
import type { Check, Finding } from './check';

const LEAST_CONTRAST = 4.5;

/** A style whose text readers can hardly read (WCAG 2.2, success criterion 1.4.3). */
export const styleContrast: Check = {
  id: 'style-contrast',
  purpose: 'Finds styles whose text has a contrast under 4.5 to 1 on a page kind where the profile is used.',
  run({ resolved, pages = [] }) {
    const looks = pages.map((page) => ({ name: page.name, looks: looksOn(page) }));
    return Object.entries(resolved.profile.styles).flatMap(([id, { label, selector }]): Finding[] => {
      const read = readStyle(selector);
      if (!read.ok) return [];
      const weak = looks.flatMap(({ name, looks: page }) => {
        const { contrast, rules } = page.of(read.act);
        return contrast !== null && contrast < LEAST_CONTRAST && rules.length > 0 ? [`${contrast.toFixed(1)} on “${name}”`] : [];
      });
      if (weak.length === 0) return [];
      return [
        {
          check: 'style-contrast',
          severity: 'warning',
          sentence: `Text in the style “${label}” is hard to read: its contrast is ${weak.join(', ')}. Text needs 4.5 to 1.`,
          pointer: toPointer(['styles', id, 'selector']),
        },
      ];
    });
  },
};
