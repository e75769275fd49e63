import { toPointer } from '../profile/pointer';
import { readStyle } from '../styles/act';
import { refusalSentence } from '../styles/words';
import type { Check, Finding } from './check';

/** A style whose selector cannot be applied: the menu would offer what does nothing. */
export const styleRefused: Check = {
  id: 'style-refused',
  purpose: 'Finds styles whose selector cannot be applied to content.',
  run: ({ resolved }) =>
    Object.entries(resolved.profile.styles).flatMap(([id, { label, selector }]): Finding[] => {
      const read = readStyle(selector);
      if (read.ok) return [];
      return [
        {
          check: 'style-refused',
          severity: 'error',
          sentence: `The style “${label}” cannot be applied. ${refusalSentence(read.refusal)}`,
          pointer: toPointer(['styles', id, 'selector']),
        },
      ];
    }),
};
