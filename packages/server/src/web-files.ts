import { serveStatic } from '@hono/node-server/serve-static';
import { Hono, type Context } from 'hono';
import { relative } from 'node:path';
import { problem } from './problem';

/** Files whose names change with what they hold, so that a name never means another one. */
const HASHED = /-[A-Za-z0-9_-]{8}\.(js|css)$|^\/media\//;
/** The application's own addresses have no ending; what has one is a file, and there or not. */
const FILE = /\.[a-z0-9]{1,8}$/i;
const A_YEAR = 'public, max-age=31536000, immutable';

/**
 * Serves the built web application, compressed where the build put a shorter form beside a file and the browser takes it. Every address of the application itself answers with its start page; a file that is not
 * there does not, and nothing whose name begins with a dot is served.
 */
export function webFiles(folder: string): Hono {
  const root = relative(process.cwd(), folder) || '.';
  const files = new Hono();
  files.use('*', async (context, next) => {
    const { path } = context.req;
    if (isHidden(path)) return problem(context as Context, 404, `There is nothing at ${path}.`);
    await next();
    context.header('Cache-Control', context.res.ok && HASHED.test(path) ? A_YEAR : 'no-cache');
    return undefined;
  });
  const startPage = serveStatic({ root, path: 'index.html', precompressed: true });
  files.use('*', serveStatic({ root, precompressed: true }));
  files.get('*', async (context, next) => {
    const { path } = context.req;
    if (FILE.test(path) || HASHED.test(path)) return problem(context, 404, `There is nothing at ${path}.`);
    return startPage(context, next);
  });
  return files;
}

function isHidden(path: string): boolean {
  let plain = path;
  try {
    plain = decodeURIComponent(path);
  } catch {
    // It names no file then.
  }
  return /(^|[\\/])\./.test(plain);
}
