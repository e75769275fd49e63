import { inject } from '@angular/core';
import type { CompileOptions, Finding, PublishedOn } from '@typikon/core';
import {
  countChanges,
  isSameJson,
  resolveProfile,
  type JsonObject,
  type Problem,
  type ResolvedProfile,
  type RulesSummary,
} from '@typikon/core/settings';
import { sheetsOf } from './style-files';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { createFeature, createReducer, createSelector, on, Store } from '@ngrx/store';
import { catchError, exhaustMap, filter, map, of, tap, withLatestFrom } from 'rxjs';
import { Api, type ApiFailure } from './api';
import { DraftBackup, type Backup } from './draft-backup';
import { selectHouse } from './house';
import { libraryFeature } from './library';
import type { ProfileSurroundings } from './styled-pages';
import type { StoredProfile } from './types';
import { WorkshopActions, type Chapter } from './workshop.actions';

interface Step {
  document: JsonObject;
  label: string;
}

export interface WorkshopState {
  profileId: string | null;
  draft: JsonObject;
  /** The revision of the stored draft that this one was begun from. */
  revision: number;
  saved: JsonObject;
  savedAt: string;
  past: Step[];
  future: Step[];
  isSaving: boolean;
  failure: string;
  problems: readonly Problem[];
  /** What somebody else saved meanwhile. */
  conflict: StoredProfile | null;
  backup: Backup | null;
  chapter: Chapter;
  element: string | null;
  /** The setting that was looked for last; what stands below is drawn then. */
  sought: string | null;
  role: string;
  /** What the checks found when they last ran. */
  findings: readonly Finding[];
  /** The draft that they ran on. */
  tested: JsonObject | null;
  /** What the rules come to, house limits and safety floor worked in; of the last draft that could be read. */
  summary: RulesSummary | null;
  /** What it is the summary of. */
  summarized: ResolvedProfile | null;
}

const initialState: WorkshopState = {
  profileId: null,
  draft: {},
  revision: 0,
  saved: {},
  savedAt: '',
  past: [],
  future: [],
  isSaving: false,
  failure: '',
  problems: [],
  conflict: null,
  backup: null,
  chapter: 'markup',
  element: null,
  sought: null,
  role: '',
  findings: [],
  tested: null,
  summary: null,
  summarized: null,
};

const edited = (state: WorkshopState, document: JsonObject, label: string): WorkshopState => ({
  ...state,
  draft: document,
  past: [...state.past, { document: state.draft, label }],
  future: [],
  failure: '',
  problems: [],
});

export const workshopFeature = createFeature({
  name: 'workshop',
  reducer: createReducer(
    initialState,
    on(WorkshopActions.opened, (state, { profile, backup }): WorkshopState => ({
      ...initialState,
      chapter: state.chapter === 'findings' ? 'markup' : state.chapter,
      profileId: profile.id,
      draft: profile.document,
      saved: profile.document,
      savedAt: profile.updatedAt,
      revision: profile.revision,
      backup: backup !== null && !isSameJson(backup.document, profile.document) ? backup : null,
    })),
    on(WorkshopActions.left, (state): WorkshopState => ({ ...initialState, chapter: state.chapter })),
    on(WorkshopActions.draftEdited, (state, { document, label }) =>
      isSameJson(document, state.draft) ? state : edited(state, document, label),
    ),
    on(WorkshopActions.undoPressed, (state): WorkshopState => {
      const step = state.past[state.past.length - 1];
      if (step === undefined) return state;
      return {
        ...state,
        draft: step.document,
        past: state.past.slice(0, -1),
        future: [{ document: state.draft, label: step.label }, ...state.future],
        failure: '',
        problems: [],
      };
    }),
    on(WorkshopActions.redoPressed, (state): WorkshopState => {
      const [step, ...future] = state.future;
      if (step === undefined) return state;
      return {
        ...state,
        draft: step.document,
        past: [...state.past, { document: state.draft, label: step.label }],
        future,
        failure: '',
        problems: [],
      };
    }),
    on(WorkshopActions.savePressed, (state): WorkshopState => ({ ...state, isSaving: true, failure: '', problems: [] })),
    on(WorkshopActions.saved, (state, { profile }): WorkshopState =>
      profile.id === state.profileId
        ? {
            ...state,
            isSaving: false,
            saved: profile.document,
            savedAt: profile.updatedAt,
            revision: profile.revision,
            conflict: null,
            backup: null,
          }
        : state,
    ),
    on(WorkshopActions.saveFailed, (state, { message, problems }): WorkshopState => ({
      ...state,
      isSaving: false,
      failure: message,
      problems,
    })),
    on(WorkshopActions.conflictFound, (state, { current }): WorkshopState => ({ ...state, isSaving: false, conflict: current })),
    on(WorkshopActions.ownVersionKept, (state): WorkshopState =>
      state.conflict === null
        ? state
        : {
            ...state,
            revision: state.conflict.revision,
            saved: state.conflict.document,
            savedAt: state.conflict.updatedAt,
            conflict: null,
            isSaving: true,
          },
    ),
    on(WorkshopActions.theirVersionTaken, (state): WorkshopState => {
      if (state.conflict === null) return state;
      const { document, revision, updatedAt } = state.conflict;
      return { ...edited(state, document, 'Taking the other version'), saved: document, savedAt: updatedAt, revision, conflict: null };
    }),
    on(WorkshopActions.backupRestored, (state): WorkshopState =>
      state.backup === null ? state : { ...edited(state, state.backup.document, 'Taking back unsaved changes'), backup: null },
    ),
    on(WorkshopActions.backupDiscarded, (state): WorkshopState => ({ ...state, backup: null })),
    on(WorkshopActions.changesAbandoned, (state): WorkshopState => ({ ...state, draft: state.saved, past: [], future: [] })),
    on(WorkshopActions.chapterChosen, (state, { chapter }): WorkshopState => ({ ...state, chapter })),
    on(WorkshopActions.draftTested, (state, { draft, findings }): WorkshopState => ({ ...state, findings, tested: draft })),
    on(WorkshopActions.settingSought, (state, { setting }): WorkshopState => ({ ...state, sought: setting })),
    on(WorkshopActions.rulesSummedUp, (state, { summary, resolved }): WorkshopState => ({ ...state, summary, summarized: resolved })),
    on(WorkshopActions.roleChosen, (state, { role }): WorkshopState => ({ ...state, role })),
    on(WorkshopActions.elementChosen, (state, { element }): WorkshopState => ({
      ...state,
      element,
      chapter: element === null ? state.chapter : 'markup',
    })),
  ),
  extraSelectors: ({ selectProfileId, selectDraft, selectSaved, selectRole, selectTested }) => {
    /** The documents that the draft is resolved with: those of the server, and the draft in place of its own. */
    const selectDocuments = createSelector(
      libraryFeature.selectProfiles,
      selectProfileId,
      selectDraft,
      (profiles, id, draft): Record<string, JsonObject> => {
        const documents: Record<string, JsonObject> = {};
        for (const profile of profiles) documents[profile.id] = profile.document;
        if (id !== null) documents[id] = draft;
        return documents;
      },
    );
    const selectResolution = createSelector(selectProfileId, selectDocuments, (id, documents) =>
      id === null ? null : resolveProfile(id, (other) => documents[other]),
    );
    const selectResolved = createSelector(selectResolution, (resolution): ResolvedProfile | null =>
      resolution?.ok === true ? resolution.resolved : null,
    );
    const selectOptions = createSelector(selectHouse, selectRole, (house, role): CompileOptions => ({
      ...(house === null ? {} : { house }),
      ...(role === '' ? {} : { role }),
    }));
    /** The draft and the documents that it stands on, as far as they lead; of the others nothing counts. */
    const selectChain = createSelector(selectProfileId, selectDocuments, (id, documents): Record<string, JsonObject> => {
      const chain: Record<string, JsonObject> = {};
      let at: unknown = id;
      while (typeof at === 'string' && !Object.hasOwn(chain, at)) {
        const document = documents[at];
        if (document === undefined) break;
        chain[at] = document;
        at = document['extends'];
      }
      return chain;
    });
    const selectSurfacePage = createSelector(selectResolved, (resolved) => resolved?.profile.surface.pageKind ?? null);
    /** The kinds of page on which content of the profile is published, and the one on which its surface stands, with their stylesheets. */
    const selectPublishedOn = createSelector(
      libraryFeature.selectPageKinds,
      libraryFeature.selectStylesheets,
      libraryFeature.selectTexts,
      selectProfileId,
      selectSurfacePage,
      (pageKinds, stylesheets, texts, profileId, surfacePage): PublishedOn[] => {
        const used = new Set([...texts.filter((text) => text.profileId === profileId).map(({ pageKindId }) => pageKindId), surfacePage]);
        return pageKinds.filter(({ id }) => used.has(id)).map((kind) => ({ kind, sheets: sheetsOf(kind, stylesheets) }));
      },
    );
    /** What stands around the draft, for the checks. */
    const selectSurroundings = createSelector(
      selectHouse,
      selectPublishedOn,
      libraryFeature.selectCensus,
      (house, publishedOn, census): ProfileSurroundings => ({ house, publishedOn, census }),
    );
    return {
      selectDocuments,
      selectResolution,
      selectResolved,
      /** The house limits and the role, as the rules are compiled with. */
      selectOptions,
      selectPublishedOn,
      selectChain,
      /** All that the checks of the draft read. */
      selectToTest: createSelector(
        selectProfileId,
        selectChain,
        selectSurroundings,
        libraryFeature.selectIsCounted,
        (id, documents, surroundings, isCounted) => ({ id, documents, surroundings, isCounted }),
      ),
      selectSurroundings,
      /** Whether what was found is of the draft as it stands. */
      selectIsTested: createSelector(selectDraft, selectTested, (draft, tested) => draft === tested),
      selectChanges: createSelector(selectDraft, selectSaved, (draft, saved) => countChanges(saved, draft)),
    };
  },
});

/** Saves the draft; a version that somebody else saved meanwhile is offered beside it. */
export const saveDraft = createEffect(
  (actions = inject(Actions), store = inject(Store), api = inject(Api)) =>
    actions.pipe(
      ofType(WorkshopActions.savePressed, WorkshopActions.ownVersionKept),
      withLatestFrom(store.select(workshopFeature.selectWorkshopState)),
      filter(([, state]) => state.profileId !== null),
      exhaustMap(([, { profileId, draft, revision }]) =>
        api.saveDraft(profileId!, draft, revision).pipe(
          map((profile) => WorkshopActions.saved({ profile })),
          catchError((failure: ApiFailure<StoredProfile>) =>
            of(
              failure.status === 412 && failure.current !== undefined
                ? WorkshopActions.conflictFound({ current: failure.current })
                : WorkshopActions.saveFailed({ message: failure.message, problems: failure.problems }),
            ),
          ),
        ),
      ),
    ),
  { functional: true },
);

/** Keeps what is not saved in the browser, and forgets it once it is saved or given up. */
export const keepBackup = createEffect(
  (actions = inject(Actions), store = inject(Store), backups = inject(DraftBackup)) =>
    actions.pipe(
      ofType(
        WorkshopActions.draftEdited,
        WorkshopActions.undoPressed,
        WorkshopActions.redoPressed,
        WorkshopActions.saved,
        WorkshopActions.theirVersionTaken,
        WorkshopActions.backupRestored,
        WorkshopActions.backupDiscarded,
        WorkshopActions.changesAbandoned,
      ),
      withLatestFrom(store.select(workshopFeature.selectWorkshopState)),
      tap(([, { profileId, draft, saved, revision, backup }]) => {
        if (profileId === null || backup !== null) return;
        if (isSameJson(draft, saved)) backups.remove(profileId);
        else backups.write(profileId, draft, revision);
      }),
    ),
  { functional: true, dispatch: false },
);
