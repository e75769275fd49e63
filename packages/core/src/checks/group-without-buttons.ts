import { toPointer } from '../profile/pointer';
import { arrangeToolbar } from '../toolbar/arrange';
import type { Check } from './check';

/** A group of the toolbar that shows nothing, or that is not there at all. */
export const groupWithoutButtons: Check = {
  id: 'group-without-buttons',
  purpose: 'Finds groups of the toolbar that have no buttons or do not exist.',
  run({ resolved }) {
    const { order, groups } = resolved.profile.toolbar;
    const shown = new Map(arrangeToolbar(resolved.profile.toolbar).map(({ id, buttons }) => [id, buttons]));
    return order.flatMap((id, index) => {
      const group = Object.hasOwn(groups, id) ? groups[id] : undefined;
      if ((shown.get(id)?.length ?? 0) > 0) return [];
      return [
        {
          check: 'group-without-buttons',
          severity: 'note',
          sentence:
            group === undefined
              ? `The toolbar names the group “${id}”, which does not exist.`
              : `The group “${group.label}” has no buttons, so authors do not see it.`,
          pointer: group === undefined ? toPointer(['toolbar', 'order', index]) : toPointer(['toolbar', 'groups', id, 'buttons']),
          fix: { label: 'Take it off the toolbar', patch: { toolbar: { order: order.filter((other) => other !== id) } } },
        },
      ];
    });
  },
};
