import { toPointer } from '../profile/pointer';
import { looksOn } from '../likeness/styled';
import { readStyle } from '../styles/act';
import type { Check, Finding } from './check';

/** A style that no stylesheet of a page has: the author applies it and readers see nothing. */
export const styleWithoutRule: Check = {
  id: 'style-without-rule',
  purpose: 'Finds styles without a rule in the stylesheets of a page kind where the profile is used.',
  run({ resolved, pages = [] }) {
    const looks = pages.map((page) => ({ name: page.name, looks: looksOn(page) }));
    return Object.entries(resolved.profile.styles).flatMap(([id, { label, selector }]): Finding[] => {
      const read = readStyle(selector);
      if (!read.ok || looks.length === 0) return [];
      const missing = looks.filter((page) => page.looks.of(read.act).rules.length === 0).map(({ name }) => name);
      if (missing.length === 0) return [];
      const where =
        missing.length === looks.length ? 'any page kind where this profile is used' : missing.map((name) => `“${name}”`).join(' and ');
      return [
        {
          check: 'style-without-rule',
          severity: 'warning',
          sentence: `The style “${label}” shows nothing on ${where}: no stylesheet there has a rule for ${selector}.`,
          pointer: toPointer(['styles', id, 'selector']),
        },
      ];
    });
  },
};
