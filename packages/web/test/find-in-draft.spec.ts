import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { JsonObject } from '@typikon/core';
import { provideEffects } from '@ngrx/effects';
import { provideStore, Store } from '@ngrx/store';
import { Subject } from 'rxjs';
import { findInDraft } from '../src/state/find-in-draft';
import { Api } from '../src/state/api';
import { countStored, LibraryActions, libraryFeature } from '../src/state/library';
import { findingsOf } from '../src/state/profile-findings';
import { SITE_WORKER } from '../src/state/site-worker';
import type { SiteRequest } from '../src/state/site-messages';
import type { StoredCensus } from '../src/state/types';
import { workshopFeature } from '../src/state/workshop';
import { WorkshopActions } from '../src/state/workshop.actions';
import { demoLibrary, STORED } from './support';

type CheckRequest = Extract<SiteRequest, { kind: 'check-profile' }>;

/** A worker that is told when to answer, and then computes what the real one does. */
class Worker {
  onmessage: ((event: { data: object }) => void) | null = null;
  asked: CheckRequest[] = [];
  postMessage(request: CheckRequest): void {
    this.asked.push(request);
  }
  answer(number: number): void {
    const { surroundings } = this.asked[0]!;
    const { profileId, documents } = this.asked[number]!;
    this.onmessage!({ data: { number: number + 1, profileFindings: findingsOf(profileId, documents, surroundings!) } });
  }
  terminate(): void {}
}

/** Who counts what is stored; each test says when, and how it ends. */
let counting: Subject<StoredCensus>;
let worker: Worker;
let store: Store;
const state = () => store.selectSignal(workshopFeature.selectWorkshopState)();
const isTested = () => store.selectSignal(workshopFeature.selectIsTested)();
const edit = (elements: JsonObject) => {
  const { draft } = state();
  const markup = draft['markup'] as JsonObject;
  store.dispatch(
    WorkshopActions.draftEdited({
      document: { ...draft, markup: { ...markup, elements: { ...(markup['elements'] as JsonObject), ...elements } } },
      label: 'Edit',
    }),
  );
};
const countIt = () => {
  counting.next(STORED);
  counting.complete();
};
const pause = () => jest.advanceTimersByTimeAsync(200);

beforeEach(() => {
  jest.useFakeTimers();
  worker = new Worker();
  counting = new Subject();
  TestBed.configureTestingModule({
    providers: [
      provideZonelessChangeDetection(),
      { provide: SITE_WORKER, useValue: () => worker },
      provideStore({ library: libraryFeature.reducer, workshop: workshopFeature.reducer }),
      { provide: Api, useValue: { census: () => counting } },
      provideEffects({ countStored, findInDraft }),
    ],
  });
  store = TestBed.inject(Store);
  const library = demoLibrary();
  store.dispatch(LibraryActions.loaded({ library }));
  store.dispatch(WorkshopActions.opened({ profile: library.profiles.find(({ id }) => id === 'story-desk')!, backup: null }));
});
afterEach(() => jest.useRealTimers());

test('a draft is tested when it is opened, with the profiles it stands on and no others', async () => {
  countIt();
  await pause();
  const last = worker.asked.length - 1;
  expect(Object.keys(worker.asked[last]!.documents)).toEqual(['story-desk', 'house']);
  expect(isTested()).toBe(false);
  worker.answer(last);
  await pause();
  expect(isTested()).toBe(true);
});

test('many changes in a moment are tested once, and an older answer is thrown away', async () => {
  countIt();
  await pause();
  const before = worker.asked.length;
  edit({ h1: {} });
  await pause();
  for (const name of ['i', 'b', 'iframe']) edit({ [name]: {} });
  await pause();
  await pause();
  expect(worker.asked.length - before).toBeLessThanOrEqual(3);
  const last = worker.asked.length - 1;
  worker.answer(before);
  await pause();
  expect(isTested()).toBe(false);
  expect(state().findings).toEqual([]);
  worker.answer(last);
  await pause();
  expect(isTested()).toBe(true);
  expect(state().findings.map(({ check }) => check)).toContain('above-house');
});

test('a choice that has no part in the rules asks nothing', async () => {
  countIt();
  await pause();
  const before = worker.asked.length;
  store.dispatch(WorkshopActions.elementChosen({ element: 'p' }));
  store.dispatch(WorkshopActions.chapterChosen({ chapter: 'paste' }));
  await pause();
  expect(worker.asked).toHaveLength(before);
});

test('nothing is tested before it is known what is stored; where that cannot be counted, the rest is tested, and counted when asked', async () => {
  await pause();
  expect(worker.asked).toEqual([]);
  counting.error(new Error('The database does not answer.'));
  await pause();
  const failure = () => store.selectSignal(libraryFeature.selectCensusFailure)();
  expect(failure()).toBe('The database does not answer.');
  expect(worker.asked[0]!.surroundings!.census).toBeNull();
  worker.answer(0);
  await pause();
  expect(isTested()).toBe(true);
  counting = new Subject();
  store.dispatch(LibraryActions.censusRequested());
  expect(failure()).toBeNull();
  countIt();
  await pause();
  expect(worker.asked[worker.asked.length - 1]!.surroundings!.census).toEqual(STORED);
});
