import { toPointer } from '../profile/pointer';
import { patchAt, type Check } from './check';

const WHAT = {
  nesting: ['levels deep', 'the deepest is unwrapped'],
  elements: ['elements', 'further ones are unwrapped'],
  letters: ['letters', 'the rest is cut off'],
} as const;

/** Limits that stored documents exceed already: the next save of one would change it. */
export const tightLimit: Check = {
  id: 'tight-limit',
  purpose: 'Finds limits that are smaller than the stored documents need.',
  run({ rules, documents }) {
    if (documents === undefined) return [];
    return (['nesting', 'elements', 'letters'] as const).flatMap((name) => {
      const limit = rules[name];
      const need = documents[name];
      if (limit === null || limit.limit >= need) return [];
      const keys = ['markup', 'limits', name];
      const [unit, outcome] = WHAT[name];
      return [
        {
          check: 'tight-limit',
          severity: 'warning',
          sentence: `The limit is ${limit.limit} ${unit}, but a stored document has ${need}: when it is saved again, ${outcome}.`,
          pointer: toPointer(keys),
          ...(limit.by.layer === 'house-limits' || (name === 'nesting' && need > 500)
            ? {}
            : { fix: { label: `Set the limit to ${need}`, patch: patchAt(keys, need) } }),
        },
      ];
    });
  },
};
