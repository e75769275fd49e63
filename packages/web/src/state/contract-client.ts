import { HttpClient, type HttpHeaders } from '@angular/common/http';
import { Injectable, inject } from '@angular/core';
import type { Observable } from 'rxjs';
import { catchError, map } from 'rxjs';
import { asFailure } from './api-failure';
import type { AnswerOf, Method, ParametersOf, PathOf, QueryOf } from './contract';

export interface Answer<Body> {
  body: Body;
  /** From the entity tag; 0 where there is none. */
  revision: number;
  /** What `after` has to be for the next page (RFC 8288, `rel="next"`); null on the last. */
  next: string | null;
}

/** Asks the routes of the contract, typed by it. Every call errors with an ApiFailure. */
@Injectable({ providedIn: 'root' })
export class ContractClient {
  private readonly http = inject(HttpClient);

  get<P extends PathOf<'get'>>(
    path: P,
    query: QueryOf<'get', P>,
    parameters: ParametersOf<'get', P>,
  ): Observable<Answer<AnswerOf<'get', P>>> {
    return this.http
      .get<AnswerOf<'get', P>>(`${addressOf(path, parameters)}${searchOf(query)}`, { observe: 'response' })
      .pipe(map(asAnswer), catchError(asFailure));
  }

  /** @param revision that the change was begun from */
  put<P extends PathOf<'put'>>(
    path: P,
    body: unknown,
    revision: number,
    parameters: ParametersOf<'put', P>,
  ): Observable<Answer<AnswerOf<'put', P>>> {
    return this.http
      .put<AnswerOf<'put', P>>(addressOf(path, parameters), body, { observe: 'response', headers: { 'If-Match': `"${revision}"` } })
      .pipe(map(asAnswer), catchError(asFailure));
  }

  /** @param revision that the change was begun from; null for what is new */
  post<P extends PathOf<'post'>>(
    path: P,
    body: unknown,
    revision: number | null,
    parameters: ParametersOf<'post', P>,
    query: Partial<QueryOf<'post', P>> = {},
  ): Observable<Answer<AnswerOf<'post', P>>> {
    const headers: Record<string, string> = revision === null ? {} : { 'If-Match': `"${revision}"` };
    return this.http
      .post<AnswerOf<'post', P>>(`${addressOf(path, parameters)}${searchOf(query)}`, body, { observe: 'response', headers })
      .pipe(map(asAnswer), catchError(asFailure));
  }

  /** @param revision of what was seen */
  delete<P extends PathOf<'delete'>>(path: P, revision: number, parameters: ParametersOf<'delete', P>): Observable<void> {
    return this.http.delete(addressOf(path, parameters), { headers: { 'If-Match': `"${revision}"` } }).pipe(
      map(() => undefined),
      catchError(asFailure),
    );
  }
}

function addressOf(path: PathOf<Method>, parameters: Readonly<Record<string, string>>): string {
  return `/api/v1${path.replace(/\{(\w+)\}/g, (_, name: string) => encodeURIComponent(parameters[name] ?? ''))}`;
}

/** What stands behind the address, from the question mark on; what is not given is left out. */
function searchOf(query: unknown): string {
  const given = Object.entries(query as Record<string, string | number | undefined>).filter(
    ([, value]) => value !== undefined && value !== '',
  );
  const search = new URLSearchParams(given.map(([name, value]) => [name, String(value)])).toString();
  return search === '' ? '' : `?${search}`;
}

function asAnswer<Body>({ body, headers }: { body: Body | null; headers: HttpHeaders }): Answer<Body> {
  const next = /<([^>]+)>; rel="next"/.exec(headers.get('Link') ?? '')?.[1];
  return {
    body: body as Body,
    revision: Number(/\d+/.exec(headers.get('ETag') ?? '')?.[0] ?? 0),
    next: next === undefined ? null : new URLSearchParams(next.replace(/^[^?]*\?/, '')).get('after'),
  };
}
