import { OpenAPIHono } from '@hono/zod-openapi';
import type { MiddlewareHandler } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import { compress } from 'hono/compress';
import type { Logger } from 'pino';
import type { Sequelize } from 'sequelize';
import { guard } from './auth/guard';
import { conversions } from './conversions/routes';
import { fit } from './fit/routes';
import { publishing } from './publishing/routes';
import { questions } from './questions/routes';
import { documents } from './documents/routes';
import { editions } from './editions/routes';
import { sharedEditions } from './editions/shared-routes';
import { onError } from './errors';
import { soundJson } from './json-body';
import { forward, HEAVY_BYTES, type Choice, type Lanes, type Load } from './lanes/forward';
import { problem } from './problem';
import { requestLog } from './request-log';
import { assets } from './routes/assets';
import { dictionary } from './routes/dictionary';
import { health } from './routes/health';
import { house } from './routes/house';
import { likeness } from './routes/likeness';
import { profileRemoval } from './routes/profile-removal';
import { profiles } from './routes/profiles';
import { specimens } from './routes/specimens';
import { styleFiles } from './routes/style-files';
import { site } from './site/routes';
import { SiteService } from './site/service';
import { texts } from './texts/routes';
import { types } from './types/routes';
import { comparison } from './comparison/routes';
import { applicationHeaders, loopbackOnly } from './security';
import { webFiles } from './web-files';

export interface AppOptions {
  sequelize: Sequelize;
  log: Logger;
  /** The origins under which the site stand-in is reached. */
  siteOrigins: readonly string[];
  /** The folder with the built web application; without it only the API is served. */
  webDir?: string | undefined;
  /** The threads for what may take long; without them all is done here. */
  lanes?: Lanes;
  /** Whether another process or thread stands before this one, which has let the request in. */
  isBehind?: boolean;
  /** Is called when a change is about to be committed. */
  committing?: () => void;
  /** Is called when something was stored on which it depends how pages look. */
  looksChanged?: () => void;
  /** Is called when a request comes. */
  asked?: () => void;
}

/** Payloads and pictures may be large; everything else is small. */
const LARGEST_SETTINGS = 1024 * 1024;
const LARGEST_BODY = 4 * 1024 * 1024;
const LARGEST_PAYLOAD = 16 * 1024 * 1024;
const limit = (maxSize: number): MiddlewareHandler =>
  bodyLimit({
    maxSize,
    onError: (context) => problem(context, 413, `A request can hold ${maxSize / 1024 / 1024} MB at most here. Nothing was saved.`),
  });
const BODIES: readonly (readonly [path: RegExp, limited: MiddlewareHandler])[] = [
  [/^\/api\/v1\/(specimens|assets|style-files)\b/, limit(LARGEST_PAYLOAD)],
  [/^\/api\/v1\/documents\b/, limit(LARGEST_BODY)],
  [/^/, limit(LARGEST_SETTINGS)],
];

const limited: MiddlewareHandler = async (context, next) => BODIES.find(([path]) => path.test(context.req.path))?.[1](context, next);

/** What loads or changes contents, which may be long. */
const CONTENTS =
  /^\/api\/v1\/(profiles$|editions$|shared$|shared\/.*\/editions\b|profiles\/.*\/(editions|reach)\b|acting$|site$|site\/|.*\/rule-history$|.*\/revisions\b|style-files\b|specimens\/.|documents\/.|taken$|questions\b|profiles\/.*\/conversions\b)/;
const ALL_CONTENTS =
  /^\/api\/v1\/(texts\/(census|published)|comparison|fit|fit\/profile|types\/.*\/give-documents|(profiles|shared)\/[^/]+\/(reach|reach\/allow|questions|conversions\/try))$/;

/** Which requests are short work, and which may take long. */
export function laneOf({ method, path, bytes }: Load): Choice {
  if (ALL_CONTENTS.test(path) || bytes > HEAVY_BYTES || (method === 'POST' && path === '/api/v1/assets')) return 'heavy';
  if (CONTENTS.test(path)) return 'quick';
  return method === 'GET' || method === 'HEAD' || path.startsWith('/api/v1/site-dictionary') ? 'here' : 'quick';
}

/**
 * Answers come compressed to whoever takes them so. Their entity tag stays the strong one of the revision, so that it can be sent
 * back in If-Match (RFC 9110, section 13.1.1, compares strongly); nothing keeps answers, so no cache takes one for the other.
 */
function compressed(): MiddlewareHandler {
  const compressor = compress({ encoding: 'gzip' });
  return async (context, next) => {
    let tag: string | null = null;
    await compressor(context, async () => {
      await next();
      tag = context.res.headers.get('ETag');
    });
    if (tag !== null) context.res.headers.set('ETag', tag);
  };
}

/** The application: the API under /api/v1, its OpenAPI description, and the web application beside it. */
export function createApp({
  sequelize,
  log,
  siteOrigins,
  webDir,
  lanes,
  isBehind = false,
  committing = () => undefined,
  looksChanged = () => undefined,
  asked = () => undefined,
}: AppOptions): OpenAPIHono {
  const app = new OpenAPIHono();
  if (!isBehind) app.use(requestLog(log), applicationHeaders(siteOrigins), loopbackOnly());
  // What is read may be long and is text; the files of the application were compressed when it was built.
  if (!isBehind) app.on('GET', '/api/*', compressed());
  app.use('/api/*', async (context, next) => {
    asked();
    context.header('Cache-Control', 'no-store');
    await next();
    // Profiles, house limits, documents and style files decide together what a page looks like.
    if (isOfLooks(context.req) && context.res.ok) looksChanged();
  });
  if (!isBehind) app.use('/api/*', limited);
  const sites = new SiteService(sequelize, committing);
  app.use('/api/*', forward('api', lanes, laneOf), soundJson(), guard(app.openAPIRegistry, sites));
  app.route('/api/v1', health(sequelize));
  app.route('/api/v1', profiles(sequelize, sites, committing));
  app.route('/api/v1', profileRemoval(sequelize, committing));
  app.route('/api/v1', editions(sequelize, sites, committing));
  app.route('/api/v1', sharedEditions(sequelize, sites, committing));
  app.route('/api/v1', fit(sequelize));
  app.route('/api/v1', conversions(sequelize, sites, committing));
  app.route('/api/v1', publishing(sequelize, sites, siteOrigins[0] ?? '', committing));
  app.route('/api/v1', questions(sequelize, sites, committing));
  app.route('/api/v1', texts(sequelize, sites));
  app.route('/api/v1', likeness());
  app.route('/api/v1', styleFiles(sequelize, sites, committing));
  app.route('/api/v1', documents(sequelize, sites, committing));
  app.route('/api/v1', types(sequelize, sites, committing));
  app.route('/api/v1', comparison(sequelize));
  app.route('/api/v1', dictionary(sequelize, committing));
  app.route('/api/v1', specimens(sequelize, committing));
  app.route('/api/v1', assets(sequelize, committing));
  app.route('/api/v1', house(sequelize, sites, committing));
  app.route('/api/v1', site(sites));
  app.get('/api/v1/settings', (context) => context.json({ siteOrigin: siteOrigins[0] }));
  app.doc31('/api/v1/openapi.json', {
    openapi: '3.1.0',
    info: { title: 'Typikon', version: '1', description: 'Editor profiles and what they are tried on.' },
  });
  app.all('/api/*', (context) => problem(context, 404, `There is nothing at ${context.req.path}.`));
  if (webDir !== undefined) app.route('/', webFiles(webDir));
  app.notFound((context) => problem(context, 404, `There is nothing at ${context.req.path}.`));
  app.onError(onError(log));
  return app;
}

const isOfLooks = ({ method, path }: { method: string; path: string }): boolean =>
  method === 'PUT' ||
  (method === 'POST' &&
    /^\/api\/v1\/(style-files\/changes|profiles|profiles\/[^/]+\/editions|profiles\/[^/]+\/editions\/\d+\/again|shared\/[^/]+\/(editions(\/\d+\/again)?|draft\/back)|documents|documents\/[^/]+\/(restore|publishing))$/.test(
      path,
    ));
