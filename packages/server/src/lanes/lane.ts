import { Piscina } from 'piscina';
import type { WorkerSettings } from './task';

export interface LaneOptions {
  /** What the lane is for, in a word; it names the threads. */
  name: string;
  /** The most threads at once. */
  threads: number;
  /** So long one task may take, in milliseconds. */
  deadlineMs: number;
  /** So much memory the code of one thread may hold, in MB; what it holds beside that is bounded by the size of requests. */
  memoryMb: number;
  /** So long a thread with nothing to do is kept, with what it has in memory, in milliseconds. */
  idleMs: number;
  /** Whether one thread is always kept ready. */
  isKept?: boolean;
  /** So many tasks may wait. */
  queue: number;
  /** So many bytes of waiting and running tasks are held at once. */
  bytes: number;
  settings: WorkerSettings;
  /** The file that the threads run. */
  file: URL;
}

/** Why a lane gave no answer. */
export class LaneFailure extends Error {
  constructor(
    readonly kind: 'deadline' | 'memory' | 'full' | 'crashed',
    message: string,
    options?: ErrorOptions,
  ) {
    super(message, options);
  }
}

/**
 * Worker threads for one kind of work, each with a deadline and a limit of memory. Work that passes one of them is ended with
 * its thread, and nothing else is: the server goes on, and the next task gets a fresh thread.
 */
export class Lane {
  private readonly pool: Piscina;
  private held = 0;
  private running = 0;

  constructor(readonly options: LaneOptions) {
    this.pool = new Piscina({
      filename: options.file.href,
      minThreads: options.isKept === true ? 1 : 0,
      maxThreads: options.threads,
      idleTimeout: options.idleMs,
      maxQueue: options.queue,
      concurrentTasksPerWorker: 1,
      workerData: options.settings,
      resourceLimits: { maxOldGenerationSizeMb: options.memoryMb, maxYoungGenerationSizeMb: 16, stackSizeMb: 4 },
      closeTimeout: 2000,
      // A thread that waits must still see that the database has closed a connection.
      atomics: 'disabled',
    });
    // A thread that ends by itself has told its own task; nobody else is to hear of it.
    this.pool.on('error', () => undefined);
  }

  /**
   * Runs a task in a thread.
   *
   * @param name which of the worker's functions
   * @param transfer what goes over to the thread instead of being copied
   * @param bytes how much of the lane's room it takes
   * @throws LaneFailure where it was ended or could not be begun; else what the worker's function throws
   */
  async run<Result>(name: string, task: unknown, transfer: readonly ArrayBuffer[] = [], bytes = 0): Promise<Result> {
    if (this.held + bytes > this.options.bytes && this.held > 0)
      throw new LaneFailure('full', 'So much is being worked on at this moment that no more can wait.');
    this.held += bytes;
    this.running++;
    const abort = new AbortController();
    // The deadline counts from when a thread takes the task; what waits too long in the queue gives up as well.
    const timer = setTimeout(() => abort.abort(), this.options.deadlineMs + this.waitMs());
    try {
      return (await this.pool.run(task, { name, signal: abort.signal, transferList: [...transfer] })) as Result;
    } catch (error) {
      throw asFailure(error, this.options);
    } finally {
      clearTimeout(timer);
      this.held -= bytes;
      this.running--;
    }
  }

  /** How long a new task may have to wait for those before it, in milliseconds. */
  private waitMs(): number {
    return this.pool.queueSize === 0 && this.pool.threads.length < this.options.threads ? 0 : this.options.deadlineMs;
  }

  /** Waits until no task is under way here, but no longer than this many milliseconds. */
  async quiet(atMostMs: number): Promise<void> {
    for (const begin = Date.now(); this.running > 0 && Date.now() - begin < atMostMs;) await new Promise((done) => setTimeout(done, 100));
  }

  async stop(): Promise<void> {
    await this.pool.destroy();
  }
}

function asFailure(error: unknown, { deadlineMs, memoryMb, name }: LaneOptions): unknown {
  const { name: kind = '', code = '', message = '' } = (error ?? {}) as { name?: string; code?: string; message?: string };
  if (kind === 'AbortError')
    return new LaneFailure('deadline', `It took longer than ${deadlineMs / 1000} seconds and was ended.`, { cause: error });
  if (code === 'ERR_WORKER_OUT_OF_MEMORY')
    return new LaneFailure('memory', `It needed more than ${memoryMb} MB of memory and was ended.`, { cause: error });
  if (/queue is at limit/i.test(message))
    return new LaneFailure('full', 'So much is being worked on at this moment that no more can wait.');
  if (/Terminating worker thread|Worker .*exited|worker exited/i.test(message))
    return new LaneFailure('crashed', `The ${name} thread ended.`, { cause: error });
  return error;
}
