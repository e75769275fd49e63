import { RELEASE, type ScheduledReleases } from '../editions/scheduled';
import type { JobHandler } from './runner';

/**
 * Releases drafts when their time has come.
 *
 * @param ended told after each: pages may look otherwise
 */
export function releaseJobs(releases: Pick<ScheduledReleases, 'release'>, ended: () => void): Record<string, JobHandler> {
  return {
    async [RELEASE](subject) {
      await releases.release(Number(subject));
      ended();
    },
  };
}
