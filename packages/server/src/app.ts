import { serveStatic } from '@hono/node-server/serve-static';
import { OpenAPIHono } from '@hono/zod-openapi';
import { bodyLimit } from 'hono/body-limit';
import { relative } from 'node:path';
import type { Logger } from 'pino';
import type { Sequelize } from 'sequelize';
import { onError } from './errors';
import { problem } from './problem';
import { requestLog } from './request-log';
import { assets } from './routes/assets';
import { content } from './routes/content';
import { dictionary } from './routes/dictionary';
import { documents } from './routes/documents';
import { health } from './routes/health';
import { house } from './routes/house';
import { likeness } from './routes/likeness';
import { profiles } from './routes/profiles';
import { specimens } from './routes/specimens';
import { styleFiles } from './routes/style-files';
import { applicationHeaders, loopbackOnly } from './security';

export interface AppOptions {
  sequelize: Sequelize;
  log: Logger;
  /** The origins under which the site stand-in is reached. */
  siteOrigins: readonly string[];
  /** The folder with the built web application; without it only the API is served. */
  webDir?: string | undefined;
  /** Is called when something was stored on which it depends how pages look. */
  looksChanged?: () => void;
}

/** Payloads and pictures may be large; everything else is small. */
const LARGEST_BODY = 4 * 1024 * 1024;
const LARGEST_PAYLOAD = 16 * 1024 * 1024;

const limitBody = (maxSize: number) =>
  bodyLimit({
    maxSize,
    onError: (context) => problem(context, 413, `A request can hold ${maxSize / 1024 / 1024} MB at most here.`),
  });

/** The application: the API under /api/v1, its OpenAPI description, and the web application beside it. */
export function createApp({ sequelize, log, siteOrigins, webDir, looksChanged = () => undefined }: AppOptions): OpenAPIHono {
  const app = new OpenAPIHono();
  app.use(requestLog(log), loopbackOnly(), applicationHeaders(siteOrigins));
  const [small, large] = [limitBody(LARGEST_BODY), limitBody(LARGEST_PAYLOAD)];
  for (const path of ['/api/v1/specimens', '/api/v1/specimens/*', '/api/v1/assets', '/api/v1/style-files/*']) app.use(path, large);
  for (const path of [
    '/api/v1/profiles',
    '/api/v1/profiles/*',
    '/api/v1/house-limits',
    '/api/v1/house-limits/*',
    '/api/v1/documents/*',
    '/api/v1/site-dictionary/*',
  ])
    app.use(path, small);
  app.use('/api/*', async (context, next) => {
    context.header('Cache-Control', 'no-store');
    await next();
    // Profiles, house limits and documents decide with the stylesheets what a page looks like.
    if (context.req.method === 'PUT' && context.res.ok) looksChanged();
  });
  app.route('/api/v1', health(sequelize));
  app.route('/api/v1', profiles(sequelize));
  app.route('/api/v1', content());
  app.route('/api/v1', likeness());
  app.route('/api/v1', styleFiles(sequelize, looksChanged));
  app.route('/api/v1', documents(sequelize));
  app.route('/api/v1', dictionary(sequelize));
  app.route('/api/v1', specimens(sequelize));
  app.route('/api/v1', assets());
  app.route('/api/v1', house(sequelize));
  app.get('/api/v1/settings', (context) => context.json({ siteOrigin: siteOrigins[0] }));
  app.doc31('/api/v1/openapi.json', {
    openapi: '3.1.0',
    info: { title: 'Typikon', version: '1', description: 'Editor profiles and what they are tried on.' },
  });
  app.all('/api/*', (context) => problem(context, 404, `There is nothing at ${context.req.path}.`));
  if (webDir !== undefined) {
    const root = relative(process.cwd(), webDir) || '.';
    app.use('*', async (context, next) => {
      await next();
      const isHashed = /-[A-Z0-9]{8}\.(js|css)$|\/media\//.test(context.req.path);
      context.header('Cache-Control', isHashed ? 'public, max-age=31536000, immutable' : 'no-cache');
    });
    app.use('*', serveStatic({ root }));
    app.get('*', serveStatic({ root, path: 'index.html' }));
  }
  app.notFound((context) => problem(context, 404, `There is nothing at ${context.req.path}.`));
  app.onError(onError(log));
  return app;
}
