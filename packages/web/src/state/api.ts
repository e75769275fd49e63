import { HttpClient, type HttpErrorResponse, type HttpHeaders } from '@angular/common/http';
import { Injectable, inject } from '@angular/core';
import type { HouseLimits, JsonObject, PastedPicture, SpecimenDocument } from '@typikon/core';
import { isSameJson } from '@typikon/core/light';
import {
  catchError,
  EMPTY,
  expand,
  firstValueFrom,
  forkJoin,
  identity,
  map,
  of,
  reduce,
  retry,
  switchMap,
  throwError,
  timer,
  type MonoTypeOperatorFunction,
  type Observable,
} from 'rxjs';
import type { LibraryPicture, SameName } from '@typikon/editor';
import { ApiFailure, asFailure } from './api-failure';
import type {
  Edition,
  Library,
  LikenessFigure,
  PublishedText,
  Role,
  RuleChange,
  SharedEdition,
  Specimen,
  StoredCensus,
  StoredProfile,
  StyleChanges,
  StyleFiles,
  StylesheetVersion,
  TextCount,
} from './types';

/** What became of a picture: it is in the library now, or one of its name was there. */
type Stored = { picture: LibraryPicture } | { existing: LibraryPicture };

export { ApiFailure } from './api-failure';

/** The server's API, /api/v1. Every call errors with an ApiFailure. */
@Injectable({ providedIn: 'root' })
export class Api {
  private readonly http = inject(HttpClient);

  library(): Observable<Library> {
    return forkJoin({
      profiles: this.all<StoredProfile>('profiles'),
      editions: this.editions(),
      shared: this.shared(),
      specimens: this.all<Specimen>('specimens/contents'),
      styleFiles: this.styleFiles(),
      texts: this.get<TextCount[]>('texts/counts'),
      limits: this.houseLimits(),
      roles: this.get<Role[]>('roles'),
      settings: this.get<{ siteOrigin: string }>('settings'),
    }).pipe(
      map(({ settings, limits, styleFiles, ...rest }) => ({
        ...rest,
        ...limits,
        stylesheets: styleFiles.stylesheets,
        pageKinds: styleFiles.pageKinds,
        pagesRevision: styleFiles.revision,
        siteOrigin: atSameHost(settings.siteOrigin),
      })),
    );
  }

  /** The last edition of every profile. */
  editions(): Observable<Edition[]> {
    return this.all<Edition>('editions');
  }

  /** The last edition of what the whole site has once. */
  shared(): Observable<SharedEdition[]> {
    return this.get<SharedEdition[]>('shared');
  }

  /** What all stored documents hold together; counting them takes longer than anything else that is read. */
  census(): Observable<StoredCensus> {
    return this.get<StoredCensus>('texts/census');
  }

  profile(id: string): Observable<StoredProfile> {
    return this.get<StoredProfile>(`profiles/${id}`);
  }

  /** Saves a draft that was begun from a revision. */
  saveDraft(id: string, document: JsonObject, revision: number): Observable<StoredProfile> {
    return this.http.put<StoredProfile>(`/api/v1/profiles/${id}/draft`, document, { headers: { 'If-Match': `"${revision}"` } }).pipe(
      catchError(asFailure),
      looking(
        () => this.profile(id),
        (now) => now.revision === revision + 1 && isSameJson(now.document, document),
      ),
    );
  }

  houseLimits(): Observable<{ house: HouseLimits; houseRevision: number }> {
    return this.http.get<HouseLimits>('/api/v1/house-limits', { observe: 'response' }).pipe(
      map(({ body, headers }) => ({ house: body!, houseRevision: revisionIn(headers) })),
      catchError(asFailure),
    );
  }

  /** Saves the draft of the house limits, which hold once they are released. */
  saveHouseLimits(house: JsonObject, revision: number): Observable<{ house: HouseLimits; houseRevision: number }> {
    const headers = { 'If-Match': `"${revision}"` };
    return this.http.put<HouseLimits>('/api/v1/house-limits', house, { headers, observe: 'response' }).pipe(
      map((response) => ({ house: response.body!, houseRevision: revisionIn(response.headers) })),
      catchError(asFailure),
      looking(
        () => this.houseLimits(),
        (now) => now.houseRevision === revision + 1 && isSameJson(now.house as unknown as JsonObject, house),
      ),
    );
  }

  /** When a rule was last changed: of a profile, or of the house limits where no profile is named. */
  ruleHistory(profile: string | null, pointer: string): Observable<RuleChange | null> {
    const path = profile === null ? 'house-limits' : `profiles/${profile}`;
    return this.get<RuleChange | null>(`${path}/rule-history?pointer=${encodeURIComponent(pointer)}`);
  }

  /** Puts pictures into the asset library. */
  async storePictures(pictures: readonly PastedPicture[]): Promise<void> {
    for (const { bytes, alt } of pictures)
      await firstValueFrom(
        this.http
          .post(`/api/v1/assets?alt=${encodeURIComponent(alt.slice(0, 300))}`, new Blob([bytes as Uint8Array<ArrayBuffer>]), {
            headers: { 'Content-Type': 'application/octet-stream' },
          })
          // Their address follows from their bytes: stored twice is stored once.
          .pipe(catchError(asFailure), sendingAgain()),
      );
  }

  pictures(query: string, folder: string): Observable<LibraryPicture[]> {
    return this.all<LibraryPicture>(`assets?q=${encodeURIComponent(query)}&folder=${encodeURIComponent(folder)}`);
  }

  pictureFolders(): Observable<string[]> {
    return this.get<string[]>('assets/folders');
  }

  /** Takes a picture with a name into the library; where the folder has the name already, it asks what is to happen. */
  storePicture(
    file: File,
    { alt, folder, widestPx, sameName }: { alt: string; folder: string; widestPx: number; sameName: SameName },
  ): Observable<Stored> {
    const query = new URLSearchParams({ alt, folder, title: file.name.slice(0, 200), widest: String(widestPx), sameName });
    const title = query.get('title');
    // Where the folder had the title before, the answer would have been that it has.
    const stored = () =>
      this.pictures(title ?? '', folder).pipe(
        map((all) => all.find((picture) => picture.title === title && picture.folder === folder)),
        map((picture) => (picture === undefined ? null : { picture })),
      );
    return this.http
      .post<LibraryPicture>(`/api/v1/assets?${query}`, file, { headers: { 'Content-Type': 'application/octet-stream' } })
      .pipe(
        map((picture): Stored => ({ picture })),
        catchError((error: HttpErrorResponse) => {
          const { existing } = (error.error ?? {}) as { existing?: LibraryPicture };
          return error.status === 409 && existing !== undefined ? of({ existing }) : asFailure(error);
        }),
        // Sent again, "ask" would ask about the picture itself, and "keep both" might keep three.
        sameName === 'replace' || sameName === 'use-existing' ? sendingAgain() : identity,
        sameName === 'ask' ? looking<Stored | null>(stored, (now) => now !== null) : identity,
        map((answer) => answer!),
      );
  }

  /** The stylesheets of the site and its kinds of page. */
  styleFiles(): Observable<StyleFiles> {
    return this.get<StyleFiles>('style-files');
  }

  /** Changes stylesheets and page kinds together: all of it or nothing. */
  changeStyleFiles(changes: StyleChanges): Observable<StyleFiles> {
    const isStored = ({ stylesheets, pageKinds }: StyleFiles): boolean =>
      (changes.stylesheets ?? []).every(({ id, css }) => stylesheets.some((now) => now.id === id && now.css === css)) &&
      (changes.pageKinds ?? []).every(({ id, revision }) => pageKinds.some((now) => now.id === id && now.revision === (revision ?? 0) + 1));
    return this.http.post<StyleFiles>('/api/v1/style-files/changes', changes).pipe(
      catchError(asFailure),
      looking(() => this.styleFiles(), isStored),
    );
  }

  stylesheetVersions(id: string): Observable<StylesheetVersion[]> {
    return this.get<StylesheetVersion[]>(`style-files/stylesheets/${id}/versions`);
  }

  stylesheetVersion(id: string, revision: number): Observable<string> {
    return this.get<{ css: string }>(`style-files/stylesheets/${id}/versions/${revision}`).pipe(map(({ css }) => css));
  }

  likenessFigures(): Observable<LikenessFigure[]> {
    return this.get<LikenessFigure[]>('likeness/figures');
  }

  /** Stored texts as they are published: all of them, or those of a profile or a page kind. */
  published(of: { profile?: string; pageKind?: string } = {}): Observable<PublishedText[]> {
    return this.all<PublishedText>(`texts/published?${new URLSearchParams(of)}`);
  }

  siteWords(): Observable<string[]> {
    return this.get<{ words: string[] }>('site-dictionary').pipe(map(({ words }) => words));
  }

  addSiteWord(word: string): Observable<string[]> {
    return this.http.post<{ words: string[] }>('/api/v1/site-dictionary/words', { word }).pipe(
      map(({ words }) => words),
      catchError(asFailure),
      sendingAgain(),
    );
  }

  removeSiteWord(word: string): Observable<string[]> {
    return this.http.delete<{ words: string[] }>(`/api/v1/site-dictionary/words/${encodeURIComponent(word)}`).pipe(
      map(({ words }) => words),
      catchError(asFailure),
      sendingAgain(),
    );
  }

  addSpecimen(specimen: SpecimenDocument & { id: string }): Observable<Specimen> {
    return this.http.post<Specimen>('/api/v1/specimens', specimen).pipe(
      catchError(asFailure),
      looking(
        () => this.get<Specimen>(`specimens/${specimen.id}`),
        (now) => now.revision === 1 && now.name === specimen.name,
      ),
    );
  }

  changeSpecimen(id: string, specimen: SpecimenDocument, revision: number): Observable<Specimen> {
    return this.http.put<Specimen>(`/api/v1/specimens/${id}`, specimen, { headers: { 'If-Match': `"${revision}"` } }).pipe(
      catchError(asFailure),
      looking(
        () => this.get<Specimen>(`specimens/${id}`),
        (now) => now.revision === revision + 1 && now.name === specimen.name,
      ),
    );
  }

  removeSpecimen(id: string, revision: number): Observable<void> {
    const isGone = () =>
      this.get<Specimen>(`specimens/${id}`).pipe(
        map(() => false),
        catchError((failure: ApiFailure) => (failure.status === 404 ? of(true) : throwError(() => failure))),
      );
    return this.http.delete(`/api/v1/specimens/${id}`, { headers: { 'If-Match': `"${revision}"` } }).pipe(
      map(() => true),
      catchError(asFailure),
      looking(isGone, (gone) => gone),
      map(() => undefined),
    );
  }

  createProfile(id: string, document: JsonObject): Observable<StoredProfile> {
    return this.http.post<StoredProfile>('/api/v1/profiles', { id, document }).pipe(
      catchError(asFailure),
      looking(
        () => this.profile(id),
        (now) => now.revision === 1 && isSameJson(now.document, document),
      ),
    );
  }

  /** All pages of a list, one after another, as each answer names the next in its `Link` header (RFC 8288). */
  private all<T>(path: string): Observable<T[]> {
    const page = (address: string) => this.http.get<T[]>(address, { observe: 'response' });
    return page(`/api/v1/${path}`).pipe(
      expand(({ headers }) => {
        const next = /<([^>]+)>;\s*rel="next"/.exec(headers.get('Link') ?? '')?.[1];
        return next === undefined ? EMPTY : page(next);
      }),
      reduce((list, { body }) => list.concat(body ?? []), [] as T[]),
      catchError(asFailure),
    );
  }

  private get<T>(path: string): Observable<T> {
    return this.http.get<T>(`/api/v1/${path}`).pipe(catchError(asFailure));
  }
}

/**
 * Looks what became of a save where the server does not know (the database was lost while it was saved).
 *
 * @param look reads what is stored now
 * @param isIt whether that is what was sent
 */
function looking<T>(look: () => Observable<T>, isIt: (now: T) => boolean): MonoTypeOperatorFunction<T> {
  const nothing = (status: number) =>
    new ApiFailure(status, 'The database was lost while it was saving, and nothing was saved. Please try again.');
  return catchError((failure: ApiFailure) =>
    failure.isUnknown
      ? timer(LOOK_AGAIN_MS).pipe(
          switchMap(look),
          retry({
            count: MOST_LOOKS,
            delay: (error: ApiFailure) => (error.status === 404 ? throwError(() => nothing(failure.status)) : timer(LOOK_AGAIN_MS)),
          }),
          map((now) => {
            if (isIt(now)) return now;
            throw nothing(failure.status);
          }),
        )
      : throwError(() => failure),
  );
}

/** Sends again what may be sent twice without harm, where nobody knows what became of it. */
function sendingAgain<T>(): MonoTypeOperatorFunction<T> {
  return retry({
    count: MOST_LOOKS,
    delay: (failure: ApiFailure) => (failure.isUnknown ? timer(LOOK_AGAIN_MS) : throwError(() => failure)),
  });
}

/** So often, and after so many milliseconds each, it is looked again while the database comes back. */
const MOST_LOOKS = 5;
const LOOK_AGAIN_MS = 1000;

function revisionIn(headers: HttpHeaders): number {
  return Number(/\d+/.exec(headers.get('ETag') ?? '')?.[0] ?? 0);
}

/** The site has a port of its own on the host under which the application was opened. */
function atSameHost(origin: string): string {
  const url = new URL(origin);
  url.hostname = location.hostname;
  return url.origin;
}
