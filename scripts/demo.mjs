// Starts Typikon with the demo data: installs what is missing, starts a private database, builds, serves.
import { createWriteStream, mkdirSync, rmSync } from 'node:fs';
import { once } from 'node:events';
import { parseArgs } from 'node:util';
import { buildServer, buildWeb } from './lib/build.mjs';
import { endLeftOver, startDatabase } from './lib/database.mjs';
import { checkDisk, ensureAll } from './lib/install.mjs';
import { at } from './lib/paths.mjs';
import { isFree } from './lib/ports.mjs';
import { Stop, main, say, step } from './lib/say.mjs';
import { startServer } from './lib/server.mjs';

const MOST_RESTARTS = 10;

main(async () => {
  const { fresh, port, documents } = readOptions();
  const folder = at('.data', 'demo');
  checkDisk();
  for (const wanted of [port, port + 1])
    if (!(await isFree(wanted)))
      throw new Stop(`Port ${wanted} is in use. Typikon needs ${port} and ${port + 1}; choose others with: npm run demo -- --port N`);
  await ensureAll({ mariadb: true });
  await buildServer();
  await buildWeb();

  let database;
  let server;
  let isStopping = false;
  let restarts = 0;
  const stop = async (exitCode = 0) => {
    if (isStopping) return;
    isStopping = true;
    say('\nStopping …');
    await server?.stop();
    await database?.stop();
    say('Stopped. What was saved is kept for the next start.');
    process.exit(exitCode);
  };
  process.on('SIGINT', () => void stop());
  process.on('SIGTERM', () => void stop());
  process.on('SIGHUP', () => void stop());

  if (fresh) {
    await endLeftOver(folder);
    rmSync(folder, { recursive: true, force: true });
  }
  mkdirSync(folder, { recursive: true });
  const log = createWriteStream(at('.data', 'demo', 'server.log'), { flags: 'a' });
  await once(log, 'open');

  const again = async (what, start) => {
    if (isStopping) return;
    if (++restarts > MOST_RESTARTS) {
      say(`${what} ended again and again. See ${at('.data', 'demo')} for its log.`);
      await stop(1);
      return;
    }
    say(`${what} ended unexpectedly; starting it again. What was saved is safe.`);
    await start().catch(async (error) => {
      say(error.message);
      await stop(1);
    });
  };
  const startOnlyServer = async () => {
    server = await startServer({
      port,
      log,
      env: { ...database.env, TYPIKON_DEMO_DIR: at('demo'), ...documents, TYPIKON_WEB_DIR: at('packages/web/dist') },
      onLost: () => void again('The server', startOnlyServer),
      onTold: tellOfDocuments,
    });
  };
  const startBoth = async () => {
    database = await startDatabase(folder, {
      onLost: () =>
        void again('The database', async () => {
          await server?.stop();
          await startBoth();
        }),
    });
    await startOnlyServer();
  };
  try {
    await step('Starting the database and the server', startBoth);
  } catch (error) {
    isStopping = true;
    await server?.stop();
    await database?.stop();
    throw error;
  }

  say(
    `\nTypikon      http://localhost:${port}/\nThe site     http://localhost:${port + 1}/\n\nCtrl-C stops it; a later start finds everything as you left it.\n`,
  );
});

/** How far a large demo has come, every ten seconds; it can be worked with meanwhile. */
let toldAt = 0;
function tellOfDocuments({ documents, of }) {
  if (documents < of && Date.now() - toldAt < 10_000) return;
  toldAt = Date.now();
  say(
    documents < of
      ? `${documents.toLocaleString('en')} of ${of.toLocaleString('en')} documents are written.`
      : `All ${of.toLocaleString('en')} documents are written.`,
  );
}

function readOptions() {
  try {
    const { values } = parseArgs({
      options: { fresh: { type: 'boolean', default: false }, port: { type: 'string', default: '4710' }, documents: { type: 'string' } },
    });
    const port = Number(values.port);
    if (!Number.isInteger(port) || port < 1 || port > 65534) throw new Stop(`--port needs a number from 1 to 65534, not "${values.port}".`);
    if (values.documents === undefined) return { fresh: values.fresh, port, documents: {} };
    if (!/^\d{1,6}$/.test(values.documents) || Number(values.documents) > 100_000)
      throw new Stop(`--documents needs a number up to 100000, not "${values.documents}".`);
    return { fresh: values.fresh, port, documents: { TYPIKON_DEMO_DOCUMENTS: values.documents } };
  } catch (error) {
    throw error instanceof Stop
      ? error
      : new Stop(
          `${error.message} The options are --fresh, --port N and --documents N (how many composed documents the site has; a large number is written in the background, and goes on with the next start).`,
        );
  }
}
