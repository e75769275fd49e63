import { TooMuch } from '@typikon/core';
import { COMMANDS } from './commands/index';
import { Failure } from './failure';
import { helpOf, helpOfAll, version } from './help';
import { nearest } from './nearest';
import { print } from './output';

/** How a command ended. */
export interface Ending {
  /** 0 done, 1 findings, 2 it could not be done. */
  exitCode: number;
  /** A sentence where the command could not do its work; empty where it did. */
  failure: string;
}

/** Runs the command that is called by what stands after `typikon`. */
export function call(args: readonly string[]): Ending {
  const [name, ...rest] = args;
  const command = COMMANDS.find((known) => known.name === name);
  let exitCode = 0;
  let failure = '';
  try {
    if (command !== undefined && isHelp(rest)) print(helpOf(command));
    else if (command !== undefined) exitCode = command.run(rest);
    else if (name === undefined || name === 'help' || isHelp([name])) print(helpOfAll(COMMANDS));
    else if (name === '--version' || name === '-V') print(`${version()}\n`);
    else failure = noCommand(name);
  } catch (error) {
    failure = sentenceOf(error);
  }
  return { exitCode: failure === '' ? exitCode : 2, failure };
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
