import { Observable } from 'rxjs';

/** What a worker posts: an answer, or how far it is. */
type Message<Progress> = { id: number; result: unknown } | { id: number; failure: string } | { id: number; progress: Progress };

/** A worker that says nothing for so long, while something is asked of it, is ended. */
export const LATE_MS = 20_000;
/** What nobody waits for any more is stopped, if it has run so long when something else is asked. */
const PATIENCE_MS = 250;
/** A request is asked so often; then whoever asked is told. */
const MOST_TRIES = 2;

interface Pending {
  task: unknown;
  tries: number;
  answer(result: unknown): void;
  fail(message: string): void;
}

/**
 * Asks a worker, one request after another. A worker that is late or ends by itself is started anew and asked again; after
 * the second time the request fails with a sentence, and the next one finds a fresh worker. Nothing waits for ever.
 */
export class WorkerClient<Task, Progress = never> {
  private worker: Worker | null = null;
  private latest = 0;
  /** In the order in which they were asked; the first is the one that the worker is at. */
  private readonly pending = new Map<number, Pending>();
  /** What the worker still works on although nobody waits for it. */
  private forgotten: { id: number; since: number } | null = null;
  private askedSince = 0;
  private watch: ReturnType<typeof setTimeout> | null = null;

  constructor(
    private readonly makeWorker: () => Worker,
    private readonly onProgress: (progress: Progress | null) => void = () => undefined,
  ) {}

  /** Starts the worker before anything is asked of it, so that it has read its code by then. */
  begin(): void {
    this.worker ??= this.start();
  }

  /** Asks once it is subscribed to; unsubscribing forgets the request. Errors with the sentence that the computation gave. */
  ask<Result>(task: Task): Observable<Result> {
    return new Observable((subscriber) => {
      const { forgotten } = this;
      if (forgotten !== null && performance.now() - forgotten.since > PATIENCE_MS) this.restart();
      const id = ++this.latest;
      if (this.pending.size === 0) this.askedSince = performance.now();
      this.pending.set(id, {
        task,
        tries: 1,
        answer: (result) => {
          subscriber.next(result as Result);
          subscriber.complete();
        },
        fail: (message) => subscriber.error(new Error(message)),
      });
      this.post(id, task);
      return () => {
        if (!this.pending.delete(id)) return;
        this.forgotten ??= { id, since: this.askedSince };
        if (this.pending.size === 0) this.rest();
      };
    });
  }

  /** Ends the worker and whatever is asked of it; no answer comes. */
  end(): void {
    this.pending.clear();
    this.rest();
    this.endWorker();
  }

  private post(id: number, task: unknown): void {
    this.begin();
    this.worker!.postMessage({ id, task });
    this.wait();
  }

  private start(): Worker {
    const worker = this.makeWorker();
    worker.addEventListener('message', ({ data }: MessageEvent<Message<Progress>>) => {
      if (worker === this.worker) this.heard(data);
    });
    worker.addEventListener('error', (event: ErrorEvent) => {
      if (worker === this.worker) this.failed(event.message || 'The computation ended by itself');
    });
    worker.addEventListener('messageerror', () => {
      if (worker === this.worker) this.failed('The answer of the computation could not be read');
    });
    return worker;
  }

  private heard(data: Message<Progress>): void {
    if (this.forgotten?.id === data.id && !('progress' in data)) this.forgotten = null;
    const pending = this.pending.get(data.id);
    if (this.pending.size > 0) this.wait();
    if (pending === undefined) return;
    if ('progress' in data) {
      this.onProgress(data.progress);
      return;
    }
    this.pending.delete(data.id);
    this.askedSince = performance.now();
    if (this.pending.size === 0) this.rest();
    else this.onProgress(null);
    if ('failure' in data) pending.fail(data.failure);
    else pending.answer(data.result);
  }

  /** The request that the worker was at counts as tried; all are asked of a new one. */
  private failed(why: string): void {
    const [first] = this.pending;
    if (first !== undefined) {
      const [id, pending] = first;
      pending.tries++;
      if (pending.tries > MOST_TRIES) {
        this.pending.delete(id);
        this.restart();
        pending.fail(`${why}, twice. Nothing that you entered is lost; try again.`);
        return;
      }
    }
    this.restart();
  }

  private restart(): void {
    this.endWorker();
    this.askedSince = performance.now();
    if (this.pending.size === 0) this.rest();
    for (const [id, { task }] of this.pending) this.post(id, task);
  }

  private wait(): void {
    if (this.watch !== null) clearTimeout(this.watch);
    this.watch = setTimeout(() => this.failed('The computation did not answer'), LATE_MS);
  }

  private rest(): void {
    if (this.watch !== null) clearTimeout(this.watch);
    this.watch = null;
    this.onProgress(null);
  }

  private endWorker(): void {
    this.worker?.terminate();
    this.worker = null;
    this.forgotten = null;
  }
}
