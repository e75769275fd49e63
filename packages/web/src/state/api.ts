import { HttpClient, type HttpErrorResponse } from '@angular/common/http';
import { Injectable, inject } from '@angular/core';
import type { HouseLimits, JsonObject, Problem } from '@typikon/core';
import { catchError, forkJoin, map, throwError, type Observable } from 'rxjs';
import type { DocumentSummary, Library, PageKindWithCss, Specimen, StoredProfile } from './types';

/** An answer of the server that says no (RFC 9457), or that there was none. */
export class ApiFailure extends Error {
  constructor(
    /** HTTP status; 0 where the server did not answer. */
    readonly status: number,
    detail: string,
    readonly problems: readonly Problem[] = [],
    /** For 412: what the server has now. */
    readonly current?: StoredProfile,
  ) {
    super(detail);
  }
}

/** The server's API, /api/v1. Every call errors with an ApiFailure. */
@Injectable({ providedIn: 'root' })
export class Api {
  private readonly http = inject(HttpClient);

  library(): Observable<Library> {
    return forkJoin({
      profiles: this.get<StoredProfile[]>('profiles'),
      specimens: this.get<Specimen[]>('specimens'),
      pageKinds: this.get<PageKindWithCss[]>('page-kinds'),
      documents: this.get<DocumentSummary[]>('documents'),
      house: this.get<HouseLimits>('house-limits'),
      settings: this.get<{ siteOrigin: string }>('settings'),
    }).pipe(map(({ settings, ...rest }) => ({ ...rest, siteOrigin: atSameHost(settings.siteOrigin) })));
  }

  profile(id: string): Observable<StoredProfile> {
    return this.get<StoredProfile>(`profiles/${id}`);
  }

  /** Saves a draft that was begun from a revision. */
  saveDraft(id: string, document: JsonObject, revision: number): Observable<StoredProfile> {
    return this.http
      .put<StoredProfile>(`/api/v1/profiles/${id}/draft`, document, { headers: { 'If-Match': `"${revision}"` } })
      .pipe(catchError(asFailure));
  }

  createProfile(id: string, document: JsonObject): Observable<StoredProfile> {
    return this.http.post<StoredProfile>('/api/v1/profiles', { id, document }).pipe(catchError(asFailure));
  }

  private get<T>(path: string): Observable<T> {
    return this.http.get<T>(`/api/v1/${path}`).pipe(catchError(asFailure));
  }
}

/** The site has a port of its own on the host under which the application was opened. */
function atSameHost(origin: string): string {
  const url = new URL(origin);
  url.hostname = location.hostname;
  return url.origin;
}

function asFailure(error: HttpErrorResponse): Observable<never> {
  const body = (typeof error.error === 'object' && error.error !== null ? error.error : {}) as {
    detail?: string;
    problems?: Problem[];
    current?: StoredProfile;
  };
  const detail = error.status === 0 ? 'The server does not answer.' : (body.detail ?? `The server answered ${error.status}.`);
  return throwError(() => new ApiFailure(error.status, detail, body.problems, body.current));
}
