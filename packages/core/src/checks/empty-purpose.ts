import type { Check } from './check';

/** A profile that does not say what it is for is copied and stretched by everybody who is in a hurry. */
export const emptyPurpose: Check = {
  id: 'empty-purpose',
  purpose: 'Finds profiles that do not say what they are for.',
  run: ({ resolved }) =>
    resolved.profile.purpose.trim() === ''
      ? [
          {
            check: 'empty-purpose',
            severity: 'note',
            sentence: 'The profile does not say what it is for, so nobody can tell whether a rule is too wide.',
            pointer: '/purpose',
          },
        ]
      : [],
};
