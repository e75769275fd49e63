import type { Lane } from '../lanes/lane';
import type { JobHandler } from './runner';

/** Writes composed documents of the demo until there are so many. */
export const DEMO_DOCUMENTS = 'demo-documents';
/** So many are written by one task of a thread. */
const AT_ONCE = 300;

/**
 * Makes a large demo in the background; it goes on where it was stopped.
 *
 * @param told how many there are, and of how many
 */
export function demoJobs(lane: Pick<Lane, 'run'>, told: (written: number, of: number) => void): Record<string, JobHandler> {
  return {
    async [DEMO_DOCUMENTS](subject, goesOn) {
      const upTo = Number(subject);
      for (let written = 0; written < upTo;) {
        written = await lane.run<number>('growDemo', { upTo, most: AT_ONCE });
        told(Math.min(written, upTo), upTo);
        if (!(await goesOn())) return;
      }
    },
  };
}
