import type { Sequelize } from 'sequelize';
import { deleteOutdated, isLimited } from '../documents/retention';
import { loadSite } from '../site/repository';
import type { JobHandler } from './runner';

/** Deletes versions that the content types do not keep. */
export const OLD_VERSIONS = 'old-versions';
/** So many are deleted at once. */
const AT_ONCE = 500;

/** Deletes versions in the background, some at a time: what is broken off goes on with the next. */
export function versionJobs(sequelize: Sequelize): Record<string, JobHandler> {
  return {
    async [OLD_VERSIONS](_subject, goesOn) {
      const { site } = await sequelize.transaction((transaction) => loadSite(transaction));
      for (const { id, versions } of site.types)
        if (isLimited(versions)) while ((await deleteOutdated(sequelize, id, versions, AT_ONCE)) === AT_ONCE) if (!(await goesOn())) return;
    },
  };
}
