import { parseArgs, type ParseArgsConfig } from 'node:util';
import { Failure } from './failure';
import { nearest } from './nearest';

type Options = NonNullable<ParseArgsConfig['options']>;

/** Parses arguments strictly; a wrong one becomes a Failure with the usage. */
export function readArguments<const T extends Options>(args: string[], options: T, usage: string) {
  try {
    return parseArgs({ args, options, allowPositionals: true, strict: true });
  } catch (error) {
    const sentence = (error as Error).message.split('. ')[0]!.replace(/\.$/, '');
    const unknown = /^Unknown option '--([^']+)'/.exec(sentence)?.[1];
    const meant = unknown === undefined ? null : nearest(unknown, Object.keys(options));
    throw new Failure(`${sentence}.${meant === null ? '' : ` Did you mean --${meant}?`} Usage: typikon ${usage}`);
  }
}

/** The value of an option that must be given. */
export function required(value: string | undefined, option: string, usage: string): string {
  if (value === undefined) throw new Failure(`The option --${option} is missing. Usage: typikon ${usage}`);
  return value;
}
