/** One command of the command line. */
export interface Command {
  name: string;
  /** How it is called, after `typikon`. */
  usage: string;
  /** What it does, in a sentence. */
  purpose: string;
  /** How it may be called, after `typikon`, with files that ship with Typikon. */
  examples: readonly string[];
  /** Does the work. Returns the exit code: 0 done, 1 findings. Throws a Failure for a bad call or bad input. */
  run(args: string[]): number;
}
