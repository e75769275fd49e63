import { inject } from '@angular/core';
import { createEffect } from '@ngrx/effects';
import { createSelector, Store } from '@ngrx/store';
import { catchError, debounceTime, distinctUntilChanged, EMPTY, filter, map, switchMap } from 'rxjs';
import { benchFeature } from './bench';
import { libraryFeature } from './library';
import { ProofRunner, underProfile } from './proof-runner';
import { workshopFeature } from './workshop';
import { WorkshopActions } from './workshop.actions';

/** The names of elements that stand on the bench or in stored documents, in one text, so that they are compared by their value. */
const selectNames = createSelector(benchFeature.selectProof, libraryFeature.selectCensus, (proof, census) =>
  [...new Set([...Object.keys(proof?.census.elements ?? {}), ...Object.keys(census?.elements ?? {})])].sort().join(' '),
);

const selectAsked = createSelector(
  workshopFeature.selectResolved,
  workshopFeature.selectOptions,
  selectNames,
  (resolved, { house, role }, names) =>
    resolved === null
      ? null
      : {
          resolved,
          request: {
            ...underProfile(resolved, house ?? null, role ?? ''),
            names: [...new Set([...names.split(' ').filter((name) => name !== ''), ...Object.keys(resolved.profile.markup.elements)])],
          },
        },
);

/** Works out in the worker what the rules of the draft come to, on every change; only the latest counts. */
export const sumUpRules = createEffect(
  (store = inject(Store), runner = inject(ProofRunner)) =>
    store.select(selectAsked).pipe(
      // The selectors change one after another within one dispatch.
      debounceTime(0),
      filter((asked) => asked !== null),
      distinctUntilChanged(),
      switchMap(({ request, resolved }) =>
        runner.rules(request).pipe(
          map((summary) => WorkshopActions.rulesSummedUp({ summary, resolved })),
          // What stands in the way is told by the proof, which is asked for at the same time.
          catchError(() => EMPTY),
        ),
      ),
    ),
  { functional: true },
);
