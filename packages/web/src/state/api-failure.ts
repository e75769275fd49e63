import type { HttpErrorResponse } from '@angular/common/http';
import type { Problem } from '@typikon/core';
import { throwError, type Observable } from 'rxjs';

/** An answer of the server that says no (RFC 9457), or that there was none. */
export class ApiFailure<Current = unknown> extends Error {
  constructor(
    /** HTTP status; 0 where the server did not answer. */
    readonly status: number,
    detail: string,
    readonly problems: readonly Problem[] = [],
    /** For 412: what the server has now. */
    readonly current?: Current,
    /** Whether nobody knows what became of a change, since the database was lost while it was saved. */
    readonly isUnknown = false,
  ) {
    super(detail);
  }
}

export function asFailure(error: HttpErrorResponse): Observable<never> {
  const body = (typeof error.error === 'object' && error.error !== null ? error.error : {}) as {
    detail?: string;
    problems?: Problem[];
    current?: unknown;
    outcome?: string;
  };
  const detail = error.status === 0 ? 'The server does not answer.' : (body.detail ?? `The server answered ${error.status}.`);
  return throwError(() => new ApiFailure(error.status, detail, body.problems, body.current, body.outcome === 'unknown'));
}
