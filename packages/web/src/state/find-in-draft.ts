import { inject } from '@angular/core';
import { createEffect } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import { asyncScheduler, catchError, EMPTY, filter, from, map, switchMap, throttleTime } from 'rxjs';
import { SiteWorker } from './site-worker';
import { workshopFeature } from './workshop';
import { WorkshopActions } from './workshop.actions';

/** What is typed within this time is tested once. */
const PAUSE_MS = 120;

/** Tests the draft in a worker on every change; an older answer than what is asked for now is thrown away. */
export const findInDraft = createEffect(
  (store = inject(Store), worker = inject(SiteWorker)) =>
    store.select(workshopFeature.selectToTest).pipe(
      throttleTime(PAUSE_MS, asyncScheduler, { leading: true, trailing: true }),
      filter(({ id, isCounted }) => id !== null && isCounted),
      switchMap(({ id, documents, surroundings }) =>
        from(worker.checkProfile(id!, documents, surroundings)).pipe(
          filter((findings) => findings !== null),
          map((findings) => WorkshopActions.draftTested({ draft: documents[id!]!, findings })),
          catchError(() => EMPTY),
        ),
      ),
    ),
  { functional: true },
);
