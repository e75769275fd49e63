import type { ProblemDetails } from '@typikon/api';
import type { Context, TypedResponse } from 'hono';
import type { StatusCode } from 'hono/utils/http-status';

/** An answer that any route may give: the contract names problem details for all of them. */
export type ProblemResponse = Response & TypedResponse<never, never, never>;

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
export function problem(context: Context, status: StatusCode, detail: string, extra: Record<string, unknown> = {}): ProblemResponse {
  const body: ProblemDetails = { type: 'about:blank', title: TITLES[status] ?? 'Error', status, detail, ...extra };
  return context.newResponse(JSON.stringify(body), status, { 'content-type': 'application/problem+json' }) as ProblemResponse;
}
