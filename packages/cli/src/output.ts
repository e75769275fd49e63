import { writeSync } from 'node:fs';

/** Writes to standard output, whole and in order, also where it is a pipe that is slow to read. */
export function print(text: string): void {
  write(1, text);
}

function write(descriptor: 1 | 2, text: string): void {
  const bytes = Buffer.from(text, 'utf8');
  for (let written = 0; written < bytes.length;) {
    try {
      written += writeSync(descriptor, bytes, written);
    } catch (error) {
      // Whoever read it has read enough.
      if ((error as NodeJS.ErrnoException).code === 'EPIPE') process.exit(0);
      if ((error as NodeJS.ErrnoException).code !== 'EAGAIN') throw error;
      Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 5);
    }
  }
}

/** Writes a remark to standard error, so that it stands beside the output and not in it. */
export function warn(text: string): void {
  write(2, text);
}
