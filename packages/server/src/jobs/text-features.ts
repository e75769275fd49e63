import type { Lane } from '../lanes/lane';
import type { JobHandler } from './runner';

/** Writes into the index what texts hold that are not there yet. */
export const INDEX_TEXTS = 'text-features';
/** So many are indexed by one task of a thread. */
const AT_ONCE = 100;

/**
 * Indexes texts in the background, from where it was left: those that came before there was an index, and all of them once what is
 * taken of a text is another thing.
 */
export function featureJobs(lane: Pick<Lane, 'run'>, quiet: () => Promise<void> = async () => {}): Record<string, JobHandler> {
  return {
    async [INDEX_TEXTS](_subject, goesOn) {
      do await quiet();
      while ((await lane.run<number>('index', AT_ONCE)) > 0 && (await goesOn()));
    },
  };
}
