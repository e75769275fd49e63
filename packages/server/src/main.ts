import { serve, type ServerType } from '@hono/node-server';
import { join } from 'node:path';
import { pino } from 'pino';
import { createApp } from './app';
import { readConfig } from './config';
import { connect } from './db/connection';
import { migrate } from './db/migrate';
import { LikenessFigures } from './likeness';
import { seedDemo } from './seed/demo';
import { createSite } from './standins/site';

const config = readConfig(process.env);
const log = pino({ level: config.logLevel, redact: ['req.headers.cookie', 'req.headers.authorization'] });
const origins = (port: number): string[] => [`http://127.0.0.1:${port}`, `http://localhost:${port}`];

const sequelize = connect(config.database);
const servers: ServerType[] = [];
const figures = new LikenessFigures(log);

async function start(): Promise<void> {
  const migrations = await migrate(sequelize);
  if (migrations.length > 0) log.info({ migrations }, 'database migrated');
  if (config.demoDir !== undefined && (await seedDemo(sequelize, config.demoDir, config.demoDocuments))) log.info('demo data read');
  const site = createSite({ log, applicationOrigins: origins(config.port), imagesDir: config.demoDir && join(config.demoDir, 'images') });
  const app = createApp({
    sequelize,
    log,
    siteOrigins: origins(config.sitePort),
    webDir: config.webDir,
    looksChanged: () => figures.changed(),
  });
  figures.changed();
  await listen(site.fetch, config.sitePort);
  await listen(app.fetch, config.port);
  log.info({ address: `http://${config.host}:${config.port}/`, site: `http://${config.host}:${config.sitePort}/` }, 'ready');
}

function listen(fetch: Parameters<typeof serve>[0]['fetch'], port: number): Promise<void> {
  return new Promise((resolve, reject) => {
    const server = serve({ fetch, hostname: config.host, port }, () => resolve());
    server.once('error', reject);
    servers.push(server);
  });
}

async function stop(): Promise<void> {
  const deadline = setTimeout(() => process.exit(0), 3000);
  deadline.unref();
  await Promise.all(servers.map((server) => new Promise((done) => server.close(done))));
  await figures.stop();
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
