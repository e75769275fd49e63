import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { Router } from '@angular/router';
import { idFrom, PROFILE_FORMAT, STARTING_POINTS, type JsonObject } from '@typikon/core';
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
  protected readonly points = STARTING_POINTS;
  /** Where it begins: `parent:` and a profile, `set:` and a starting point, `sample` or `nothing`. */
  protected readonly begin = signal('parent:house');
  protected readonly failure = signal('');
  protected readonly isBusy = signal(false);
  protected readonly id = computed(() => idFrom(this.name()));
  protected readonly hint = computed(() => {
    const begin = this.begin();
    if (begin.startsWith('parent:')) return 'It follows every later change of that profile, except where you set something here.';
    if (begin === 'sample') return 'You paste or drop a sample next; what authors may keep of it is ticked there.';
    if (begin === 'nothing') return 'Authors can write text without any markup until you allow some.';
    return STARTING_POINTS.find(({ id }) => begin === `set:${id}`)?.gloss ?? '';
  });

  protected create(event: Event): void {
    event.preventDefault();
    const id = this.id();
    if (id === '') {
      this.failure.set('Give the profile a name with letters in it, such as “Picture desk”.');
      return;
    }
    if (this.profiles().some((profile) => profile.id === id)) {
      this.failure.set(`There is already a profile that would be called “${id}”. Choose another name.`);
      return;
    }
    this.isBusy.set(true);
    const document: JsonObject = {
      format: PROFILE_FORMAT,
      name: this.name().trim(),
      ...(this.purpose().trim() === '' ? {} : { purpose: this.purpose().trim() }),
      ...this.beginning(),
    };
    this.api.createProfile(id, document).subscribe({
      next: (profile) => {
        this.store.dispatch(LibraryActions.profileCreated({ profile }));
        this.dialog.close();
        void this.router.navigate(['/profiles', id], { queryParams: this.begin() === 'sample' ? { learn: 'sample' } : {} });
      },
      error: (failure: ApiFailure) => {
        this.isBusy.set(false);
        this.failure.set(failure.message);
      },
    });
  }

  /** What the document says at first besides its name. */
  private beginning(): JsonObject {
    const begin = this.begin();
    if (begin.startsWith('parent:')) return { extends: begin.slice('parent:'.length) };
    const { format: _format, ...document } = STARTING_POINTS.find(({ id }) => begin === `set:${id}`)?.document ?? {};
    return document;
  }
}
