import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { Store } from '@ngrx/store';
import { workshopFeature } from '../../state/workshop';
import { WorkshopActions } from '../../state/workshop.actions';
import { ChangesTable, differencesOf } from '../../shared/profile/changes-table';
import type { StoredProfile } from '../../state/types';

/** Somebody else saved the same profile: shows where the two versions differ and lets the person choose. Nothing is lost either way. */
@Component({
  selector: 'ty-conflict-notice',
  imports: [MatButtonModule, ChangesTable, DatePipe],
  template: `
    <div class="ty-notice bad" role="alert">
      <p>
        <strong>Somebody else saved this profile at {{ theirs().updatedAt | date: 'HH:mm:ss' }}.</strong>
        Nothing of yours was saved, and nothing of theirs was changed. The two differ in
        {{ differences().length === 1 ? 'one place' : differences().length + ' places' }}.
      </p>
      <button mat-stroked-button type="button" (click)="isOpen.set(!isOpen())" [attr.aria-expanded]="isOpen()">
        {{ isOpen() ? 'Hide' : 'Compare' }}
      </button>
      <button mat-stroked-button type="button" (click)="takeTheirs()">Take theirs</button>
      <button mat-stroked-button type="button" (click)="keepOwn()">Save mine over theirs</button>
    </div>
    @if (isOpen()) {
      <ty-changes-table
        class="compare"
        [one]="draft()"
        [other]="theirs().document"
        [heads]="['Yours', 'Theirs']"
        caption="Where the two versions differ"
      />
    }
  `,
  styles: `
    .compare {
      padding: 0 20px;
      border-bottom: 1px solid var(--ty-line);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ConflictNotice {
  readonly theirs = input.required<StoredProfile>();
  private readonly store = inject(Store);
  protected readonly draft = this.store.selectSignal(workshopFeature.selectDraft);
  protected readonly isOpen = signal(false);
  protected readonly differences = computed(() => differencesOf(this.draft(), this.theirs().document));

  protected takeTheirs(): void {
    this.store.dispatch(WorkshopActions.theirVersionTaken());
  }

  protected keepOwn(): void {
    this.store.dispatch(WorkshopActions.ownVersionKept());
  }
}
