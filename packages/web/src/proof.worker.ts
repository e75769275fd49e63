import '@typikon/core/without-eval';
import { runTask } from './state/proof-tasks';
import type { WorkerTask } from './state/types';

addEventListener('message', ({ data }: MessageEvent<{ id: number; task: WorkerTask }>) => {
  const { id, task } = data;
  const begin = performance.now();
  // What is done in a moment needs no telling.
  const onProgress = (done: number, steps: number): void => {
    if (performance.now() - begin > 300) postMessage({ id, progress: { done, steps } });
  };
  runTask(task, (row) => postMessage({ id, row }), onProgress).then(
    (result) => postMessage({ id, result }),
    (error: unknown) => postMessage({ id, failure: error instanceof Error ? error.message : String(error) }),
  );
});
