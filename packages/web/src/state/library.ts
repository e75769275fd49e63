import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { createActionGroup, createFeature, createReducer, createSelector, emptyProps, on, props, Store } from '@ngrx/store';
import { catchError, EMPTY, exhaustMap, filter, map, of, switchMap, withLatestFrom } from 'rxjs';
import { Api, type ApiFailure } from './api';
import type { HouseLimits, JsonObject } from '@typikon/core';
import { nameOf } from './profile-name';
import type { Edition, Library, Part, SharedEdition, Specimen, StoredCensus, StoredProfile, StyleFiles } from './types';
import { WorkshopActions } from './workshop.actions';

export const LibraryActions = createActionGroup({
  source: 'Library',
  events: {
    Requested: emptyProps(),
    Loaded: props<{ library: Library }>(),
    'Load Failed': props<{ message: string }>(),
    /** The house limits were changed here, or read anew. */
    'House Changed': props<{ house: HouseLimits; houseRevision: number }>(),
    'Profile Stored': props<{ profile: StoredProfile }>(),
    'Profile Removed': props<{ id: string }>(),
    /** Something was released, or is about to be written with. */
    'Editions Requested': emptyProps(),
    'Editions Read': props<{ editions: Edition[] }>(),
    /** Something that the whole site has once was released. */
    'Shared Requested': emptyProps(),
    'Shared Read': props<{ shared: SharedEdition[] }>(),
    /** Stylesheets and page kinds were changed here, or read anew. */
    'Style Files Changed': props<{ styleFiles: StyleFiles }>(),
    'Specimen Stored': props<{ specimen: Specimen }>(),
    'Specimen Removed': props<{ id: string }>(),
    'Census Requested': emptyProps(),
    'Census Read': props<{ census: StoredCensus }>(),
    'Census Failed': props<{ message: string }>(),
  },
});

interface LibraryState {
  status: 'idle' | 'loading' | 'ready' | 'failed';
  message: string;
  library: Library | null;
  /** What the stored documents hold; null until they are counted. */
  census: StoredCensus | null;
  /** Why they could not be counted; null while they are. */
  censusFailure: string | null;
}

const initialState: LibraryState = { status: 'idle', message: '', library: null, census: null, censusFailure: null };

const withProfile = (state: LibraryState, profile: StoredProfile): LibraryState =>
  state.library === null
    ? state
    : {
        ...state,
        library: {
          ...state.library,
          profiles: [...state.library.profiles.filter(({ id }) => id !== profile.id), profile].sort((a, b) => a.id.localeCompare(b.id)),
        },
      };

const withSpecimens = (state: LibraryState, change: (all: Specimen[]) => Specimen[]): LibraryState =>
  state.library === null ? state : { ...state, library: { ...state.library, specimens: change(state.library.specimens) } };

/** What the server has: profiles, specimens, page kinds, texts, house limits. */
export const libraryFeature = createFeature({
  name: 'library',
  reducer: createReducer(
    initialState,
    on(LibraryActions.requested, (state): LibraryState => ({ ...state, status: state.library === null ? 'loading' : state.status })),
    on(LibraryActions.loaded, (state, { library }): LibraryState => ({ ...state, status: 'ready', message: '', library })),
    on(LibraryActions.loadFailed, (state, { message }): LibraryState =>
      state.library === null ? { ...state, status: 'failed', message } : state,
    ),
    on(LibraryActions.houseChanged, (state, { house, houseRevision }): LibraryState =>
      state.library === null ? state : { ...state, library: { ...state.library, house, houseRevision } },
    ),
    on(LibraryActions.styleFilesChanged, (state, { styleFiles: { stylesheets, pageKinds, revision } }): LibraryState =>
      state.library === null ? state : { ...state, library: { ...state.library, stylesheets, pageKinds, pagesRevision: revision } },
    ),
    on(LibraryActions.profileStored, WorkshopActions.saved, (state, { profile }): LibraryState => withProfile(state, profile)),
    on(LibraryActions.profileRemoved, (state, { id }): LibraryState =>
      state.library === null
        ? state
        : { ...state, library: { ...state.library, profiles: state.library.profiles.filter((profile) => profile.id !== id) } },
    ),
    on(LibraryActions.editionsRead, (state, { editions }): LibraryState =>
      state.library === null ? state : { ...state, library: { ...state.library, editions } },
    ),
    on(LibraryActions.sharedRead, (state, { shared }): LibraryState =>
      state.library === null ? state : { ...state, library: { ...state.library, shared } },
    ),
    on(LibraryActions.specimenStored, (state, { specimen }): LibraryState =>
      withSpecimens(state, (all) => {
        const place = all.findIndex(({ id }) => id === specimen.id);
        return place === -1 ? [...all, specimen] : all.with(place, specimen);
      }),
    ),
    on(LibraryActions.specimenRemoved, (state, { id }): LibraryState => withSpecimens(state, (all) => all.filter((one) => one.id !== id))),
    on(LibraryActions.censusRequested, (state): LibraryState => ({ ...state, censusFailure: null })),
    on(LibraryActions.censusRead, (state, { census }): LibraryState => ({ ...state, census, censusFailure: null })),
    on(LibraryActions.censusFailed, (state, { message }): LibraryState => ({ ...state, censusFailure: message })),
    on(WorkshopActions.conflictFound, (state, { current }): LibraryState => withProfile(state, current)),
  ),
  extraSelectors: ({ selectLibrary, selectCensus, selectCensusFailure }) => ({
    /** Whether it is known what the stored documents hold, or that it cannot be. */
    selectIsCounted: createSelector(selectCensus, selectCensusFailure, (census, failure) => census !== null || failure !== null),
    selectProfiles: createSelector(selectLibrary, (library) => library?.profiles ?? []),
    /** The names of all profiles, by their ids. */
    selectNames: createSelector(
      selectLibrary,
      (library): ReadonlyMap<string, string> => new Map(library?.profiles.map((profile) => [profile.id, nameOf(profile)])),
    ),
    /** The last edition of each profile, by the profile's id: what authors write with. */
    selectEditions: createSelector(
      selectLibrary,
      (library): ReadonlyMap<string, Edition> => new Map(library?.editions.map((edition) => [edition.profile, edition])),
    ),
    selectSpecimens: createSelector(selectLibrary, (library) => library?.specimens ?? []),
    /** How many texts are stored, by field, profile and kind of page. */
    selectTexts: createSelector(selectLibrary, (library) => library?.texts ?? []),
    /** The draft of the house limits as it is written, to be edited. */
    selectHouseDocument: createSelector(selectLibrary, (library) => (library === null ? null : (library.house as unknown as JsonObject))),
    /** The house limits as they were released last: they hold. */
    selectHouseEdition: createSelector(selectLibrary, (library) => library?.shared.find(({ part }) => part === 'house-limits') ?? null),
    /** Page kinds and stylesheets as they were released last: readers and authors see them. */
    selectPagesEdition: createSelector(selectLibrary, (library) => library?.shared.find(({ part }) => part === 'pages') ?? null),
    /** What there is to write and who writes it with what, as it was released last. */
    selectSiteEdition: createSelector(selectLibrary, (library) => library?.shared.find(({ part }) => part === 'site') ?? null),
    selectPagesRevision: createSelector(selectLibrary, (library) => library?.pagesRevision ?? 0),
    selectHouseRevision: createSelector(selectLibrary, (library) => library?.houseRevision ?? 0),
    selectRoles: createSelector(selectLibrary, (library) => library?.roles ?? []),
    selectStylesheets: createSelector(selectLibrary, (library) => library?.stylesheets ?? []),
    selectPageKinds: createSelector(selectLibrary, (library) => library?.pageKinds ?? []),
    selectSiteOrigin: createSelector(selectLibrary, (library) => library?.siteOrigin ?? ''),
  }),
});

export const loadLibrary = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(LibraryActions.requested),
      exhaustMap(() =>
        api.library().pipe(
          map((library) => LibraryActions.loaded({ library })),
          catchError((failure: ApiFailure) => of(LibraryActions.loadFailed({ message: failure.message }))),
        ),
      ),
    ),
  { functional: true },
);

/** Reads the editions anew; a profile that was just made has its first. */
export const readEditions = createEffect(
  (actions = inject(Actions), api = inject(Api), store = inject(Store)) =>
    actions.pipe(
      ofType(LibraryActions.editionsRequested, LibraryActions.profileStored),
      withLatestFrom(store.select(libraryFeature.selectEditions)),
      filter(([action, editions]) => !('profile' in action) || !editions.has(action.profile.id)),
      switchMap(() =>
        api.editions().pipe(
          map((editions) => LibraryActions.editionsRead({ editions })),
          // What was read before stands; the next that is asked for brings the rest.
          catchError(() => EMPTY),
        ),
      ),
    ),
  { functional: true },
);

/** What is saved by what is told of it. */
const FIRST_SAVES: Readonly<Record<string, Part | undefined>> = {
  [LibraryActions.houseChanged.type]: 'house-limits',
  [LibraryActions.styleFilesChanged.type]: 'pages',
};

/** Reads anew what holds of what the whole site has once. */
export const readShared = createEffect(
  (actions = inject(Actions), api = inject(Api), store = inject(Store)) =>
    actions.pipe(
      ofType(LibraryActions.sharedRequested, LibraryActions.houseChanged, LibraryActions.styleFilesChanged),
      withLatestFrom(store.select(libraryFeature.selectLibrary)),
      // What is saved for the first time holds at once, as a first edition.
      filter(([{ type }, library]) => {
        const part = FIRST_SAVES[type];
        return part === undefined || (library !== null && !library.shared.some((edition) => edition.part === part));
      }),
      switchMap(() =>
        api.shared().pipe(
          map((shared) => LibraryActions.sharedRead({ shared })),
          // What was read before stands, as for editions.
          catchError(() => EMPTY),
        ),
      ),
    ),
  { functional: true },
);

/** Counts what the stored documents hold, once something is worked on that they decide about. */
export const countStored = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(WorkshopActions.opened, LibraryActions.censusRequested),
      switchMap(() =>
        api.census().pipe(
          map((census) => LibraryActions.censusRead({ census })),
          catchError(({ message }: ApiFailure) => of(LibraryActions.censusFailed({ message }))),
        ),
      ),
    ),
  { functional: true },
);
