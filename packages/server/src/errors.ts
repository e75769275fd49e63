import type { ErrorHandler } from 'hono';
import { HTTPException } from 'hono/http-exception';
import type { Logger } from 'pino';
import { DatabaseError, UniqueConstraintError } from 'sequelize';
import { Contended, isLost, OutcomeUnknown } from './db/transaction';
import { problem } from './problem';

/** MariaDB: what is sent is larger than a packet may be, or than the column. */
const TOO_LARGE = [1153, 1406];

/** What is said of requests that the framework refuses. */
const SENTENCES: Readonly<Record<number, string>> = {
  400: 'The request holds nothing that can be read as what it says it is.',
  413: 'The request is too large.',
  415: 'This kind of content is not taken here. Send what the description of the API asks for.',
};
const sentence = (message: string): string => (message === '' ? 'The request cannot be handled.' : message.replace(/[^.]$/, '$&.'));

/** Turns whatever was thrown into problem details. What went wrong inside goes to the log, not to the client. */
export function onError(log: Logger): ErrorHandler {
  return (error, context) => {
    if (error instanceof HTTPException) return problem(context, error.status, SENTENCES[error.status] ?? sentence(error.message));
    if (error instanceof Contended)
      return problem(context, 503, 'Others are changing the same at this moment. Nothing was saved; please try again.', {
        outcome: 'nothing',
      });
    log.error({ err: error, path: context.req.path }, 'request failed');
    const isChange = !['GET', 'HEAD'].includes(context.req.method);
    if (error instanceof OutcomeUnknown)
      return problem(context, 503, 'The database was lost while it was saving. It is not known whether it was saved; please look.', {
        outcome: 'unknown',
      });
    if (isLost(error))
      return problem(
        context,
        503,
        isChange
          ? 'The database does not answer. Nothing was saved; please try again in a moment.'
          : 'The database does not answer. Please try again in a moment.',
      );
    if (error instanceof UniqueConstraintError)
      return problem(context, 409, 'Somebody else made the same at the same moment. Nothing was saved.');
    if (error instanceof DatabaseError && TOO_LARGE.includes((error.original as { errno?: number }).errno ?? 0))
      return problem(context, 422, 'This is longer than can be stored. Nothing was saved.');
    return problem(context, 500, `Something failed on the server.${isChange ? ' Nothing was saved.' : ''}`);
  };
}
