import { toPointer } from '../profile/pointer';
import { attributeName, attributeTests, type Check } from './check';

/** A class that may be stored although no stylesheet of the page has it: it shows nothing. */
export const classWithoutStylesheet: Check = {
  id: 'class-without-stylesheet',
  purpose: 'Finds allowed classes that no stylesheet of the page kind names.',
  run(context) {
    const { stylesheetClasses } = context;
    if (stylesheetClasses === undefined) return [];
    return attributeTests(context).flatMap(({ element, attribute, test, keys }) => {
      if (attribute !== 'class' || (test.test !== 'tokens' && test.test !== 'list')) return [];
      const words = (test.values ?? []).flatMap((value) => value.split(/\s+/)).filter((word) => word !== '');
      const prefixes = test.test === 'tokens' ? (test.prefixes ?? []) : [];
      const unknown = [
        ...words.filter((word) => !stylesheetClasses.has(word)),
        ...prefixes.filter((prefix) => ![...stylesheetClasses].some((name) => name.startsWith(prefix))).map((prefix) => `${prefix}…`),
      ];
      if (unknown.length === 0) return [];
      return [
        {
          check: 'class-without-stylesheet',
          severity: 'warning',
          sentence: `${attributeName(element, attribute)} may be ${unknown.join(', ')}, but no stylesheet of the page has ${unknown.length === 1 ? 'that class' : 'those classes'}: readers see no difference.`,
          pointer: toPointer([...keys, test.values === undefined ? 'prefixes' : 'values']),
        },
      ];
    });
  },
};
