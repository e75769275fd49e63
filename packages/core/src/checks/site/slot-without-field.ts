import { kindsOf, unfilledSlots } from '../../site/places';
import type { SiteCheck } from './check';

export const slotWithoutField: SiteCheck = {
  id: 'slot-without-field',
  label: 'Slots of templates that no field fills',
  *run({ site, pageKinds }) {
    for (const kind of pageKinds?.values() ?? [])
      for (const name of unfilledSlots(kind, site.types)) {
        const at = site.types.findIndex((type) => kindsOf(type).includes(kind.id));
        yield {
          check: this.id,
          severity: 'amiss',
          sentence: `The template of ${kind.name} has a slot “${name}”, and no field of what is published there is called so.`,
          pointer: `/types/${at}/pageKind`,
          type: site.types[at]!.id,
        };
      }
  },
};
