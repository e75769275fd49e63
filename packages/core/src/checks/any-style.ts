import { toPointer } from '../profile/pointer';
import { attributeName, attributeTests, type Check, type Finding } from './check';

/** Inline style without limits: design moves from the stylesheet into the content, where no later change reaches it. */
export const anyStyle: Check = {
  id: 'any-style',
  purpose: 'Finds style attributes and style properties that may have any value.',
  run: (context) =>
    attributeTests(context).flatMap(({ element, attribute, test, keys }): Finding[] => {
      if (attribute !== 'style') return [];
      if (test.test !== 'style')
        return [
          {
            check: 'any-style',
            severity: 'error' as const,
            sentence: `${attributeName(element, 'style')} is tested as plain text, so that every property may stay: colours and fonts of other programs get into the content. Name the properties.`,
            pointer: toPointer(keys),
          },
        ];
      return Object.entries(test.properties)
        .filter(([, { test: kind }]) => kind === 'any')
        .map(([property]): Finding => ({
          check: 'any-style',
          severity: 'warning' as const,
          sentence: `${property} in ${attributeName(element, 'style')} may have any value. Name the values or a range.`,
          pointer: toPointer([...keys, 'properties', property]),
        }));
    }),
};
