import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { createActionGroup, createFeature, createReducer, createSelector, emptyProps, on, props, Store } from '@ngrx/store';
import { catchError, combineLatest, debounceTime, distinctUntilChanged, filter, map, of, switchMap, take } from 'rxjs';
import type { ClipboardPayload, Expectation } from '@typikon/core';
import { detectSource, groupEntries, markupAtHand, type PassId, type PasteSource } from '@typikon/core/settings';
import { selectHouse } from './house';
import { libraryFeature } from './library';
import { proofRequest, ProofRunner } from './proof-runner';
import type { Arrival, Proof, ProofRequest, Specimen } from './types';
import { workshopFeature } from './workshop';
import { WorkshopActions } from './workshop.actions';

export type BenchTab = 'author' | 'markup' | 'page' | 'expectations';

/** Which markup is tried: the specimen (as it is or as it was edited here), all that stands in the author's editor, or the last paste into it. */
export type Showing = 'source' | 'typed' | 'pasted';

/** A payload without markup of its own, and the markup that was made of its text. */
export interface ReadPayload {
  payload: ClipboardPayload;
  isMarkdown: boolean;
  html: string;
}

export const BenchActions = createActionGroup({
  source: 'Bench',
  events: {
    'Specimen Chosen': props<{ specimen: Specimen }>(),
    'Source Edited': props<{ html: string }>(),
    /** `isPaste` says that the change is the arrival of what was just pasted. */
    'Author Typed': props<{ html: string; isPaste: boolean }>(),
    'Author Pasted': props<{ payload: ClipboardPayload }>(),
    'Input Chosen': props<{ showing: Showing }>(),
    'Tab Chosen': props<{ tab: BenchTab }>(),
    /** How it is to come in; null for as the specimen says. */
    'Way Chosen': props<{ way: 'paste' | 'stored' | null }>(),
    /** What it is to be taken for; null for what it shows of itself. */
    'Source Chosen': props<{ source: PasteSource | null }>(),
    /** The pass before and after which the markup is to be shown. */
    'Pass Chosen': props<{ pass: PassId | null }>(),
    'Lower Chosen': props<{ lower: 'ledger' | 'left' }>(),
    /** A kind of thing of what is left, as its key. */
    'Thing Chosen': props<{ thing: string | null }>(),
    /** Markup was made of what a payload holds beside markup. */
    'Payload Read': props<{ read: ReadPayload }>(),
    'Proof Computed': props<{ proof: Proof }>(),
    'Proof Failed': props<{ message: string }>(),
    /** The same once more, after a failure. */
    'Proof Asked Again': emptyProps(),
    /** Index into the proof's ledger. */
    'Entry Chosen': props<{ index: number | null }>(),
  },
});

interface BenchState {
  specimenId: string | null;
  payload: ClipboardPayload;
  /** The markup as it was edited here; null while it is the specimen's own. */
  edited: string | null;
  typed: string | null;
  pasted: ClipboardPayload | null;
  showing: Showing;
  /** What was made of payloads without markup; of the specimen and of the last paste. */
  read: readonly ReadPayload[];
  tab: BenchTab;
  /** How it comes in where that was chosen; null for what the specimen says. */
  way: 'paste' | 'stored' | null;
  /** The source it is taken for where that was chosen; null for what it shows of itself. */
  sourceChosen: PasteSource | null;
  /** The pass before and after which the markup is shown. */
  pass: PassId | null;
  lower: 'ledger' | 'left';
  /** What is chosen of what is left. */
  thing: string | null;
  proof: Proof | null;
  /** Why there is no proof of the newest state; empty where there is one. */
  message: string;
  /** Counts up with each time that the same is asked again. */
  attempt: number;
  entry: number | null;
}

const initialState: BenchState = {
  specimenId: null,
  payload: { types: {} },
  edited: null,
  typed: null,
  pasted: null,
  showing: 'source',
  read: [],
  tab: 'markup',
  way: null,
  sourceChosen: null,
  pass: null,
  lower: 'ledger',
  thing: null,
  proof: null,
  message: '',
  attempt: 0,
  entry: null,
};

export const benchFeature = createFeature({
  name: 'bench',
  reducer: createReducer(
    initialState,
    on(BenchActions.specimenChosen, (state, { specimen }): BenchState => ({
      ...state,
      specimenId: specimen.id,
      payload: specimen.payload,
      edited: null,
      typed: null,
      pasted: null,
      showing: 'source',
      sourceChosen: null,
      entry: null,
      thing: null,
    })),
    on(BenchActions.sourceEdited, (state, { html }): BenchState =>
      html === state.edited ? state : { ...state, edited: html, typed: null, pasted: null, showing: 'source', entry: null, thing: null },
    ),
    on(BenchActions.authorTyped, (state, { html, isPaste }): BenchState => ({
      ...state,
      typed: html,
      showing: isPaste ? 'pasted' : 'typed',
      entry: null,
      thing: null,
    })),
    on(BenchActions.authorPasted, (state, { payload }): BenchState => ({
      ...state,
      pasted: payload,
      showing: 'pasted',
      entry: null,
      thing: null,
    })),
    on(BenchActions.inputChosen, (state, { showing }): BenchState => ({ ...state, showing, entry: null, thing: null })),
    on(BenchActions.tabChosen, (state, { tab }): BenchState => ({ ...state, tab })),
    on(BenchActions.wayChosen, (state, { way }): BenchState => ({ ...state, way, entry: null, thing: null })),
    on(BenchActions.sourceChosen, (state, { source }): BenchState => ({ ...state, sourceChosen: source, entry: null })),
    on(BenchActions.passChosen, (state, { pass }): BenchState => ({
      ...state,
      pass,
      tab: pass === null ? state.tab : 'markup',
      entry: null,
      thing: null,
    })),
    on(BenchActions.lowerChosen, (state, { lower }): BenchState => ({ ...state, lower, thing: null, entry: null })),
    on(BenchActions.thingChosen, (state, { thing }): BenchState => ({
      ...state,
      thing,
      pass: null,
      tab: thing === null ? state.tab : 'markup',
    })),
    on(BenchActions.payloadRead, (state, { read }): BenchState => ({ ...state, read: [read, ...state.read.slice(0, 1)] })),
    on(BenchActions.proofComputed, (state, { proof }): BenchState => ({
      ...state,
      proof,
      message: '',
      // A chosen entry keeps its place only as long as nothing moved.
      entry: state.entry !== null && isSameEntry(state.proof, proof, state.entry) ? state.entry : null,
    })),
    on(BenchActions.proofFailed, (state, { message }): BenchState => ({ ...state, message })),
    on(BenchActions.proofAskedAgain, (state): BenchState => ({ ...state, message: '', attempt: state.attempt + 1 })),
    on(BenchActions.entryChosen, (state, { index }): BenchState => ({
      ...state,
      entry: index,
      pass: index === null ? state.pass : null,
      tab: index === null ? state.tab : 'markup',
    })),
    on(WorkshopActions.elementChosen, (state): BenchState => ({ ...state, entry: null })),
    on(WorkshopActions.chapterChosen, (state, { chapter }): BenchState => ({
      ...state,
      pass: chapter === 'paste' ? state.pass : null,
      lower: chapter === 'paste' ? 'left' : 'ledger',
    })),
    on(WorkshopActions.left, (state): BenchState => ({ ...initialState, tab: state.tab, way: state.way })),
  ),
  extraSelectors: ({
    selectProof,
    selectSpecimenId,
    selectShowing,
    selectPayload,
    selectEdited,
    selectTyped,
    selectPasted,
    selectWay,
    selectSourceChosen,
    selectPass,
    selectRead,
  }) => {
    const selectSpecimen = createSelector(
      selectSpecimenId,
      libraryFeature.selectSpecimens,
      (id, specimens) => specimens.find((specimen) => specimen.id === id) ?? null,
    );
    /** Where what is on the bench comes from, and by what that is told. */
    const selectDetected = createSelector(selectShowing, selectPayload, selectPasted, (showing, payload, pasted) =>
      detectSource(showing === 'pasted' && pasted !== null ? pasted : payload),
    );
    const selectKind = createSelector(selectDetected, selectSourceChosen, ({ source }, chosen) => chosen ?? source);
    const selectIsMarkdown = createSelector(
      workshopFeature.selectResolved,
      selectKind,
      (resolved, kind) => kind === 'markdown' && resolved?.profile.paste.markdown !== false,
    );
    /** The markup of a payload; null while it is being made of its text. */
    const markup = (payload: ClipboardPayload, isMarkdown: boolean, read: readonly ReadPayload[]): string | null =>
      markupAtHand(payload) ??
      (Object.keys(payload.types).length === 0 ? '' : null) ??
      read.find((one) => one.payload === payload && one.isMarkdown === isMarkdown)?.html ??
      null;
    /** The specimen's markup, or what became of it here; null while it is read. */
    const selectSource = createSelector(
      selectEdited,
      selectPayload,
      selectIsMarkdown,
      selectRead,
      (edited, payload, isMarkdown, read) => edited ?? markup(payload, isMarkdown, read),
    );
    const selectInput = createSelector(
      selectShowing,
      selectSource,
      selectTyped,
      selectPasted,
      selectIsMarkdown,
      selectRead,
      (showing, source, typed, pasted, isMarkdown, read) =>
        showing === 'typed' ? (typed ?? source) : showing === 'pasted' && pasted !== null ? markup(pasted, isMarkdown, read) : source,
    );
    /** The payload of which markup has to be made; null where none is waited for. */
    const selectUnread = createSelector(
      selectInput,
      selectShowing,
      selectPayload,
      selectPasted,
      selectIsMarkdown,
      (input, showing, payload, pasted, isMarkdown) =>
        input !== null ? null : { payload: showing === 'pasted' && pasted !== null ? pasted : payload, isMarkdown },
    );
    const selectArrives = createSelector(selectShowing, selectWay, selectSpecimen, (showing, way, specimen): 'paste' | 'stored' =>
      showing === 'typed' ? 'stored' : showing === 'pasted' ? 'paste' : (way ?? specimen?.arrives ?? 'stored'),
    );
    const selectArrival = createSelector(
      selectArrives,
      selectShowing,
      selectPayload,
      selectPasted,
      selectKind,
      selectPass,
      workshopFeature.selectChapter,
      (way, showing, payload, pasted, source, pass, chapter): Arrival => {
        if (way === 'stored') return { way };
        const { 'text/html': _markup, ...beside } = (showing === 'pasted' && pasted !== null ? pasted : payload).types;
        return { way, beside, source, pass, isDetailed: chapter === 'paste' };
      },
    );
    return {
      selectGroups: createSelector(selectProof, (proof) => (proof === null ? [] : groupEntries(proof.ledger))),
      selectSpecimen,
      selectDetected,
      selectKind,
      selectSource,
      selectInput,
      selectUnread,
      selectArrives,
      selectArrival,
      /** What must come out of the specimen; nothing is asked of what was edited or typed here. */
      selectExpectations: createSelector(
        selectShowing,
        selectEdited,
        selectSpecimen,
        (showing, edited, specimen): readonly Expectation[] =>
          showing === 'source' && edited === null && specimen !== null ? specimen.expectations : NONE,
      ),
    };
  },
});

const NONE: readonly Expectation[] = [];

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
    one.arrival === other.arrival &&
    one.expectations === other.expectations &&
    ids.length === Object.keys(other.documents).length &&
    ids.every((id) => one.documents[id] === other.documents[id])
  );
}

/** Each change of the draft or of the markup makes a new proof in the worker; only the latest one counts. */
export const computeProof = createEffect(
  (store = inject(Store), runner = inject(ProofRunner)) =>
    combineLatest([
      store.select(workshopFeature.selectResolution),
      store.select(selectHouse),
      store.select(benchFeature.selectInput),
      store.select(benchFeature.selectSpecimenId),
      store.select(workshopFeature.selectRole),
      store.select(benchFeature.selectArrival),
      store.select(benchFeature.selectExpectations),
      store.select(benchFeature.selectAttempt),
    ]).pipe(
      // The selectors change one after another within one dispatch.
      debounceTime(0),
      filter(([resolution, , html, specimenId]) => resolution !== null && specimenId !== null && html !== null),
      map(
        ([resolution, house, html, , role, arrival, expectations, attempt]): {
          request: ProofRequest | { problem: string };
          attempt: number;
        } => {
          if (resolution === null || !resolution.ok) {
            const problem = resolution?.problems.map(({ pointer, message }) => `${pointer} ${message}`.trim()).join(' ') ?? '';
            return { request: { problem }, attempt };
          }
          return { request: proofRequest(resolution.resolved, house, role, html!, arrival, expectations), attempt };
        },
      ),
      distinctUntilChanged((one, other) => one.attempt === other.attempt && isSameRequest(one.request, other.request)),
      switchMap(({ request }) =>
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

/** Markup is made of a payload that has none in the worker. */
export const readPayload = createEffect(
  (store = inject(Store), runner = inject(ProofRunner)) =>
    combineLatest([store.select(benchFeature.selectUnread), store.select(benchFeature.selectAttempt)]).pipe(
      map(([unread]) => unread),
      filter((unread) => unread !== null),
      switchMap(({ payload, isMarkdown }) =>
        runner.read(payload, isMarkdown).pipe(
          map((html) => BenchActions.payloadRead({ read: { payload, isMarkdown, html } })),
          catchError(({ message }: Error) => of(BenchActions.proofFailed({ message }))),
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
