// Checks the types of every package without writing anything. The web application's templates are checked by its build.
import { ensurePackages } from './lib/install.mjs';
import { at } from './lib/paths.mjs';
import { run } from './lib/run.mjs';
import { main, step } from './lib/say.mjs';

main(async () => {
  await ensurePackages();
  for (const project of [
    'packages/core',
    'packages/api',
    'packages/editor',
    'packages/server',
    'packages/cli',
    'packages/web/tsconfig.app.json',
    'packages/web/tsconfig.worker.json',
    'packages/web/tsconfig.spec.json',
    'e2e',
    'scripts',
  ])
    await step(`Checking types in ${project}`, () =>
      run(process.execPath, [at('node_modules/typescript/bin/tsc'), '--noEmit', '-p', at(project)], {
        show: true,
        what: `tsc in ${project}`,
      }),
    );
});
