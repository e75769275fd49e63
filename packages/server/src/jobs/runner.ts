import type { Logger } from 'pino';
import { isLost } from '../db/transaction';
import type { ClaimedJob, JobQueue, Kinds } from './queue';

/**
 * Does one job.
 *
 * @param goesOn says that it is still worked on; false where it is to be left as it is
 */
export type JobHandler = (subject: string, goesOn: () => Promise<boolean>) => Promise<void>;

/** So long the queue is left alone when it was empty, in milliseconds. */
const REST_MS = 1000;

/** Works through the queue, or through some kinds of jobs in it, one job after another, for as long as the process lives. */
export class JobRunner {
  private isStopped = false;
  private wake: () => void = () => undefined;
  private running: Promise<void> | null = null;

  constructor(
    private readonly queue: JobQueue,
    private readonly handlers: Readonly<Record<string, JobHandler>>,
    private readonly log: Logger,
    private readonly kinds: Kinds = { except: [] },
  ) {}

  start(): void {
    this.running ??= this.work();
  }

  /** Something was asked for: it need not wait until the queue is looked at by itself. */
  nudge(): void {
    this.wake();
  }

  async stop(): Promise<void> {
    this.isStopped = true;
    this.wake();
    await this.running;
  }

  private async work(): Promise<void> {
    while (!this.isStopped) {
      let job: ClaimedJob | null = null;
      try {
        job = await this.queue.claim(this.kinds);
        if (job !== null) await this.one(job);
      } catch (error) {
        // Without a database there is nothing to be done, and everything is still there when it comes back.
        if (!isLost(error)) this.log.error({ err: error }, 'job queue');
        job = null;
      }
      if (job === null && !this.isStopped)
        await new Promise<void>((done) => {
          const timer = setTimeout(done, REST_MS);
          timer.unref();
          this.wake = () => {
            clearTimeout(timer);
            done();
          };
        });
    }
  }

  private async one(job: ClaimedJob): Promise<void> {
    const goesOn = async (): Promise<boolean> => !this.isStopped && (await this.queue.extend(job));
    try {
      const handler = this.handlers[job.kind];
      if (handler === undefined) throw new Error(`Nobody knows how to do “${job.kind}”.`);
      await handler(job.subject, goesOn);
    } catch (error) {
      if (isLost(error)) throw error;
      if (this.isStopped) await this.queue.giveBack(job);
      else {
        this.log.warn({ err: error, job: job.kind, subject: job.subject, attempts: job.attempts }, 'job failed');
        await this.queue.failed(job, error instanceof Error ? error.message : String(error));
      }
      return;
    }
    if (this.isStopped) await this.queue.giveBack(job);
    else await this.queue.done(job);
  }
}
