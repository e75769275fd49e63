// Tries every law as often as it names, over contents of its own; the tests try a part, with the same contents each time.
// npm run laws [-- --seed 7] [--times 2] [PATTERN of files]
import { parseArgs } from 'node:util';
import { ensurePackages } from './lib/install.mjs';
import { at } from './lib/paths.mjs';
import { run } from './lib/run.mjs';
import { main, say } from './lib/say.mjs';

main(async () => {
  await ensurePackages();
  const { values, positionals } = parseArgs({
    options: { seed: { type: 'string' }, times: { type: 'string', default: '1' } },
    allowPositionals: true,
  });
  const seed = values.seed ?? String(Date.now() % 2 ** 31);
  say(`The seed is ${seed}.`);
  const pattern = positionals[0] ?? '/(core|editor)/test/';
  const jest = [at('node_modules/jest/bin/jest.js'), '--config', at('jest.config.mjs'), '--selectProjects', 'core', 'editor'];
  await run(process.execPath, [...jest, '--testPathPatterns', pattern, '--testTimeout', '1200000'], {
    cwd: at('.'),
    env: { TYPIKON_LAWS_SEED: seed, TYPIKON_LAWS_SHARE: values.times },
    show: true,
    what: 'The run of the laws',
  });
});
