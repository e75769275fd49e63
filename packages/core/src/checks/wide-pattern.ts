import { compilePattern } from '../profile/pattern';
import { toPointer } from '../profile/pointer';
import { attributeName, attributeTests, type Check } from './check';

const PROBES = ['a', 'two words', '</p><b x="1">', '0', "javascript:alert('1')", 'é ☂ 😀', '-', 'x'.repeat(2000), 'line\nline'];

/** A pattern that lets everything through says nothing; one that lets the empty text through keeps empty attributes. */
export const widePattern: Check = {
  id: 'wide-pattern',
  purpose: 'Finds patterns that accept the empty text or everything.',
  run: (context) =>
    attributeTests(context).flatMap(({ element, attribute, test, keys }) => {
      if (test.test !== 'pattern') return [];
      const matches = compilePattern(test.pattern);
      const passed = PROBES.filter((probe) => matches(probe)).length;
      // A dot does not stand for a line break, which is as good as everything all the same.
      const isWide = passed >= PROBES.length - 1;
      if (!isWide && !matches('')) return [];
      return [
        {
          check: 'wide-pattern',
          severity: isWide ? ('error' as const) : ('warning' as const),
          sentence: isWide
            ? `The pattern for ${attributeName(element, attribute)} accepts everything: it is no rule.`
            : `The pattern for ${attributeName(element, attribute)} accepts the empty text: empty attributes stay.`,
          pointer: toPointer([...keys, 'pattern']),
        },
      ];
    }),
};
