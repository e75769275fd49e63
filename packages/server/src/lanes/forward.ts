import type { StatusCode } from 'hono/utils/http-status';
import type { Context, MiddlewareHandler } from 'hono';
import { problem } from '../problem';
import { LaneFailure, type Lane } from './lane';
import { Stage, type RequestAnswer, type RequestTask } from './task';

/** The lanes of requests: short work, and work that may take seconds. */
export interface Lanes {
  quick: Lane;
  heavy: Lane;
}

/** What a request asks for, as far as it tells how much work it may be. */
export interface Load {
  method: string;
  path: string;
  /** How long its body is, in bytes. */
  bytes: number;
}

export type Choice = 'here' | keyof Lanes;

/** Cleaning this much is no longer short work, in bytes. */
export const HEAVY_BYTES = 100_000;

/**
 * Hands requests to the lane that is theirs; what is small goes on here.
 *
 * @param choose which lane a request belongs to
 */
export function forward(
  app: RequestTask['app'],
  lanes: Lanes | undefined,
  choose: (load: Load) => Choice | Promise<Choice>,
): MiddlewareHandler {
  return async (context, next) => {
    if (lanes === undefined) {
      await next();
      return undefined;
    }
    const { method, path, raw } = context.req;
    const body = raw.body === null ? null : await context.req.arrayBuffer();
    const choice = await choose({ method, path, bytes: body?.byteLength ?? 0 });
    if (choice === 'here') {
      await next();
      return undefined;
    }
    return answerFrom(context, lanes[choice], app, body);
  };
}

async function answerFrom(context: Context, lane: Lane, app: RequestTask['app'], body: ArrayBuffer | null): Promise<Response> {
  const { raw, method } = context.req;
  const stage = new SharedArrayBuffer(4);
  const length = body?.byteLength ?? 0;
  const task: RequestTask = { app, method, url: raw.url, headers: [...raw.headers], body, stage };
  try {
    const answer = await lane.run<RequestAnswer>('answer', task, body === null ? [] : [body], length);
    return context.newResponse(answer.body, answer.status as StatusCode, Object.fromEntries(answer.headers));
  } catch (error) {
    if (!(error instanceof LaneFailure)) throw error;
    return refusal(context, error, length, Atomics.load(new Int32Array(stage), 0) === Stage.committing);
  }
}

/** What is said of work that was too much: how much it was, what happened to it, and what to do. */
function refusal(context: Context, { kind, message }: LaneFailure, bytes: number, isUnknown: boolean): Response {
  const isChange = !['GET', 'HEAD'].includes(context.req.method);
  const size = bytes === 0 ? '' : ` It came with ${bytes.toLocaleString('en')} bytes.`;
  if (isChange && isUnknown)
    return problem(context, 503, `${message}${size} It is not known whether it was saved; please look before you try again.`, {
      outcome: 'unknown',
    });
  const nothing = isChange ? ' Nothing was saved.' : '';
  if (kind === 'full' || kind === 'crashed') {
    context.header('Retry-After', '2');
    return problem(context, 503, `${message}${nothing} Please try again in a moment.`);
  }
  return problem(context, 422, `${message}${size}${nothing} Less at once can be handled.`);
}
