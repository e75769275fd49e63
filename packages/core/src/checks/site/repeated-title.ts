import type { SiteCheck } from './check';

export const repeatedTitle: SiteCheck = {
  id: 'repeated-title',
  label: 'Fields of one type that are called the same',
  *run({ fields }) {
    const seen = new Set<string>();
    for (const { type, field, pointer } of fields) {
      const key = `${type.id} ${field.title.trim().toLowerCase()}`;
      if (seen.has(key))
        yield {
          check: this.id,
          severity: 'amiss',
          sentence: `Two fields of ${type.label} are called “${field.title}”: authors cannot tell them apart.`,
          pointer: `${pointer}/title`,
          type: type.id,
          field: field.key,
        };
      seen.add(key);
    }
  },
};
