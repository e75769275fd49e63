import { deserialize, serialize } from 'node:v8';
import { runTask } from '../src/state/proof-tasks';
import type { WorkerTask } from '../src/state/types';

/** What a worker does, in the page: a test sees real answers. */
export class InPageWorker extends EventTarget implements Pick<Worker, 'postMessage' | 'terminate'> {
  private static running = 0;
  private isEnded = false;

  static isBusy(): boolean {
    return this.running > 0;
  }

  /** Until what is waiting for its turn has had it, and all that was asked is answered. */
  static async rest(): Promise<void> {
    do await new Promise((done) => setTimeout(done));
    while (this.running > 0);
  }

  postMessage({ id, task }: { id: number; task: WorkerTask }): void {
    InPageWorker.running++;
    const tell = (data: object): void => {
      if (!this.isEnded) this.dispatchEvent(new MessageEvent('message', { data: deserialize(serialize({ id, ...data })) }));
    };
    void runTask(task, (row) => tell({ row }))
      .then(
        (result) => tell({ result }),
        (error: Error) => tell({ failure: error.message }),
      )
      .finally(() => InPageWorker.running--);
  }

  terminate(): void {
    this.isEnded = true;
  }
}
