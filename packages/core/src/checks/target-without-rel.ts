import { toPointer } from '../profile/pointer';
import { keptRules, type Check } from './check';

/** Links that open a window without `rel`: older browsers let the new page steer the old one (HTML, section 4.6.7.9 "noopener"). */
export const targetWithoutRel: Check = {
  id: 'target-without-rel',
  purpose: 'Finds links that may open a new window without rel="noopener".',
  run(context) {
    const { links, attributes: general } = context.resolved.profile.markup;
    if (links.newWindow !== 'as-written') return [];
    return keptRules(context).flatMap(([name, { attributes = {}, forced = {} }]) => {
      if (!['a', 'area', 'form'].includes(name) || (attributes['target'] === undefined && general['target'] === undefined)) return [];
      const rel = forced['rel'];
      if (rel !== undefined && rel.when !== 'absent' && /\bno(opener|referrer)\b/.test(rel.value)) return [];
      return [
        {
          check: 'target-without-rel',
          severity: 'warning',
          sentence: `target is allowed on ${name}, but rel="noopener" is not put on links that open a new window.`,
          pointer: toPointer([
            'markup',
            ...(attributes['target'] === undefined ? ['attributes'] : ['elements', name, 'attributes']),
            'target',
          ]),
          fix: {
            label: 'Put rel="noopener" on such links',
            patch: { markup: { elements: { [name]: { forced: { rel: { value: 'noopener', when: 'new-window' } } } } } },
          },
        },
      ];
    });
  },
};
