import { Injectable, InjectionToken, inject, type OnDestroy } from '@angular/core';
import type { LikenessTask } from './likeness-tasks';

/** Makes the worker. A token, so that tests can put something else in its place. */
export const LIKENESS_WORKER = new InjectionToken<() => Worker>('likeness worker');

type Answer = { id: number; result: unknown } | { id: number; failure: string };

/** Compares in a worker, which keeps what it compared last. */
@Injectable()
export class LikenessRunner implements OnDestroy {
  private readonly worker = inject(LIKENESS_WORKER)();
  private latest = 0;
  private readonly waiting = new Map<number, { done: (result: unknown) => void; failed: (error: Error) => void }>();

  constructor() {
    this.worker.addEventListener('message', ({ data }: MessageEvent<Answer>) => {
      const one = this.waiting.get(data.id);
      this.waiting.delete(data.id);
      if ('failure' in data) one?.failed(new Error(data.failure));
      else one?.done(data.result);
    });
    this.worker.addEventListener('error', (event) => {
      for (const { failed } of this.waiting.values()) failed(new Error(event.message || 'The comparison failed.'));
      this.waiting.clear();
    });
  }

  /** Errors with the sentence that the computation gave. */
  ask<Result>(task: LikenessTask): Promise<Result> {
    const id = ++this.latest;
    return new Promise<Result>((done, failed) => {
      this.waiting.set(id, { done: done as (result: unknown) => void, failed });
      this.worker.postMessage({ id, task });
    });
  }

  ngOnDestroy(): void {
    this.worker.terminate();
  }
}
