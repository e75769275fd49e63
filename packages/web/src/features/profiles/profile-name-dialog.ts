import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { NonNullableFormBuilder, ReactiveFormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Store } from '@ngrx/store';
import { idFrom, withValue } from '@typikon/core';
import { Api, type ApiFailure } from '../../state/api';
import { LibraryActions, libraryFeature } from '../../state/library';
import { nameOf } from '../../state/profile-name';
import type { StoredProfile } from '../../state/types';
import { profileInQuestion } from './profile-in-question';
import { staysWhile } from '../../ui/stays-while';

/** Renames a profile, whose key stays; or copies it under another name and key. */
@Component({
  selector: 'ty-profile-name',
  imports: [MatButtonModule, MatDialogModule, MatFormFieldModule, MatInputModule, ReactiveFormsModule],
  template: `
    <h2 mat-dialog-title>{{ isCopy ? 'Copy' : 'Rename' }} “{{ nameOf(profile()) }}”</h2>
    <form [formGroup]="form" (ngSubmit)="store()">
      <mat-dialog-content>
        <label for="profile-name">Name</label>
        <mat-form-field appearance="outline" subscriptSizing="dynamic">
          <input matInput id="profile-name" formControlName="name" maxlength="120" autocomplete="off" cdkFocusInitial />
          <mat-hint>
            @if (isCopy) {
              Files and addresses will call it <code>{{ id() || '…' }}</code>.
            } @else {
              Files and addresses go on calling it <code>{{ profile().id }}</code>.
            }
          </mat-hint>
        </mat-form-field>
        <label for="profile-purpose">What it is for</label>
        <mat-form-field appearance="outline" subscriptSizing="dynamic">
          <textarea matInput id="profile-purpose" formControlName="purpose" rows="3" maxlength="1000"></textarea>
        </mat-form-field>
        <p class="ty-failure" role="alert">{{ failure() }}</p>
      </mat-dialog-content>
      <mat-dialog-actions align="end">
        <button mat-button type="button" mat-dialog-close>Cancel</button>
        <button mat-flat-button type="submit" [disabled]="isBusy()">{{ isCopy ? 'Make the copy' : 'Rename it' }}</button>
      </mat-dialog-actions>
    </form>
  `,
  styleUrl: './new-profile.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ProfileName {
  private readonly api = inject(Api);
  private readonly ngrx = inject(Store);
  private readonly dialog = inject<MatDialogRef<ProfileName>>(MatDialogRef);
  private readonly data = inject<{ profile: StoredProfile; way: 'rename' | 'copy' }>(MAT_DIALOG_DATA);
  private readonly about = profileInQuestion(this.data.profile);
  protected readonly profile = this.about.profile;
  protected readonly isCopy = this.data.way === 'copy';
  protected readonly nameOf = nameOf;
  private readonly profiles = this.ngrx.selectSignal(libraryFeature.selectProfiles);
  protected readonly form = inject(NonNullableFormBuilder).group({
    name: this.isCopy ? `Copy of ${nameOf(this.profile())}` : nameOf(this.profile()),
    purpose: purposeOf(this.profile()),
  });
  private readonly value = toSignal(this.form.valueChanges, { initialValue: this.form.getRawValue() });
  protected readonly id = computed(() => idFrom(this.value().name ?? ''));
  protected readonly failure = this.about.failure;
  protected readonly isBusy = signal(false);

  constructor() {
    staysWhile(this.isBusy);
  }

  protected store(): void {
    const { name, purpose } = this.form.getRawValue();
    const id = this.id();
    if (id === '') return this.failure.set('Give the profile a name with letters in it, such as “Picture desk”.');
    if (this.isCopy && this.profiles().some((one) => one.id === id))
      return this.failure.set(`There is already a profile that would be called “${id}”. Choose another name.`);
    const named = withValue(this.profile().document, ['name'], name.trim());
    const document = withValue(named, ['purpose'], purpose.trim() === '' ? undefined : purpose.trim());
    this.isBusy.set(true);
    const asked = this.isCopy
      ? this.api.createProfile(id, document)
      : this.api.saveDraft(this.profile().id, document, this.profile().revision);
    asked.subscribe({
      next: (profile) => {
        this.ngrx.dispatch(LibraryActions.profileStored({ profile }));
        this.dialog.close();
      },
      error: (failure: ApiFailure) => {
        this.isBusy.set(false);
        this.about.refuse(failure);
      },
    });
  }
}

const purposeOf = ({ document }: StoredProfile): string => (typeof document['purpose'] === 'string' ? document['purpose'] : '');
