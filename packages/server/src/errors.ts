import type { ErrorHandler } from 'hono';
import { HTTPException } from 'hono/http-exception';
import type { Logger } from 'pino';
import { ConnectionError, DatabaseError } from 'sequelize';
import { problem } from './problem';

/** Turns whatever was thrown into problem details. What went wrong inside goes to the log, not to the client. */
export function onError(log: Logger): ErrorHandler {
  return (error, context) => {
    if (error instanceof HTTPException) return problem(context, error.status, error.message || 'The request cannot be handled.');
    log.error({ err: error, path: context.req.path }, 'request failed');
    if (error instanceof ConnectionError || isLostConnection(error))
      return problem(context, 503, 'The database does not answer. Nothing was saved; please try again in a moment.');
    return problem(context, 500, 'Something failed on the server. Nothing was saved.');
  };
}

const LOST =
  /ECONNREFUSED|ECONNRESET|EPIPE|socket has unexpectedly been closed|server has gone away|Connection (timeout|closed)|cannot execute new commands/i;

function isLostConnection(error: unknown): boolean {
  const cause = error instanceof DatabaseError ? error.original : error;
  return cause instanceof Error && LOST.test(`${cause.message} ${(cause as { code?: string }).code ?? ''}`);
}
