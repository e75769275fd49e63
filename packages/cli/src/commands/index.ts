import { assignCommand } from './assign';
import { cascadeCommand } from './cascade';
import { likenessCommand } from './likeness';
import { checkCommand } from './check';
import { cleanCommand } from './clean';
import { exportCommand } from './export';
import { pasteCommand } from './paste';
import { compareCommand } from './compare';
import { fitCommand } from './fit';
import { proveCommand } from './prove';
import { reachCommand } from './reach';
import type { Command } from './command';

/** Every command, in the order in which the help lists them. */
export const COMMANDS: readonly Command[] = [
  cleanCommand,
  pasteCommand,
  checkCommand,
  proveCommand,
  compareCommand,
  reachCommand,
  fitCommand,
  assignCommand,
  exportCommand,
  cascadeCommand,
  likenessCommand,
];
