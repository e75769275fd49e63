import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatSnackBar } from '@angular/material/snack-bar';
import { Store } from '@ngrx/store';
import { Api, type ApiFailure } from '../../state/api';
import type { AnswerOf } from '../../state/contract';
import { ContractClient } from '../../state/contract-client';
import { LibraryActions, libraryFeature } from '../../state/library';
import { nameOf } from '../../state/profile-name';
import type { StoredProfile } from '../../state/types';
import { profileInQuestion } from './profile-in-question';
import { staysWhile } from '../../ui/stays-while';

type Use = AnswerOf<'get', '/profiles/{id}/use'>;

/** Asks before a profile goes, and tells who would miss it. */
@Component({
  selector: 'ty-profile-removal',
  imports: [MatButtonModule, MatDialogModule],
  template: `
    <h2 mat-dialog-title>Take “{{ name() }}” away?</h2>
    <mat-dialog-content>
      @if (use(); as use) {
        @if (obstacles().length > 0) {
          <p>It is still in use, so it stays:</p>
          <ul>
            @for (one of obstacles(); track one) {
              <li>{{ one }}</li>
            }
          </ul>
        } @else {
          <p>
            Its rules go, and its {{ revision() === 1 ? 'one saved state' : revision() + ' saved states' }} with them. No other profile
            extends it, and nobody is said to write with it.
          </p>
        }
        @if (use.documents > 0) {
          <p>
            {{ use.documents === 1 ? 'One document has' : use.documents + ' documents have' }} texts that were last saved with it: they stay
            as they are, and whoever opens one chooses another profile.
          </p>
        }
        @if (use.specimens > 0) {
          <p>{{ use.specimens === 1 ? 'One specimen is' : use.specimens + ' specimens are' }} meant to be tried with it first.</p>
        }
      } @else if (failure() === '') {
        <p role="status">Looking who uses it …</p>
      }
      <p class="ty-failure" role="alert">{{ failure() }}</p>
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button mat-button type="button" mat-dialog-close cdkFocusInitial>Leave it</button>
      <button mat-flat-button type="button" [disabled]="use() === null || obstacles().length > 0 || isBusy()" (click)="remove()">
        Take it away
      </button>
    </mat-dialog-actions>
  `,
  styles: `
    p + p {
      margin-top: 8px;
    }
    ul {
      margin: 6px 0;
      padding-left: 18px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ProfileRemoval {
  private readonly client = inject(ContractClient);
  private readonly api = inject(Api);
  private readonly ngrx = inject(Store);
  private readonly dialog = inject<MatDialogRef<ProfileRemoval>>(MatDialogRef);
  private readonly messages = inject(MatSnackBar);
  private readonly about = profileInQuestion(inject<StoredProfile>(MAT_DIALOG_DATA));
  private readonly names = this.ngrx.selectSignal(libraryFeature.selectNames);
  protected readonly name = computed(() => nameOf(this.about.profile()));
  protected readonly revision = computed(() => this.about.profile().revision);
  protected readonly use = signal<Use | null>(null);
  protected readonly failure = this.about.failure;
  protected readonly isBusy = signal(false);
  protected readonly obstacles = computed(() => {
    const use = this.use();
    if (use === null) return [];
    return [
      ...use.extendedBy.map((id) => `“${this.names().get(id) ?? id}” extends it.`),
      ...(use.statements > 0
        ? [`${use.statements === 1 ? 'A statement says' : `${use.statements} statements say`} that somebody writes with it.`]
        : []),
      ...(use.isFallback ? ['It is for whatever no statement fits.'] : []),
    ];
  });

  constructor() {
    staysWhile(this.isBusy);
    this.client.get('/profiles/{id}/use', {}, { id: this.about.profile().id }).subscribe({
      next: ({ body }) => this.use.set(body),
      error: (failure: ApiFailure) => this.about.refuse(failure),
    });
  }

  protected remove(): void {
    this.isBusy.set(true);
    const { id, document, revision } = this.about.profile();
    const name = this.name();
    this.client.delete('/profiles/{id}', revision, { id }).subscribe({
      next: () => {
        this.ngrx.dispatch(LibraryActions.profileRemoved({ id }));
        this.dialog.close();
        this.messages
          .open(`“${name}” is gone.`, 'Bring it back', { duration: 10_000 })
          .onAction()
          .subscribe(() => this.bringBack(id, name, document));
      },
      error: (failure: ApiFailure) => {
        this.isBusy.set(false);
        this.about.refuse(failure);
      },
    });
  }

  private bringBack(id: string, name: string, document: StoredProfile['document']): void {
    this.api.createProfile(id, document).subscribe({
      next: (profile) => this.ngrx.dispatch(LibraryActions.profileStored({ profile })),
      error: ({ message }: ApiFailure) => this.messages.open(`“${name}” did not come back. ${message}`, 'Close'),
    });
  }
}
