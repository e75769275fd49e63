import type { ProblemDetails } from '@typikon/api';
import type { Context } from 'hono';

const TITLES: Record<number, string> = {
  400: 'The request cannot be read',
  403: 'Not allowed',
  404: 'Not found',
  409: 'In conflict with what is there',
  412: 'Changed by somebody else',
  413: 'Too large',
  415: 'Wrong kind of content',
  422: 'The content has mistakes',
  428: 'The edition it is based on is missing',
  500: 'Something failed on the server',
  503: 'It cannot be done at this moment',
};

/** Answers with problem details. `extra` adds members that the client can act on. */
export function problem<Status extends number>(context: Context, status: Status, detail: string, extra: Record<string, unknown> = {}) {
  const body: ProblemDetails = { type: 'about:blank', title: TITLES[status] ?? 'Error', status, detail, ...extra };
  return context.newResponse(JSON.stringify(body), status as never, { 'content-type': 'application/problem+json' });
}
