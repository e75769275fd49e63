import { fieldPlaces } from '../../site/places';
import type { SiteCheck } from './check';

export const blocksAmongWords: SiteCheck = {
  id: 'blocks-among-words',
  label: 'Rich text that is printed where only words can stand',
  *run({ fields, pageKinds }) {
    if (pageKinds === undefined) return;
    for (const { type, field, pointer } of fields)
      for (const { name, path, isForWords } of field.kind === 'rich' ? (fieldPlaces(type, pageKinds).get(field.key) ?? []) : [])
        if (isForWords)
          yield {
            check: this.id,
            severity: 'amiss',
            sentence: `${name} prints “${field.title}” of ${type.label} in ${path}, where paragraphs and lists cannot stand.`,
            pointer,
            type: type.id,
            field: field.key,
          };
  },
};
