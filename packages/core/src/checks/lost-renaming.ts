import { toPointer } from '../profile/pointer';
import type { Check } from './check';

/** A renaming that leads nowhere: its element's tags go, and nobody asked for that. */
export const lostRenaming: Check = {
  id: 'lost-renaming',
  purpose: 'Finds elements that are renamed in a circle, or to an element that does not stay.',
  run({ resolved, rules }) {
    const { elements } = resolved.profile.markup;
    return Object.entries(elements).flatMap(([name, { outcome, to }]) => {
      if (outcome !== 'rename') return [];
      const seen = [name];
      let next: string | undefined = to;
      while (next !== undefined && !seen.includes(next)) {
        seen.push(next);
        const rule: { outcome?: string | undefined; to?: string | undefined } | undefined = Object.hasOwn(elements, next)
          ? elements[next]
          : undefined;
        next = rule?.outcome === 'rename' ? rule.to : undefined;
      }
      const isCircle = next !== undefined;
      if (!isCircle && rules.element(name).outcome === 'keep') return [];
      const sentence =
        to === undefined
          ? `${name} is to become another element, but none is named: its tags go, its words stay.`
          : isCircle
            ? `${[...seen, next].join(' becomes ')}: a circle, so its tags go and its words stay.`
            : `${name} is to become ${seen.at(-1)!}, which is not allowed: its tags go, its words stay.`;
      return [
        {
          check: 'lost-renaming',
          severity: 'error',
          sentence,
          pointer: toPointer(['markup', 'elements', name, 'to']),
          ...(to === undefined || isCircle
            ? {}
            : {
                fix: { label: `Allow ${seen.at(-1)!}`, patch: { markup: { elements: { [seen.at(-1)!]: { outcome: 'keep', to: null } } } } },
              }),
        },
      ];
    });
  },
};
