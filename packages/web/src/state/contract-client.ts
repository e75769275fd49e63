import { HttpClient, type HttpHeaders } from '@angular/common/http';
import { Injectable, inject } from '@angular/core';
import type { Observable } from 'rxjs';
import { catchError, map } from 'rxjs';
import { asFailure } from './api-failure';
import type { AnswerOf, PathOf, QueryOf } from './contract';

export interface Answer<Body> {
  body: Body;
  /** From the entity tag; 0 where there is none. */
  revision: number;
}

/** Asks the routes of the contract, typed by it. Every call errors with an ApiFailure. */
@Injectable({ providedIn: 'root' })
export class ContractClient {
  private readonly http = inject(HttpClient);

  get<P extends PathOf<'get'>>(path: P, query: QueryOf<'get', P>): Observable<Answer<AnswerOf<'get', P>>> {
    const params = new URLSearchParams(query as Record<string, string>).toString();
    return this.http
      .get<AnswerOf<'get', P>>(`/api/v1${path}${params === '' ? '' : `?${params}`}`, { observe: 'response' })
      .pipe(map(asAnswer), catchError(asFailure));
  }

  /** @param revision that the change was begun from */
  put<P extends PathOf<'put'>>(path: P, body: unknown, revision: number): Observable<Answer<AnswerOf<'put', P>>> {
    return this.http
      .put<AnswerOf<'put', P>>(`/api/v1${path}`, body, { observe: 'response', headers: { 'If-Match': `"${revision}"` } })
      .pipe(map(asAnswer), catchError(asFailure));
  }
}

function asAnswer<Body>({ body, headers }: { body: Body | null; headers: HttpHeaders }): Answer<Body> {
  return { body: body as Body, revision: Number(/\d+/.exec(headers.get('ETag') ?? '')?.[0] ?? 0) };
}
