import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatSelectModule } from '@angular/material/select';
import { Store } from '@ngrx/store';
import { resolveProfile, withValue, type Json } from '@typikon/core/settings';
import { Api, type ApiFailure } from '../../state/api';
import { LibraryActions, libraryFeature } from '../../state/library';
import { nameOf } from '../../state/profile-name';
import type { StoredProfile } from '../../state/types';
import { ChangesTable, differencesOf } from '../../shared/profile/changes-table';
import { descendantsOf } from '../../shared/profile/family';
import { profileInQuestion } from './profile-in-question';
import { staysWhile } from '../../ui/stays-while';

/** Lets a profile extend another one, or none, once it is seen what that changes of its rules. */
@Component({
  selector: 'ty-profile-parent',
  imports: [ChangesTable, MatButtonModule, MatDialogModule, MatFormFieldModule, MatSelectModule],
  template: `
    <h2 mat-dialog-title>What “{{ name() }}” extends</h2>
    <mat-dialog-content>
      <span class="label" id="parent-to">It follows every rule, but for those that it sets itself, of</span>
      <mat-form-field appearance="outline" subscriptSizing="dynamic">
        <mat-select aria-labelledby="parent-to" cdkFocusInitial [value]="parent()" (valueChange)="parent.set($event)">
          <mat-option value="">nothing: what it does not set is as Typikon sets it</mat-option>
          @for (one of others(); track one.id) {
            <mat-option [value]="one.id">{{ one.name }}</mat-option>
          }
        </mat-select>
      </mat-form-field>
      @if (parent() === before()) {
        <p class="ty-soft">That is what it extends now.</p>
      } @else if (problem(); as problem) {
        <p class="ty-failure" role="alert">{{ problem }}</p>
      } @else {
        <h3>
          {{
            changes() === 0 ? 'No rule of it changes.' : changes() === 1 ? 'One rule of it changes.' : changes() + ' rules of it change.'
          }}
          @if (followers() > 0) {
            <span class="ty-soft"
              >So do those of the {{ followers() === 1 ? 'profile that extends it' : followers() + ' that extend it' }}.</span
            >
          }
        </h3>
        @if (changes() > 0) {
          <ty-changes-table [one]="now()" [other]="then()" [heads]="['Now', 'Then']" caption="What changes of its rules" />
        }
      }
      <p class="ty-failure" role="alert">{{ failure() }}</p>
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button mat-button type="button" mat-dialog-close>Leave it</button>
      <button mat-flat-button type="button" [disabled]="parent() === before() || problem() !== '' || isBusy()" (click)="store()">
        Let it extend {{ parent() === '' ? 'nothing' : 'this' }}
      </button>
    </mat-dialog-actions>
  `,
  styleUrl: './new-profile.scss',
  styles: `
    h3 {
      margin: 16px 0 6px;
      font: 600 14px/20px var(--ty-serif);
    }
    p.ty-soft {
      margin-top: 12px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ProfileParent {
  private readonly api = inject(Api);
  private readonly ngrx = inject(Store);
  private readonly dialog = inject<MatDialogRef<ProfileParent>>(MatDialogRef);
  private readonly about = profileInQuestion(inject<StoredProfile>(MAT_DIALOG_DATA));
  private readonly profile = this.about.profile;
  private readonly profiles = this.ngrx.selectSignal(libraryFeature.selectProfiles);
  protected readonly name = computed(() => nameOf(this.profile()));
  protected readonly before = computed(() => parentOf(this.profile()));
  protected readonly parent = signal(this.before());
  protected readonly failure = this.about.failure;
  protected readonly isBusy = signal(false);
  private readonly below = computed(() => descendantsOf(this.profile().id, this.profiles()));
  protected readonly followers = computed(() => this.below().size);
  /** Those that it can extend: neither itself nor what extends it. */
  protected readonly others = computed(() =>
    this.profiles()
      .filter(({ id }) => id !== this.profile().id && !this.below().has(id))
      .map((one) => ({ id: one.id, name: nameOf(one) }))
      .sort((one, other) => one.name.localeCompare(other.name)),
  );
  private readonly document = computed(() =>
    withValue(this.profile().document, ['extends'], this.parent() === '' ? undefined : this.parent()),
  );
  private readonly resolution = computed(() => this.resolve(this.document()));
  protected readonly now = computed(() => this.rulesOf(this.resolve(this.profile().document)));
  protected readonly then = computed(() => this.rulesOf(this.resolution()));
  protected readonly changes = computed(() => differencesOf(this.now(), this.then()).length);
  protected readonly problem = computed(() => {
    const resolution = this.resolution();
    return resolution.ok ? '' : resolution.problems.map(({ pointer, message }) => `${pointer}: ${message}`).join(' ');
  });

  constructor() {
    staysWhile(this.isBusy);
  }

  private resolve(document: StoredProfile['document']): ReturnType<typeof resolveProfile> {
    const of = this.profile().id;
    return resolveProfile(of, (id) => (id === of ? document : this.profiles().find((one) => one.id === id)?.document));
  }

  private rulesOf(resolution: ReturnType<typeof resolveProfile>): Json | undefined {
    if (!resolution.ok) return undefined;
    const { extends: _, ...rules } = resolution.resolved.profile as unknown as Record<string, Json>;
    return rules;
  }

  protected store(): void {
    this.isBusy.set(true);
    this.api.saveDraft(this.profile().id, this.document(), this.profile().revision).subscribe({
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

const parentOf = ({ document }: StoredProfile): string => (typeof document['extends'] === 'string' ? document['extends'] : '');
