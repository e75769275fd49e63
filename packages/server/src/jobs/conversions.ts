import type { Lane } from '../lanes/lane';
import type { JobHandler } from './runner';

/** Goes on with a conversion, by its number. */
export const CONVERT = 'convert';
/** So many texts are done by one task of a thread. */
const AT_ONCE = 20;

/**
 * Conversions in the background: each text is marked when it is done, so that a process that is killed loses none, and another goes on.
 *
 * @param ended told when one has come to its end
 */
export function conversionJobs(lane: Pick<Lane, 'run'>, ended: () => void): Record<string, JobHandler> {
  return {
    async [CONVERT](subject, goesOn) {
      while ((await lane.run<number>('convertSome', { id: Number(subject), most: AT_ONCE })) === AT_ONCE && (await goesOn()));
      ended();
    },
  };
}
