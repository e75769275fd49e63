import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { createActionGroup, createFeature, createReducer, createSelector, on, props, Store } from '@ngrx/store';
import { catchError, combineLatest, debounceTime, distinctUntilChanged, filter, map, of, switchMap, take } from 'rxjs';
import { groupEntries } from '@typikon/core';
import { libraryFeature } from './library';
import { proofRequest, ProofRunner } from './proof-runner';
import type { Proof, ProofRequest, Specimen } from './types';
import { workshopFeature } from './workshop';
import { WorkshopActions } from './workshop.actions';

export type BenchTab = 'author' | 'markup' | 'page';

/** Which markup is tried: the specimen (as it is or as it was edited here), all that stands in the author's editor, or the last paste into it. */
export type Showing = 'source' | 'typed' | 'pasted';

export const BenchActions = createActionGroup({
  source: 'Bench',
  events: {
    'Specimen Chosen': props<{ specimen: Specimen }>(),
    'Source Edited': props<{ html: string }>(),
    /** `isPaste` says that the change is the arrival of what was just pasted. */
    'Author Typed': props<{ html: string; isPaste: boolean }>(),
    /** `html` is what came from the clipboard. */
    'Author Pasted': props<{ html: string }>(),
    'Input Chosen': props<{ showing: Showing }>(),
    'Tab Chosen': props<{ tab: BenchTab }>(),
    'Proof Computed': props<{ proof: Proof }>(),
    'Proof Failed': props<{ message: string }>(),
    /** Index into the proof's ledger. */
    'Entry Chosen': props<{ index: number | null }>(),
  },
});

interface BenchState {
  specimenId: string | null;
  source: string;
  typed: string | null;
  pasted: string | null;
  showing: Showing;
  tab: BenchTab;
  proof: Proof | null;
  /** Why there is no proof of the newest state; empty where there is one. */
  message: string;
  entry: number | null;
}

const initialState: BenchState = {
  specimenId: null,
  source: '',
  typed: null,
  pasted: null,
  showing: 'source',
  tab: 'markup',
  proof: null,
  message: '',
  entry: null,
};

export const benchFeature = createFeature({
  name: 'bench',
  reducer: createReducer(
    initialState,
    on(BenchActions.specimenChosen, (state, { specimen }): BenchState => ({
      ...state,
      specimenId: specimen.id,
      source: specimen.html,
      typed: null,
      pasted: null,
      showing: 'source',
      entry: null,
    })),
    on(BenchActions.sourceEdited, (state, { html }): BenchState =>
      html === state.source ? state : { ...state, source: html, typed: null, pasted: null, showing: 'source', entry: null },
    ),
    on(BenchActions.authorTyped, (state, { html, isPaste }): BenchState => ({
      ...state,
      typed: html,
      showing: isPaste ? 'pasted' : 'typed',
      entry: null,
    })),
    on(BenchActions.authorPasted, (state, { html }): BenchState => ({ ...state, pasted: html, showing: 'pasted', entry: null })),
    on(BenchActions.inputChosen, (state, { showing }): BenchState => ({ ...state, showing, entry: null })),
    on(BenchActions.tabChosen, (state, { tab }): BenchState => ({ ...state, tab })),
    on(BenchActions.proofComputed, (state, { proof }): BenchState => ({
      ...state,
      proof,
      message: '',
      // A chosen entry keeps its place only as long as nothing moved.
      entry: state.entry !== null && isSameEntry(state.proof, proof, state.entry) ? state.entry : null,
    })),
    on(BenchActions.proofFailed, (state, { message }): BenchState => ({ ...state, message })),
    on(BenchActions.entryChosen, (state, { index }): BenchState => ({
      ...state,
      entry: index,
      tab: index === null ? state.tab : 'markup',
    })),
    on(WorkshopActions.elementChosen, (state): BenchState => ({ ...state, entry: null })),
    on(WorkshopActions.left, (state): BenchState => ({ ...initialState, tab: state.tab })),
  ),
  extraSelectors: ({ selectProof, selectSpecimenId, selectShowing, selectSource, selectTyped, selectPasted }) => ({
    selectGroups: createSelector(selectProof, (proof) => (proof === null ? [] : groupEntries(proof.ledger))),
    selectSpecimen: createSelector(
      selectSpecimenId,
      libraryFeature.selectSpecimens,
      (id, specimens) => specimens.find((specimen) => specimen.id === id) ?? null,
    ),
    selectInput: createSelector(selectShowing, selectSource, selectTyped, selectPasted, (showing, source, typed, pasted) =>
      showing === 'typed' ? (typed ?? source) : showing === 'pasted' ? (pasted ?? source) : source,
    ),
  }),
});

function isSameEntry(before: Proof | null, after: Proof, index: number): boolean {
  const one = before?.ledger[index];
  const other = after.ledger[index];
  return before?.input === after.input && one?.start === other?.start && one?.reason === other?.reason;
}

/** Whether two requests ask the same. Documents and markup are never changed in place, so that comparing them by identity is enough. */
function isSameRequest(one: ProofRequest | { problem: string }, other: ProofRequest | { problem: string }): boolean {
  if ('problem' in one || 'problem' in other) return 'problem' in one && 'problem' in other && one.problem === other.problem;
  const ids = Object.keys(one.documents);
  return (
    one.profileId === other.profileId &&
    one.html === other.html &&
    one.house === other.house &&
    one.role === other.role &&
    ids.length === Object.keys(other.documents).length &&
    ids.every((id) => one.documents[id] === other.documents[id])
  );
}

/** Each change of the draft or of the markup makes a new proof in the worker; only the latest one counts. */
export const computeProof = createEffect(
  (store = inject(Store), runner = inject(ProofRunner)) =>
    combineLatest([
      store.select(workshopFeature.selectResolution),
      store.select(libraryFeature.selectHouse),
      store.select(benchFeature.selectInput),
      store.select(benchFeature.selectSpecimenId),
      store.select(workshopFeature.selectRole),
    ]).pipe(
      // The selectors change one after another within one dispatch.
      debounceTime(0),
      filter(([resolution, , , specimenId]) => resolution !== null && specimenId !== null),
      map(([resolution, house, html, , role]): ProofRequest | { problem: string } => {
        if (resolution === null || !resolution.ok)
          return { problem: resolution?.problems.map(({ pointer, message }) => `${pointer} ${message}`.trim()).join(' ') ?? '' };
        return proofRequest(resolution.resolved, house, role, html);
      }),
      distinctUntilChanged(isSameRequest),
      switchMap((request) =>
        'problem' in request
          ? of(BenchActions.proofFailed({ message: request.problem }))
          : runner.prove(request).pipe(
              map((proof) => BenchActions.proofComputed({ proof })),
              catchError((error: Error) => of(BenchActions.proofFailed({ message: error.message }))),
            ),
      ),
    ),
  { functional: true },
);

/** A profile that is opened is tried on a specimen that was meant for it. */
export const chooseFirstSpecimen = createEffect(
  (actions = inject(Actions), store = inject(Store)) =>
    actions.pipe(
      ofType(WorkshopActions.opened),
      switchMap(({ profile }) =>
        store.select(libraryFeature.selectSpecimens).pipe(
          filter((specimens) => specimens.length > 0),
          take(1),
          map((specimens) =>
            BenchActions.specimenChosen({ specimen: specimens.find(({ profileId }) => profileId === profile.id) ?? specimens[0]! }),
          ),
        ),
      ),
    ),
  { functional: true },
);
