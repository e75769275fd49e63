// ESLint and Prettier over everything. Changes nothing.
import { ensurePackages } from './lib/install.mjs';
import { at } from './lib/paths.mjs';
import { run } from './lib/run.mjs';
import { main, step } from './lib/say.mjs';

main(async () => {
  await ensurePackages();
  await step('Checking the code with ESLint', () =>
    run(process.execPath, [at('node_modules/eslint/bin/eslint.js'), '.'], { cwd: at('.'), show: true, what: 'ESLint' }),
  );
  await step('Checking the layout with Prettier', () =>
    run(process.execPath, [at('node_modules/prettier/bin/prettier.cjs'), '--check', '--log-level=warn', '.'], {
      cwd: at('.'),
      show: true,
      what: 'Prettier',
    }),
  );
});
