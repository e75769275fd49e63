import type { ServerType } from '@hono/node-server';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { pino } from 'pino';
import { createApp } from './app';
import { giveBack, Rest } from './at-rest';
import { readConfig } from './config';
import { connect } from './db/connection';
import { migrate } from './db/migrate';
import { listen } from './http-server';
import { DEMO_DOCUMENTS, demoJobs } from './jobs/demo-documents';
import { ALL_FIGURES, areFiguresBy, engineOf, likenessJobs, ONE_FIGURE } from './jobs/likeness';
import { goingOn } from './conversions/repository';
import { CONVERT, conversionJobs } from './jobs/conversions';
import { RELEASE, ScheduledReleases } from './editions/scheduled';
import { releaseJobs } from './jobs/scheduled-releases';
import { OLD_VERSIONS, versionJobs } from './jobs/old-versions';
import { featureJobs, INDEX_TEXTS } from './jobs/text-features';
import { JobQueue } from './jobs/queue';
import { JobRunner } from './jobs/runner';
import { openLanes } from './lanes/open';
import { USUAL_COUNT } from './seed/compose';
import { seedDemo } from './seed/demo';
import { createSite } from './standins/site';

const config = readConfig(process.env);
const log = pino({ level: config.logLevel, redact: ['req.headers.cookie', 'req.headers.authorization'] });
const origins = (port: number): string[] => [`http://127.0.0.1:${port}`, `http://localhost:${port}`];
const [applicationOrigins, siteOrigins] = [origins(config.port), origins(config.sitePort)];
const imagesDir = config.demoDir && join(config.demoDir, 'images');

/** So long the background gives way to heavy requests, in milliseconds. */
const MOST_YIELD_MS = 60_000;

/** So often versions are looked for that are too old to be kept, in milliseconds. */
const DAY_MS = 24 * 3_600_000;

const sequelize = connect(config.database);
const servers: ServerType[] = [];
const lanes = openLanes({ database: config.database, applicationOrigins, siteOrigins, imagesDir }, config.threadsWaitMs);
/** What figures are taken by: another version of it takes all of them anew. */
const engine = engineOf(readFileSync(new URL('./worker.js', import.meta.url)));
const queue = new JobQueue(sequelize);
const quiet = (): Promise<void> => lanes.heavy.quiet(MOST_YIELD_MS);
const releases = new ScheduledReleases(sequelize, () => undefined);
const toldOfDemo = (written: number, of: number): void => void process.send?.({ documents: written, of });
/** Figures of a large site take hours: what somebody waits for is done beside them. */
const FIGURES = [ALL_FIGURES, ONE_FIGURE];
const figures = new JobRunner(queue, likenessJobs(sequelize, queue, lanes.background, { quiet, engine }), log, { these: FIGURES });
const others = new JobRunner(
  queue,
  {
    ...featureJobs(lanes.background, quiet),
    ...conversionJobs(lanes.background, () => looksChanged()),
    ...versionJobs(sequelize),
    ...releaseJobs(releases, () => looksChanged()),
    ...demoJobs(lanes.background, toldOfDemo),
  },
  log,
  { except: FIGURES },
);
const runners = [figures, others];

const rest = new Rest(() => {
  giveBack();
  // A thread that has just been ended has nothing to give back.
  lanes.quick.run('giveBack', null).catch(() => undefined);
});

/** Figures are taken in the background; that they are asked for must never fail what was asked for before. */
const looksChanged = (): void =>
  void queue.ask(ALL_FIGURES, 'all', config.figuresWaitMs).then(
    () => figures.nudge(),
    (error: unknown) => log.error({ err: error }, 'figures of likeness were not asked for'),
  );

async function start(): Promise<void> {
  const { demoDir, demoDocuments = USUAL_COUNT } = config;
  const usual = Math.min(demoDocuments, USUAL_COUNT);
  const migrations = await migrate(sequelize, async () => {
    if (demoDir !== undefined && (await seedDemo(sequelize, demoDir, usual))) log.info('demo data read');
  });
  if (migrations.length > 0) log.info({ migrations }, 'database migrated');
  const site = createSite({ sequelize, log, applicationOrigins, imagesDir, lanes });
  const app = createApp({ sequelize, log, siteOrigins, webDir: config.webDir, lanes, looksChanged, asked: rest.touch });
  servers.push(await listen(site.fetch, config.host, config.sitePort));
  servers.push(await listen(app.fetch, config.host, config.port));
  log.info({ address: `http://${config.host}:${config.port}/`, site: `http://${config.host}:${config.sitePort}/` }, 'ready');
  // What has changed while a server ran is asked for already, and waits in the database.
  if (migrations.length > 0 || !(await areFiguresBy(engine))) looksChanged();
  // Texts that came before there was an index, or before what it holds was another thing, are indexed now.
  await queue.ask(INDEX_TEXTS, 'all');
  if (demoDir !== undefined && demoDocuments > usual) await queue.ask(DEMO_DOCUMENTS, String(demoDocuments));
  // One that was asked for by a process that ended right after goes on, too.
  for (const id of await goingOn(sequelize)) await queue.ask(CONVERT, String(id));
  for (const { id, at } of await releases.waiting()) await queue.ask(RELEASE, String(id), Math.max(0, at.getTime() - Date.now()));
  await queue.ask(OLD_VERSIONS, 'all');
  setInterval(
    () => void queue.ask(OLD_VERSIONS, 'all').catch((error: unknown) => log.error({ err: error }, 'old versions')),
    DAY_MS,
  ).unref();
  for (const runner of runners) runner.start();
}

async function stop(): Promise<void> {
  const deadline = setTimeout(() => process.exit(0), 3000);
  deadline.unref();
  await Promise.all(servers.map((server) => new Promise((done) => server.close(done))));
  await Promise.all([...runners.map((runner) => runner.stop()), ...Object.values(lanes).map((lane) => lane.stop())]);
  await sequelize.close();
  process.exit(0);
}

process.on('SIGINT', () => void stop());
process.on('SIGTERM', () => void stop());
// Started by a script that has ended, however it ended: nobody else would stop us.
if (process.send !== undefined) process.on('disconnect', () => void stop());

start().catch((error: unknown) => {
  const { code, message } = error as NodeJS.ErrnoException;
  process.stderr.write(
    code === 'EADDRINUSE'
      ? `Port ${(error as { port?: number }).port} is in use. Choose another with --port.\n`
      : `Typikon could not start: ${message}\n`,
  );
  log.error({ err: error }, 'could not start');
  process.exit(1);
});
