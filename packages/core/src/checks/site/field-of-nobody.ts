import type { SiteCheck } from './check';

export const fieldOfNobody: SiteCheck = {
  id: 'field-of-nobody',
  label: 'Fields in which nobody may write',
  *run({ site, fields, assignments }) {
    for (const { type, field, pointer } of fields) {
      const isWritten = [null, ...site.roles.map(({ id }) => id)].some(
        (role) => assignments.why({ roles: role === null ? [] : [role], type: type.id, field: field.key }).profile !== null,
      );
      if (!isWritten)
        yield {
          check: this.id,
          severity: 'amiss',
          sentence: `Nobody may write in “${field.title}” of ${type.label}: no statement fits any role.`,
          pointer,
          type: type.id,
          field: field.key,
        };
    }
  },
};
