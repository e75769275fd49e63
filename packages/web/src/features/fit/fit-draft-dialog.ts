import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { NonNullableFormBuilder, ReactiveFormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import { idFrom, type JsonObject } from '@typikon/core';
import { firstValueFrom } from 'rxjs';
import { Api } from '../../state/api';
import { LibraryActions, libraryFeature } from '../../state/library';
import { staysWhile } from '../../ui/stays-while';

/** A step that becomes a profile. */
export interface FitDraftQuestion {
  name: string;
  /** What it keeps, in words. */
  words: string;
  document(name: string): Promise<JsonObject>;
}

/** Makes a profile of the least rules: it stands beside the others until somebody gives it to a field. */
@Component({
  selector: 'ty-fit-draft',
  imports: [MatButtonModule, MatDialogModule, MatFormFieldModule, MatInputModule, ReactiveFormsModule],
  template: `
    <h2 mat-dialog-title>A profile of the least rules</h2>
    <form [formGroup]="form" (ngSubmit)="make()">
      <mat-dialog-content>
        <p>{{ data.words }}. It has nothing but rules for markup; no field has it until you assign it.</p>
        <label for="fit-name">Name</label>
        <mat-form-field appearance="outline" subscriptSizing="dynamic">
          <input matInput id="fit-name" formControlName="name" maxlength="120" autocomplete="off" cdkFocusInitial />
          <mat-hint
            >Files and addresses will call it <code>{{ id() || '…' }}</code>.</mat-hint
          >
        </mat-form-field>
        <p class="ty-failure" role="alert">{{ failure() }}</p>
      </mat-dialog-content>
      <mat-dialog-actions align="end">
        <button mat-button type="button" mat-dialog-close>Cancel</button>
        <button mat-flat-button type="submit" [disabled]="isBusy()">Make the profile</button>
      </mat-dialog-actions>
    </form>
  `,
  styleUrl: './fit-draft-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FitDraftDialog {
  protected readonly data = inject<FitDraftQuestion>(MAT_DIALOG_DATA);
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly dialog = inject<MatDialogRef<FitDraftDialog>>(MatDialogRef);
  private readonly profiles = this.store.selectSignal(libraryFeature.selectProfiles);
  protected readonly form = inject(NonNullableFormBuilder).group({ name: this.data.name });
  private readonly value = toSignal(this.form.valueChanges, { initialValue: this.form.getRawValue() });
  protected readonly id = computed(() => idFrom(this.value().name ?? ''));
  protected readonly failure = signal('');
  protected readonly isBusy = signal(false);

  constructor() {
    staysWhile(this.isBusy);
  }

  protected async make(): Promise<void> {
    const [id, name] = [this.id(), this.form.getRawValue().name.trim()];
    if (id === '') return this.failure.set('Give the profile a name with letters in it, such as “Picture desk”.');
    if (this.profiles().some((profile) => profile.id === id))
      return this.failure.set(`There is already a profile that would be called “${id}”. Choose another name.`);
    this.isBusy.set(true);
    this.failure.set('');
    try {
      const profile = await firstValueFrom(this.api.createProfile(id, await this.data.document(name)));
      this.store.dispatch(LibraryActions.profileStored({ profile }));
      this.dialog.close();
      void this.router.navigate(['/profiles', id]);
    } catch (error) {
      this.isBusy.set(false);
      this.failure.set(`Not made. ${(error as Error).message}`);
    }
  }
}
