import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { Router } from '@angular/router';
import { PROFILE_FORMAT } from '@typikon/core';
import { Store } from '@ngrx/store';
import { Api, type ApiFailure } from '../../state/api';
import { LibraryActions, libraryFeature } from '../../state/library';

/** Makes a profile: a name, what it is for, and which profile it begins from. */
@Component({
  selector: 'ty-new-profile',
  imports: [MatDialogModule],
  templateUrl: './new-profile.html',
  styleUrl: './new-profile.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NewProfile {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly dialog = inject<MatDialogRef<NewProfile>>(MatDialogRef);
  protected readonly profiles = this.store.selectSignal(libraryFeature.selectProfiles);
  protected readonly name = signal('');
  protected readonly purpose = signal('');
  protected readonly parent = signal('house');
  protected readonly failure = signal('');
  protected readonly isBusy = signal(false);
  protected readonly id = computed(() => idFrom(this.name()));

  protected create(event: Event): void {
    event.preventDefault();
    const id = this.id();
    const parent = this.profiles().find((profile) => profile.id === this.parent());
    if (id === '') {
      this.failure.set('Give the profile a name with letters in it, such as “Picture desk”.');
      return;
    }
    if (this.profiles().some((profile) => profile.id === id)) {
      this.failure.set(`There is already a profile that would be called “${id}”. Choose another name.`);
      return;
    }
    this.isBusy.set(true);
    const document = {
      format: PROFILE_FORMAT,
      name: this.name().trim(),
      ...(this.purpose().trim() === '' ? {} : { purpose: this.purpose().trim() }),
      ...(parent === undefined ? { markup: { elements: { p: {} } } } : { extends: parent.id }),
    };
    this.api.createProfile(id, document).subscribe({
      next: (profile) => {
        this.store.dispatch(LibraryActions.profileCreated({ profile }));
        this.dialog.close();
        void this.router.navigate(['/profiles', id]);
      },
      error: (failure: ApiFailure) => {
        this.isBusy.set(false);
        this.failure.set(failure.message);
      },
    });
  }
}

/** An id made from a name: lower-case words joined by hyphens. */
export function idFrom(name: string): string {
  return name
    .normalize('NFD')
    .toLowerCase()
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^[^a-z]+|-+$/g, '')
    .slice(0, 64)
    .replace(/-+$/, '');
}
