import { TooMuch } from '@typikon/core';
import { parentPort, workerData } from 'node:worker_threads';
import { COMMANDS } from './commands/index';
import { Failure } from './failure';
import { countInputIn } from './files';
import { print } from './output';
import type { ThreadData } from './supervise';

/** Runs the command that was called, and tells the thread that watches over it how it ended. */
async function runCommand(): Promise<void> {
  const { args, bytes } = workerData as ThreadData;
  countInputIn(new Float64Array(bytes));
  const [name, ...rest] = args;
  const command = COMMANDS.find((known) => known.name === name);
  let exitCode = 0;
  let failure = '';
  try {
    if (command !== undefined) exitCode = await command.run(rest);
    else if (name === undefined || name === '--help' || name === 'help') print(help());
    else failure = `There is no command "${name}". The commands are: ${COMMANDS.map((known) => known.name).join(', ')}.`;
  } catch (error) {
    failure = sentenceOf(error);
  }
  parentPort!.postMessage({ exitCode: failure === '' ? exitCode : 2, failure });
}

/** What is said of whatever was thrown, in one line. */
function sentenceOf(error: unknown): string {
  if (error instanceof Failure || error instanceof TooMuch) return error.message;
  const { code, message } = error as NodeJS.ErrnoException;
  if (code === 'ENOSPC') return 'The output cannot be written: the disk is full.';
  if (code === 'EIO' || code === 'EBADF') return 'The output cannot be written.';
  if (error instanceof RangeError) return `This is more than can be worked on at once (${message}).`;
  return `Something in Typikon failed: ${message}. That is a fault of Typikon, not of the call.`;
}

const help = (): string =>
  `typikon: editor profiles on the command line\n\n${COMMANDS.map(({ usage, purpose }) => `  typikon ${usage}\n      ${purpose}\n`).join('\n')}\nExit codes: 0 done, 1 findings, 2 bad call or bad input.\n`;

await runCommand();
