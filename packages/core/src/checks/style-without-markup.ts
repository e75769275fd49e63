import { toPointer } from '../profile/pointer';
import { readStyle } from '../styles/act';
import { lostOf } from '../styles/kept';
import type { Check, Finding } from './check';

/** A style whose element, class or attribute the rules take away: what an author applies is gone after saving. */
export const styleWithoutMarkup: Check = {
  id: 'style-without-markup',
  purpose: 'Finds styles whose element, class or attribute the rules remove.',
  run: ({ resolved, rules }) =>
    Object.entries(resolved.profile.styles).flatMap(([id, { label, selector }]): Finding[] => {
      const read = readStyle(selector);
      const lost = read.ok ? lostOf(read.act, rules) : [];
      if (lost.length === 0) return [];
      return [
        {
          check: 'style-without-markup',
          severity: 'error',
          sentence: `The style “${label}” is offered, but the rules remove ${lost.join(' and ')}: it is gone once the content is saved.`,
          pointer: toPointer(['styles', id, 'selector']),
        },
      ];
    }),
};
