import type { SiteCheck } from './check';

export const profileGone: SiteCheck = {
  id: 'profile-gone',
  label: 'Statements that name a profile that is not there, or has mistakes',
  *run({ site, profiles }) {
    for (const [at, { profiles: named }] of site.assignments.entries())
      for (const [place, id] of named.entries())
        if (!profiles.has(id))
          yield {
            check: this.id,
            severity: 'amiss',
            sentence: `Statement ${at + 1} gives the profile “${id}”, which is not there or has mistakes: nothing can be written with it.`,
            pointer: `/assignments/${at}/profiles/${place}`,
            statement: at,
          };
  },
};
