import { toPointer } from '../profile/pointer';
import type { Check } from './check';

/** Frames from anywhere: an author, or whoever an author pastes from, decides what readers load. */
export const frameWithoutHost: Check = {
  id: 'frame-without-host',
  purpose: 'Finds frames that are allowed without naming the hosts they may come from.',
  run({ resolved, rules }) {
    if (rules.element('iframe').outcome !== 'keep' || rules.element('iframe').name !== 'iframe') return [];
    const { markup } = resolved.profile;
    const own = markup.elements['iframe']?.attributes ?? {};
    const src = own['src'] ?? markup.attributes['src'];
    const at = ['markup', 'elements', 'iframe'];
    if (src === undefined)
      return [
        {
          check: 'frame-without-host',
          severity: 'error',
          sentence: 'iframe is allowed, but not its src: every frame stays empty.',
          pointer: toPointer(at),
        },
      ];
    if ((src.test === 'url' && src.hosts !== undefined) || src.test === 'list' || src.test === 'pattern') return [];
    return [
      {
        check: 'frame-without-host',
        severity: 'error',
        sentence: 'iframe is allowed with an address at any host. Name the hosts whose pages may stand in ours.',
        pointer: toPointer([...at, 'attributes', 'src']),
      },
    ];
  },
};
