import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatRadioModule } from '@angular/material/radio';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { mergePatch, wayThrough, type JsonObject, type LedgerEntry } from '@typikon/core';
import { Store } from '@ngrx/store';
import { Api, type ApiFailure } from '../../state/api';
import { selectHouse } from '../../state/house';
import { libraryFeature, LibraryActions } from '../../state/library';
import { workshopFeature } from '../../state/workshop';
import { WorkshopActions } from '../../state/workshop.actions';
import { ChangesTable } from '../../shared/profile/changes-table';
import { ProfileEdit } from '../../shared/profile/edit';
import { staysWhile } from '../../ui/stays-while';

export interface Taken {
  /** What was taken, in words. */
  sentence: string;
  entries: readonly LedgerEntry[];
  /** The markup that was cleaned. */
  input: string;
}

/** Lets through what the house limits took: for everybody, or for one role; shows both changes before it makes them. */
@Component({
  selector: 'ty-let-through-dialog',
  imports: [MatRadioModule, MatButtonModule, ChangesTable, MatDialogModule],
  templateUrl: './let-through-dialog.html',
  styleUrl: './let-through-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LetThroughDialog {
  protected readonly taken = inject<Taken>(MAT_DIALOG_DATA);
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly edit = inject(ProfileEdit);
  private readonly dialog = inject<MatDialogRef<LetThroughDialog>>(MatDialogRef);
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly house = this.store.selectSignal(selectHouse);
  private readonly revision = this.store.selectSignal(libraryFeature.selectHouseRevision);
  protected readonly houseDocument = this.store.selectSignal(libraryFeature.selectHouseDocument);
  protected readonly draft = this.store.selectSignal(workshopFeature.selectDraft);
  protected readonly roles = this.store.selectSignal(libraryFeature.selectRoles);
  protected readonly role = signal('');
  protected readonly host = signal('');
  protected readonly isBusy = signal(false);
  protected readonly failure = signal('');
  protected readonly hosts = [...new Set(this.taken.entries.flatMap(({ subject }) => subject.host ?? []))];

  private readonly entries = computed(() => {
    const host = this.host() || this.hosts[0];
    return host === undefined ? this.taken.entries : this.taken.entries.filter(({ subject }) => subject.host === host);
  });
  protected readonly way = computed(() => {
    const [resolved, house] = [this.resolved(), this.house()];
    return resolved === null || house === null ? null : wayThrough(this.entries(), resolved, this.taken.input, house, this.role() || null);
  });
  protected readonly houseAfter = computed(() => mergePatch(this.houseDocument() ?? {}, this.way()?.house ?? {}));
  protected readonly draftAfter = computed(() => mergePatch(this.draft(), this.way()?.profile?.patch ?? {}));

  constructor() {
    staysWhile(this.isBusy);
  }

  protected confirm(): void {
    const way = this.way();
    if (way === null || this.isBusy()) return;
    this.isBusy.set(true);
    this.failure.set('');
    this.api.saveHouseLimits(this.houseAfter() as JsonObject, this.revision()).subscribe({
      next: (saved) => {
        this.store.dispatch(LibraryActions.houseChanged(saved));
        if (this.role() !== '') this.store.dispatch(WorkshopActions.roleChosen({ role: this.role() }));
        if (way.profile !== null) this.edit.patch(way.profile.patch, `Allowing ${way.profile.label}`);
        this.dialog.close();
      },
      error: (failure: ApiFailure) => {
        this.isBusy.set(false);
        this.failure.set(failure.message);
        if (failure.status === 412)
          this.api.houseLimits().subscribe((current) => this.store.dispatch(LibraryActions.houseChanged(current)));
      },
    });
  }
}
