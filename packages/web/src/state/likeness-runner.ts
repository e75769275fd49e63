import { Injectable, InjectionToken, inject, type OnDestroy } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import { WorkerClient } from './worker-client';
import type { LikenessTask } from './likeness-tasks';

/** Makes the worker. A token, so that tests can put something else in its place. */
export const LIKENESS_WORKER = new InjectionToken<() => Worker>('likeness worker');

/** Compares in a worker, which keeps what it compared last. */
@Injectable()
export class LikenessRunner implements OnDestroy {
  /** What was compared last: a worker that was started anew has to be told again. */
  private compared: LikenessTask | null = null;
  private readonly makeWorker = inject(LIKENESS_WORKER);
  private readonly client = new WorkerClient<LikenessTask>(() => {
    const worker = this.makeWorker();
    if (this.compared !== null) worker.postMessage({ id: 0, task: this.compared });
    return worker;
  });

  /** Errors with the sentence that the computation gave. */
  async ask<Result>(task: LikenessTask): Promise<Result> {
    const result = await firstValueFrom(this.client.ask<Result>(task));
    if (task.kind === 'compare') this.compared = task;
    return result;
  }

  ngOnDestroy(): void {
    this.client.end();
  }
}
