import { Worker } from 'node:worker_threads';
import type { Ending } from './call';

/** What a command's thread is begun with. */
export interface ThreadData {
  args: string[];
  /** One number: how much input was read so far, in bytes. */
  bytes: SharedArrayBuffer;
}

/** A command may take so long, and so much longer for each megabyte of its input, in milliseconds. */
const PATIENCE_MS = 10_000;
const PATIENCE_MS_PER_MB = 3000;
/** So many times longer by the clock, where others have the processor. */
const MOST_PATIENCE = 3;
const MB = 1024 * 1024;
/** So much memory a command's values may take, in MB. */
const MEMORY_MB = 2048;

/**
 * Runs a command in a thread and ends with its exit code. Whatever happens there, what is told is one line and exit code 2:
 * also where it takes too long for what it was given, or too much memory.
 *
 * @param file what the thread runs
 */
export function supervise(file: URL, args: string[]): void {
  const bytes = new SharedArrayBuffer(8);
  const read = new Float64Array(bytes);
  const data: ThreadData = { args, bytes };
  const thread = new Worker(file, { workerData: data, resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB, stackSizeMb: 8 } });
  const begin = Date.now();
  const allowedMs = (): number => PATIENCE_MS + (PATIENCE_MS_PER_MB * read[0]!) / MB;
  const input = (): string => `${(read[0]! / MB).toFixed(1)} MB of input`;
  let isOver = false;
  const end = ({ exitCode, failure }: Ending): void => {
    if (isOver) return;
    isOver = true;
    clearInterval(watch);
    process.exitCode = exitCode;
    if (failure !== '') say(failure);
    void thread.terminate();
  };
  const watch = setInterval(() => {
    const wallMs = Date.now() - begin;
    const { user, system } = process.cpuUsage();
    // On a machine that is busy with other things the clock alone says nothing of how much a command asks.
    if (wallMs > allowedMs() * MOST_PATIENCE || (wallMs > allowedMs() && (user + system) / 1000 > allowedMs()))
      end({
        exitCode: 2,
        failure: `It took longer than ${Math.round(allowedMs() / 1000)} seconds for ${input()} and was ended. Give it less at once.`,
      });
  }, 100);
  thread.on('message', end);
  thread.on('error', (error: NodeJS.ErrnoException) =>
    end({
      exitCode: 2,
      failure:
        error.code === 'ERR_WORKER_OUT_OF_MEMORY'
          ? `It needed more than ${MEMORY_MB} MB of memory for ${input()} and was ended. Give it less at once.`
          : `Something in Typikon failed: ${error.message}.`,
    }),
  );
  // A thread that ends without a word had nobody left to write to.
  thread.on('exit', () => end({ exitCode: 0, failure: '' }));
}

function say(message: string): void {
  try {
    process.stderr.write(`typikon: ${message.replace(/\s*\n\s*/g, ' ')}\n`);
  } catch {
    // Nobody listens.
  }
}
