import { fieldPlaces } from '../../site/places';
import type { SiteCheck } from './check';

export const fieldOnNoPage: SiteCheck = {
  id: 'field-on-no-page',
  label: 'Fields that no template prints',
  *run({ fields, pageKinds }) {
    if (pageKinds === undefined) return;
    for (const { type, field, pointer } of fields)
      if (fieldPlaces(type, pageKinds).get(field.key)?.length === 0)
        yield {
          check: this.id,
          severity: 'amiss',
          sentence: `No template prints “${field.title}” of ${type.label}: what authors write there is seen by nobody.`,
          pointer,
          type: type.id,
          field: field.key,
        };
  },
};
