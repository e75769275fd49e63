import { Injectable, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { firstValueFrom, filter, take, map, race } from 'rxjs';
import { Confirm, type Question } from '../../ui/confirm';
import { workshopFeature } from '../../state/workshop';
import { WorkshopActions } from '../../state/workshop.actions';

/** Asks before a draft with unsaved changes is left. */
@Injectable({ providedIn: 'root' })
export class LeaveGuard {
  private readonly store = inject(Store);
  private readonly dialog = inject(MatDialog);
  private readonly changes = this.store.selectSignal(workshopFeature.selectChanges);
  private readonly profileId = this.store.selectSignal(workshopFeature.selectProfileId);

  /** Whether the workshop may be left: at once without changes, else as the person answers. */
  async mayLeave(): Promise<boolean> {
    const changes = this.changes();
    if (this.profileId() === null || changes === 0) return true;
    const data: Question = {
      title: 'This draft is not saved',
      text: `It has ${changes === 1 ? 'one change' : `${changes} changes`} that authors do not have yet.`,
      answers: [
        { value: 'stay', label: 'Stay here' },
        { value: 'abandon', label: changes === 1 ? 'Throw it away' : 'Throw them away' },
        { value: 'save', label: 'Save and leave', isMain: true },
      ],
    };
    const answer = await firstValueFrom(this.dialog.open<Confirm, Question, string>(Confirm, { data, width: '460px' }).afterClosed());
    if (answer === 'abandon') {
      this.store.dispatch(WorkshopActions.changesAbandoned());
      return true;
    }
    return answer === 'save' && this.save();
  }

  private save(): Promise<boolean> {
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
