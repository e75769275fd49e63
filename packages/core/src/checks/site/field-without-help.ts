import type { SiteCheck } from './check';

export const fieldWithoutHelp: SiteCheck = {
  id: 'field-without-help',
  label: 'Fields that nothing explains',
  *run({ fields }) {
    for (const { type, field, pointer } of fields)
      if (field.help.short.trim() === '' && field.help.long.trim() === '')
        yield {
          check: this.id,
          severity: 'note',
          sentence: `Nothing explains “${field.title}” of ${type.label} to its authors.`,
          pointer: `${pointer}/help`,
          type: type.id,
          field: field.key,
        };
  },
};
