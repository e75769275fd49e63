// Attacks a server of its own on loopback for as long as asked; ends with a line of figures for each law.
import { parseArgs } from 'node:util';
import { buildServer, buildWeb } from './lib/build.mjs';
import { ensureAll } from './lib/install.mjs';
import { at } from './lib/paths.mjs';
import { run } from './lib/run.mjs';
import { Stop, main } from './lib/say.mjs';

main(async () => {
  const { values } = parseArgs({ options: { minutes: { type: 'string', default: '10' }, seed: { type: 'string' } } });
  const minutes = Number(values.minutes);
  if (!(minutes >= 1 && minutes <= 600)) throw new Stop(`--minutes needs a number from 1 to 600, not "${values.minutes}".`);
  await ensureAll({ mariadb: true });
  await buildServer();
  await buildWeb();
  const seed = values.seed ?? String(Date.now() % 2 ** 31);
  await run(process.execPath, ['--import', 'tsx', at('e2e', 'attack-main.ts'), String(minutes), seed], { show: true, what: 'The attack' });
});
