// Measures the cleaning engine beside other libraries. It is no test: it prints tables.
import { existsSync } from 'node:fs';
import { buildServer, buildWeb } from './lib/build.mjs';
import { ensureAll } from './lib/install.mjs';
import { at } from './lib/paths.mjs';
import { run } from './lib/run.mjs';
import { main, step } from './lib/say.mjs';

/** What is measured in Chromium, and whether with the whole application. */
const IN_BROWSER = { typing: { hasServer: false }, weight: { hasServer: true }, live: { hasServer: true }, keys: { hasServer: true } };

main(async () => {
  const inBrowser = Object.keys(IN_BROWSER).find((name) => process.argv.includes(name));
  if (inBrowser !== undefined) {
    await ensureAll({ chromium: true, mariadb: IN_BROWSER[inBrowser].hasServer });
    if (IN_BROWSER[inBrowser].hasServer) {
      await buildServer();
      await buildWeb();
    }
    if (inBrowser === 'weight') await run(process.execPath, [at('packages/editor/build.mjs')], { what: 'The build of the editor' });
    await run(process.execPath, ['--import', 'tsx', at(`bench/${inBrowser}.ts`), ...process.argv.slice(2)], {
      show: true,
      what: 'The bench',
    });
    return;
  }
  if (process.argv.includes('reach')) {
    await ensureAll({ mariadb: true });
    const { build } = await import('esbuild');
    await build({
      entryPoints: [at('bench/reach.ts')],
      outfile: at('bench/dist/reach.mjs'),
      bundle: true,
      packages: 'external',
      alias: { '@typikon/core': at('packages/core/src/index.ts'), '@typikon/api': at('packages/api/src/index.ts') },
      platform: 'node',
      format: 'esm',
      target: 'node20',
      logLevel: 'error',
    });
    const folder = process.argv.slice(2).filter((word) => word !== 'reach');
    await run(process.execPath, [at('bench/dist/reach.mjs'), ...folder], { show: true, what: 'The bench' });
    return;
  }
  await ensureAll();
  if (!existsSync(at('bench/node_modules')))
    await step('Installing the libraries to compare with', () =>
      run('npm', ['ci', '--prefer-offline', '--no-progress'], { cwd: at('bench'), what: 'npm ci' }),
    );
  const { build } = await import('esbuild');
  for (const [source, name] of [
    ['packages/core/src/index.ts', 'core'],
    ['packages/core/test/long-payloads.ts', 'long-payloads'],
  ])
    await build({
      entryPoints: [at(source)],
      outfile: at(`bench/dist/${name}.mjs`),
      bundle: true,
      packages: 'external',
      platform: 'node',
      format: 'esm',
      target: 'node20',
      logLevel: 'error',
    });
  const script = process.argv.includes('cascade') ? 'bench/cascade.mjs' : 'bench/main.mjs';
  await run(process.execPath, ['--expose-gc', at(script), ...process.argv.slice(2)], { cwd: at('bench'), show: true, what: 'The bench' });
});
