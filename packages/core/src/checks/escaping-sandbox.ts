import { toPointer } from '../profile/pointer';
import { attributeTests, type Check } from './check';

/** A frame with scripts and its own origin can take its own sandbox off where it comes from this site (HTML, section 4.8.5). */
export const escapingSandbox: Check = {
  id: 'escaping-sandbox',
  purpose: 'Finds frames that may have both scripts and their own origin.',
  run: (context) =>
    attributeTests(context).flatMap(({ attribute, test, keys }) => {
      if (attribute !== 'sandbox') return [];
      const words = test.test === 'tokens' || test.test === 'list' ? (test.values ?? []).flatMap((value) => value.split(/\s+/)) : null;
      if (words !== null && !(words.includes('allow-scripts') && words.includes('allow-same-origin'))) return [];
      return [
        {
          check: 'escaping-sandbox',
          severity: 'warning',
          sentence: 'A frame may have both allow-scripts and allow-same-origin: a page of our own in it could take its sandbox off.',
          pointer: toPointer(keys),
        },
      ];
    }),
};
