import { TooMuch } from '@typikon/core';
import { parentPort, workerData } from 'node:worker_threads';
import { COMMANDS } from './commands/index';
import { Failure } from './failure';
import { countInputIn } from './files';
import { helpOf, helpOfAll, version } from './help';
import { nearest } from './nearest';
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
    if (command !== undefined && isHelp(rest)) print(helpOf(command));
    else if (command !== undefined) exitCode = await command.run(rest);
    else if (name === undefined || name === 'help' || isHelp([name])) print(helpOfAll(COMMANDS));
    else if (name === '--version' || name === '-V') print(`${version()}\n`);
    else failure = noCommand(name);
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

/** Whether help is asked for; behind `--` stands what is no option. */
const isHelp = (args: readonly string[]): boolean =>
  args.slice(0, args.includes('--') ? args.indexOf('--') : undefined).some((arg) => arg === '--help' || arg === '-h');

function noCommand(name: string): string {
  const names = COMMANDS.map((known) => known.name);
  const meant = nearest(name, names);
  return `There is no command "${name}".${meant === null ? '' : ` Did you mean "${meant}"?`} The commands are: ${names.join(', ')}.`;
}

await runCommand();
