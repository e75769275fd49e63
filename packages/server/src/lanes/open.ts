import { Lane } from './lane';
import type { WorkerSettings } from './task';

const MB = 1024 * 1024;

/**
 * The threads of a server: one for short work, one for what may take seconds, one for the background. Together with the
 * thread that answers small requests they stay within the memory that a server may take.
 *
 * @param waitMs so long a thread for heavy work waits for more of it before it ends
 */
export function openLanes(settings: WorkerSettings, waitMs: number): { quick: Lane; heavy: Lane; background: Lane } {
  const file = new URL('./worker.js', import.meta.url);
  const common = { settings, file, threads: 1 };
  return {
    quick: new Lane({
      ...common,
      name: 'quick',
      deadlineMs: 20_000,
      idleMs: 300_000,
      isKept: true,
      memoryMb: 96,
      queue: 64,
      bytes: 16 * MB,
    }),
    heavy: new Lane({ ...common, name: 'heavy', deadlineMs: 30_000, idleMs: waitMs, memoryMb: 256, queue: 16, bytes: 48 * MB }),
    background: new Lane({ ...common, name: 'background', deadlineMs: 30_000, idleMs: waitMs, memoryMb: 160, queue: 4, bytes: 16 * MB }),
  };
}
