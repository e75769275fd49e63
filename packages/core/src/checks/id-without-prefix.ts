import { toPointer } from '../profile/pointer';
import { attributeTests, type Check } from './check';

/** Ids in content share one space with the ids of the page (DOM, section 4.2.4 "Mixin NonElementParentNode"). */
export const idWithoutPrefix: Check = {
  id: 'id-without-prefix',
  purpose: 'Finds ids that may be stored without a prefix of their own.',
  run(context) {
    if (context.rules.ids !== null) return [];
    const tests = attributeTests(context).filter(({ attribute, test }) => attribute === 'id' && test.test !== 'list');
    const [first] = tests;
    if (first === undefined) return [];
    const where = tests.map(({ element }) => element ?? 'any element').join(', ');
    return [
      {
        check: 'id-without-prefix',
        severity: 'warning',
        sentence: `id is allowed on ${where} without a prefix: content can take the names of the page's own parts, and two pieces on one page can have the same.`,
        pointer: toPointer(first.keys),
        fix: { label: 'Put c- before every id', patch: { markup: { ids: { prefix: 'c-' } } } },
      },
    ];
  },
};
