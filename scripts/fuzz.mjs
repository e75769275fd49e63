// Mutates hostile markup and the demo's documents, and compares our parse and what is stored with Chromium's reading.
// npm run fuzz -- --minutes 5 [--seed 7]
import { ensureAll } from './lib/install.mjs';
import { at } from './lib/paths.mjs';
import { run } from './lib/run.mjs';
import { main } from './lib/say.mjs';

const value = (name, otherwise) => {
  const index = process.argv.indexOf(`--${name}`);
  return index === -1 ? otherwise : process.argv[index + 1];
};

main(async () => {
  await ensureAll({ chromium: true });
  const seed = value('seed');
  await run(process.execPath, ['--import', 'tsx', at('e2e/fuzz.ts'), value('minutes', '1'), ...(seed === undefined ? [] : [seed])], {
    cwd: at('.'),
    show: true,
    what: 'The fuzz run',
  });
});
