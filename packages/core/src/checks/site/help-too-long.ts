import type { SiteCheck } from './check';

/** Help that stands beside a field is read at a glance, or not at all: about two lines, in letters. */
export const LONGEST_HELP = 140;

export const helpTooLong: SiteCheck = {
  id: 'help-too-long',
  label: 'Help that is too long to read beside a field',
  *run({ fields }) {
    for (const { type, field, pointer } of fields)
      if (field.help.short.length > LONGEST_HELP)
        yield {
          check: this.id,
          severity: 'note',
          sentence: `The help of “${field.title}” has ${field.help.short.length} letters; beside a field ${LONGEST_HELP} are read. The rest can open in place.`,
          pointer: `${pointer}/help/short`,
          type: type.id,
          field: field.key,
        };
  },
};
