import { COMMANDS } from './commands/index';
import { Failure } from './failure';
import { print } from './output';

const [name, ...args] = process.argv.slice(2);
const command = COMMANDS.find((known) => known.name === name);

if (command !== undefined) {
  try {
    process.exitCode = await command.run(args);
  } catch (error) {
    if (!(error instanceof Failure)) throw error;
    fail(error.message);
  }
} else if (name === undefined || name === '--help' || name === 'help')
  print(
    `typikon: editor profiles on the command line\n\n${COMMANDS.map(({ usage, purpose }) => `  typikon ${usage}\n      ${purpose}\n`).join('\n')}\nExit codes: 0 done, 1 findings, 2 bad call or bad input.\n`,
  );
else fail(`There is no command "${name}". The commands are: ${COMMANDS.map((known) => known.name).join(', ')}.`);

function fail(message: string): void {
  process.stderr.write(`typikon: ${message.replace(/\s*\n\s*/g, ' ')}\n`);
  process.exitCode = 2;
}
