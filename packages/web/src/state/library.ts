import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { createActionGroup, createFeature, createReducer, createSelector, emptyProps, on, props } from '@ngrx/store';
import { catchError, exhaustMap, map, of } from 'rxjs';
import { Api, type ApiFailure } from './api';
import { nameOf } from './profile-name';
import type { Library, StoredProfile } from './types';
import { WorkshopActions } from './workshop.actions';

export const LibraryActions = createActionGroup({
  source: 'Library',
  events: {
    Requested: emptyProps(),
    Loaded: props<{ library: Library }>(),
    'Load Failed': props<{ message: string }>(),
    'Profile Created': props<{ profile: StoredProfile }>(),
  },
});

interface LibraryState {
  status: 'idle' | 'loading' | 'ready' | 'failed';
  message: string;
  library: Library | null;
}

const initialState: LibraryState = { status: 'idle', message: '', library: null };

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

/** What the server has: profiles, specimens, page kinds, documents, house limits. */
export const libraryFeature = createFeature({
  name: 'library',
  reducer: createReducer(
    initialState,
    on(LibraryActions.requested, (state): LibraryState => ({ ...state, status: state.library === null ? 'loading' : state.status })),
    on(LibraryActions.loaded, (_state, { library }): LibraryState => ({ status: 'ready', message: '', library })),
    on(LibraryActions.loadFailed, (state, { message }): LibraryState =>
      state.library === null ? { ...state, status: 'failed', message } : state,
    ),
    on(LibraryActions.profileCreated, WorkshopActions.saved, (state, { profile }): LibraryState => withProfile(state, profile)),
    on(WorkshopActions.conflictFound, (state, { current }): LibraryState => withProfile(state, current)),
  ),
  extraSelectors: ({ selectLibrary }) => ({
    selectProfiles: createSelector(selectLibrary, (library) => library?.profiles ?? []),
    /** The names of all profiles, by their ids. */
    selectNames: createSelector(
      selectLibrary,
      (library): ReadonlyMap<string, string> => new Map(library?.profiles.map((profile) => [profile.id, nameOf(profile)])),
    ),
    selectSpecimens: createSelector(selectLibrary, (library) => library?.specimens ?? []),
    selectDocuments: createSelector(selectLibrary, (library) => library?.documents ?? []),
    selectHouse: createSelector(selectLibrary, (library) => library?.house ?? null),
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
