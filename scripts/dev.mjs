// Works on Typikon with watching: the server is built and started again when its sources change, the web application
// is served by its own development server, which reloads the page. Data as in `npm run demo`.
import { mkdirSync, watch } from 'node:fs';
import { spawn } from 'node:child_process';
import { buildServer, copyDictionary, writeIcons } from './lib/build.mjs';
import { startDatabase } from './lib/database.mjs';
import { ensurePackages } from './lib/install.mjs';
import { at } from './lib/paths.mjs';
import { isFree } from './lib/ports.mjs';
import { Stop, main, say } from './lib/say.mjs';
import { startServer } from './lib/server.mjs';

const PORT = 4710;
const WEB_PORT = 4720;

main(async () => {
  for (const port of [PORT, PORT + 1, WEB_PORT])
    if (!(await isFree(port))) throw new Stop(`Port ${port} is in use; stop what uses it (perhaps npm run demo) and start again.`);
  await ensurePackages();
  copyDictionary();
  await writeIcons();
  const folder = at('.data', 'demo');
  mkdirSync(folder, { recursive: true });
  const database = await startDatabase(folder, { onLost: () => say('The database ended; stop with Ctrl-C and start again.') });
  const start = async () => {
    await buildServer();
    return startServer({ port: PORT, log: 'inherit', env: { ...database.env, TYPIKON_DEMO_DIR: at('demo') } });
  };
  let server = await start();
  const web = spawn(process.execPath, [at('node_modules/@angular/cli/bin/ng.js'), 'serve', '--port', String(WEB_PORT)], {
    cwd: at('packages/web'),
    stdio: 'inherit',
    env: { ...process.env, NG_CLI_ANALYTICS: 'false' },
  });
  let isStopping = false;
  const stop = async () => {
    if (isStopping) return;
    isStopping = true;
    web.kill('SIGTERM');
    await server?.stop();
    await database.stop();
    process.exit(0);
  };
  process.on('SIGINT', () => void stop());
  process.on('SIGTERM', () => void stop());
  let timer;
  for (const source of ['packages/server/src', 'packages/core/src'])
    watch(at(source), { recursive: true }, () => {
      clearTimeout(timer);
      timer = setTimeout(async () => {
        say('· The server changed; starting it again …');
        await server?.stop();
        server = await start().catch((error) => void say(error.message));
      }, 300);
    });
  say(`\nOpen http://localhost:${WEB_PORT}/ (the API and the site stand-in are on ${PORT} and ${PORT + 1}).\n`);
});
