import { randomUUID } from 'node:crypto';
import type { MiddlewareHandler } from 'hono';
import type { Logger } from 'pino';

/** Writes one structured line for each request: what was asked, the answer's status, how long it took (ms). Never bodies. */
export function requestLog(log: Logger): MiddlewareHandler {
  return async (context, next) => {
    const id = randomUUID();
    const begin = performance.now();
    context.header('X-Request-Id', id);
    await next();
    log.info(
      { id, method: context.req.method, path: context.req.path, status: context.res.status, ms: Math.round(performance.now() - begin) },
      'request',
    );
  };
}
