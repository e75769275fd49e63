import { toPointer } from '../profile/pointer';
import { SHORTCUTS } from '../profile/shortcuts';
import { patchToAllow } from '../toolbar/needs';
import type { Check } from './check';

/** A typed shortcut that is on although the rules remove what it would make: the author's marks stay on the page as they were typed. */
export const shortcutWithoutMarkup: Check = {
  id: 'shortcut-without-markup',
  purpose: 'Finds typed shortcuts whose markup the rules remove.',
  run({ resolved, rules }) {
    const { shortcuts } = resolved.profile.toolbar;
    return SHORTCUTS.flatMap(({ id, typed, makes, elements }) => {
      const isKept = elements.some((element) => rules.element(element).outcome === 'keep' && rules.element(element).name === element);
      if (shortcuts[id] !== true || elements.length === 0 || isKept) return [];
      const first = elements.includes('h2') ? 'h2' : elements[0]!;
      const isCapped = ['house-limits', 'safety-floor'].includes(rules.element(first).by.layer);
      const parts = first === 'ul' || first === 'ol' ? [{ element: first }, { element: 'li' }] : [{ element: first }];
      return [
        {
          check: 'shortcut-without-markup',
          severity: 'warning' as const,
          sentence: `Typing ${typed} is to make ${makes}, but the rules keep none of ${elements.join(', ')}, so the marks stay on the page as they were typed.`,
          pointer: toPointer(['toolbar', 'shortcuts', id]),
          fix: isCapped
            ? { label: 'Switch it off', patch: { toolbar: { shortcuts: { [id]: false } } } }
            : { label: `Allow ${first}`, patch: patchToAllow(parts, resolved) },
        },
      ];
    });
  },
};
