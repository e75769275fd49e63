import { toPointer } from '../profile/pointer';
import { arrangeToolbar } from '../toolbar/arrange';
import type { Check, Finding } from './check';

/** A menu button that has nothing to offer, or styles that no button offers. */
export const menuWithoutEntries: Check = {
  id: 'menu-without-entries',
  purpose: 'Finds menus on the toolbar that stay empty, and styles without a menu.',
  run({ resolved }) {
    const { toolbar, styles } = resolved.profile;
    const shown = new Set(arrangeToolbar(toolbar).flatMap(({ buttons }) => buttons));
    const findings: Finding[] = [];
    const add = (sentence: string, keys: string[]): void => {
      findings.push({ check: 'menu-without-entries', severity: 'warning', sentence, pointer: toPointer(keys) });
    };
    if (shown.has('styles') && Object.keys(styles).length === 0)
      add('The button “Styles” is on, but this profile names no styles, so its menu stays empty.', ['toolbar', 'groups']);
    if (!shown.has('styles') && Object.keys(styles).length > 0)
      add('This profile names styles, but no button offers them: “Styles” is not on the toolbar.', ['styles']);
    for (const [id, label] of [
      ['text-colour', 'Text colour'],
      ['background-colour', 'Background colour'],
    ] as const)
      if (shown.has(id) && toolbar.options[id].colours.length === 0)
        add(`The button “${label}” is on, but it has no colours to offer.`, ['toolbar', 'options', id, 'colours']);
    if (shown.has('block-kind') && toolbar.options['block-kind'].levels.length === 0)
      add('The menu “Kind of block” offers no heading level.', ['toolbar', 'options', 'block-kind', 'levels']);
    return findings;
  },
};
