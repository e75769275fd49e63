import { toPointer } from '../profile/pointer';
import type { Check } from './check';

/** Pictures without a text alternative are lost on those who cannot see them (WCAG 2.2, success criterion 1.1.1). */
export const pictureWithoutAlternative: Check = {
  id: 'picture-without-alternative',
  purpose: 'Finds pictures that may be stored without an alternative text.',
  run({ resolved, rules }) {
    const rule = rules.element('img');
    if (rule.outcome !== 'keep' || rule.name !== 'img') return [];
    const required = rule.demands?.required.some(({ name }) => name === 'alt') ?? false;
    if (required) return [];
    const hasAlt = rule.attributes.has('alt');
    const own = resolved.profile.markup.elements['img']?.attributes?.['alt'];
    return [
      {
        check: 'picture-without-alternative',
        severity: 'warning',
        sentence: hasAlt
          ? 'img is allowed without alt: a picture can be stored that says nothing to those who cannot see it.'
          : 'alt on img is not allowed, so every picture says nothing to those who cannot see it.',
        pointer: toPointer(['markup', 'elements', 'img']),
        fix: {
          label: 'Require alt, empty where an author gives none',
          patch: {
            markup: {
              elements: {
                img: {
                  ...(own === undefined && !hasAlt ? { attributes: { alt: { test: 'text' } } } : {}),
                  required: { alt: { otherwise: 'add', value: '' } },
                },
              },
            },
          },
        },
      },
    ];
  },
};
