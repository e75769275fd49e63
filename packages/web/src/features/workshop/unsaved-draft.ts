import { Injectable, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { firstValueFrom, filter, take, map, race } from 'rxjs';
import { workshopFeature } from '../../state/workshop';
import { WorkshopActions } from '../../state/workshop.actions';
import type { Unsaved } from '../../ui/leaving';

/** What is not saved of the draft in the workshop. */
@Injectable({ providedIn: 'root' })
export class UnsavedDraft implements Unsaved {
  private readonly store = inject(Store);
  private readonly changes = this.store.selectSignal(workshopFeature.selectChanges);
  private readonly profileId = this.store.selectSignal(workshopFeature.selectProfileId);

  unsaved() {
    const count = this.changes();
    if (this.profileId() === null || count === 0) return null;
    return {
      title: 'This draft is not saved',
      text: `It has ${count === 1 ? 'one change' : `${count} changes`} that authors do not have yet.`,
      count,
    };
  }

  abandon(): void {
    this.store.dispatch(WorkshopActions.changesAbandoned());
  }

  save(): Promise<boolean> {
    this.store.dispatch(WorkshopActions.savePressed());
    const state = this.store.select(workshopFeature.selectWorkshopState);
    return firstValueFrom(
      race(
        state.pipe(
          filter(({ isSaving, failure, conflict }) => !isSaving && (failure !== '' || conflict !== null)),
          map(() => false),
        ),
        state.pipe(
          filter(({ isSaving, failure, conflict }) => !isSaving && failure === '' && conflict === null),
          map(() => true),
        ),
      ).pipe(take(1)),
    );
  }
}
