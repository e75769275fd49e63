import { toPointer } from '../profile/pointer';
import type { Check } from './check';

/** A heading of level 1 in the content competes with the title of the page. */
export const levelOneHeading: Check = {
  id: 'level-one-heading',
  purpose: 'Finds profiles that let content have headings of level 1, which the title of the page owns.',
  run({ resolved, rules }) {
    const rule = rules.element('h1');
    if (rule.outcome !== 'keep' || rule.name !== 'h1') return [];
    const h2 = rules.element('h2');
    return [
      {
        check: 'level-one-heading',
        severity: 'warning',
        sentence: 'h1 is allowed, so that a page can have two titles: its own and one in the content.',
        pointer: toPointer(['markup', 'elements', 'h1']),
        ...(h2.outcome === 'keep' && h2.name === 'h2' && resolved.profile.markup.headings.others !== 'shift'
          ? { fix: { label: 'Make it h2', patch: { markup: { elements: { h1: { outcome: 'rename', to: 'h2', attributes: null } } } } } }
          : {}),
      },
    ];
  },
};
