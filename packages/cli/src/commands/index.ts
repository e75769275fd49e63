import { assignCommand } from './assign';
import { cascadeCommand } from './cascade';
import { likenessCommand } from './likeness';
import { checkCommand } from './check';
import { cleanCommand } from './clean';
import { exportCommand } from './export';
import { pasteCommand } from './paste';
import { compareCommand } from './compare';
import { proveCommand } from './prove';
import type { Command } from './command';

/** Every command, in the order in which the help lists them. */
export const COMMANDS: readonly Command[] = [
  cleanCommand,
  pasteCommand,
  checkCommand,
  proveCommand,
  compareCommand,
  assignCommand,
  exportCommand,
  cascadeCommand,
  likenessCommand,
];
