import { toPointer } from '../profile/pointer';
import { patchAt, type Check } from './check';

/** Attributes with a rule on an element that does not stay: the rule can have no effect. */
export const attributeWithoutElement: Check = {
  id: 'attribute-without-element',
  purpose: 'Finds rules for attributes of elements that do not stay.',
  run: ({ resolved }) =>
    Object.entries(resolved.profile.markup.elements).flatMap(([name, { outcome = 'keep', attributes = {} }]) => {
      const names = Object.keys(attributes);
      if (outcome === 'keep' || names.length === 0) return [];
      const keys = ['markup', 'elements', name, 'attributes'];
      return [
        {
          check: 'attribute-without-element',
          severity: 'warning',
          sentence: `${names.join(', ')} on ${name} ${names.length === 1 ? 'has a rule' : 'have rules'}, but ${name} itself ${outcome === 'rename' ? 'becomes another element' : 'does not stay'}, so ${names.length === 1 ? 'it is' : 'they are'} never kept there.`,
          pointer: toPointer(keys),
          fix: { label: `Take the rules for attributes of ${name} out`, patch: patchAt(keys, null) },
        },
      ];
    }),
};
