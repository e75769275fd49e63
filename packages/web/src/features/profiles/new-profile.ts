import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { NonNullableFormBuilder, ReactiveFormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { Router } from '@angular/router';
import { idFrom, PROFILE_FORMAT, STARTING_POINTS, type JsonObject } from '@typikon/core';
import { Store } from '@ngrx/store';
import { Api, type ApiFailure } from '../../state/api';
import { LibraryActions, libraryFeature } from '../../state/library';
import { staysWhile } from '../../ui/stays-while';

/** The profile that others follow, where there is one; and the set of rules for most texts. */
const HOUSE = 'house';
const FIRST_SET = 'letter';

/** Makes a profile: a name, what it is for, and which profile it begins from. */
@Component({
  selector: 'ty-new-profile',
  imports: [MatButtonModule, MatDialogModule, MatFormFieldModule, MatInputModule, MatSelectModule, ReactiveFormsModule],
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
  protected readonly points = STARTING_POINTS;
  protected readonly form = inject(NonNullableFormBuilder).group({
    name: '',
    purpose: '',
    /** `parent:` and a profile, `set:` and a starting point, `sample` or `nothing`. */
    begin: this.profiles().some(({ id }) => id === HOUSE) ? `parent:${HOUSE}` : `set:${FIRST_SET}`,
  });
  private readonly value = toSignal(this.form.valueChanges, { initialValue: this.form.getRawValue() });
  protected readonly failure = signal('');
  protected readonly isBusy = signal(false);
  protected readonly id = computed(() => idFrom(this.value().name ?? ''));
  protected readonly hint = computed(() => {
    const begin = this.value().begin ?? '';
    if (begin.startsWith('parent:')) return 'It follows every later change of that profile, except where you set something here.';
    if (begin === 'sample') return 'You paste or drop a sample next; what authors may keep of it is ticked there.';
    if (begin === 'nothing') return 'Authors can write text without any markup until you allow some.';
    return STARTING_POINTS.find(({ id }) => begin === `set:${id}`)?.gloss ?? '';
  });

  constructor() {
    staysWhile(this.isBusy);
  }

  protected create(): void {
    const id = this.id();
    const { name, purpose, begin } = this.form.getRawValue();
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
      name: name.trim(),
      ...(purpose.trim() === '' ? {} : { purpose: purpose.trim() }),
      ...beginning(begin),
    };
    this.api.createProfile(id, document).subscribe({
      next: (profile) => {
        this.store.dispatch(LibraryActions.profileStored({ profile }));
        this.dialog.close();
        void this.router.navigate(['/profiles', id], { queryParams: begin === 'sample' ? { learn: 'sample' } : {} });
      },
      error: (failure: ApiFailure) => {
        this.isBusy.set(false);
        this.failure.set(failure.message);
      },
    });
  }
}

/** What the document says at first besides its name. */
function beginning(begin: string): JsonObject {
  if (begin.startsWith('parent:')) return { extends: begin.slice('parent:'.length) };
  const { format: _format, ...document } = STARTING_POINTS.find(({ id }) => begin === `set:${id}`)?.document ?? {};
  return document;
}
