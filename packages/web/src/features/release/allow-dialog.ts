import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { Store } from '@ngrx/store';
import type { JsonObject } from '@typikon/core/settings';
import { firstValueFrom } from 'rxjs';
import { Api } from '../../state/api';
import type { AnswerOf } from '../../state/contract';
import { ContractClient } from '../../state/contract-client';
import type { NamedText } from '../../state/conversions';
import { LibraryActions } from '../../state/library';
import { staysWhile } from '../../ui/stays-while';

export interface AllowQuestion {
  profile: string;
  /** The state of the draft that was looked at. */
  revision: number;
  /** The group of entries, as the reach names it, and what it does, in words. */
  key: string;
  sentence: string;
  texts: readonly NamedText[];
}

type Allowed = AnswerOf<'post', '/profiles/{id}/reach/allow'>;

/** So many texts are looked at for what they would need. */
const MOST_TEXTS = 2000;

/** Shows the smallest rules by which the draft no more does what it does to some texts, and puts them into it. */
@Component({
  selector: 'ty-allow',
  imports: [MatButtonModule, MatDialogModule, MatProgressBarModule],
  template: `
    <h2 mat-dialog-title>Allow it in the draft?</h2>
    <mat-dialog-content>
      <p>{{ question.sentence }}.</p>
      @if (allowed(); as found) {
        @if (found.allows.length === 0) {
          <p>
            Nothing in this profile would keep it: the house limits or the safety floor take it
            {{ found.left === 1 ? 'from this text' : 'from ' + found.left + ' texts' }}.
          </p>
        } @else {
          <p>The least that keeps it, and no more than these texts hold:</p>
          <ul>
            @for (one of found.allows; track one) {
              <li>{{ one }}</li>
            }
          </ul>
          <p class="ty-soft">
            {{ found.kept === 1 ? 'One text keeps' : found.kept + ' texts keep' }} it then.
            @if (found.left > 0) {
              {{ found.left === 1 ? 'One does' : found.left + ' do' }} not: something above this profile takes it.
            }
          </p>
        }
      } @else if (failure() === '') {
        <p role="status">Looking for the least rules that keep it …</p>
        <mat-progress-bar mode="indeterminate" aria-label="Looking for the least rules"></mat-progress-bar>
      }
      <p class="ty-failure" role="alert">{{ failure() }}</p>
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button mat-button type="button" mat-dialog-close>Leave it</button>
      <button mat-flat-button type="button" [disabled]="isBusy() || (allowed()?.allows?.length ?? 0) === 0" (click)="allow()">
        Allow it
      </button>
    </mat-dialog-actions>
  `,
  styleUrl: './release-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AllowDialog {
  protected readonly question = inject<AllowQuestion>(MAT_DIALOG_DATA);
  private readonly dialog = inject<MatDialogRef<AllowDialog, boolean>>(MatDialogRef);
  private readonly client = inject(ContractClient);
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  protected readonly allowed = signal<Allowed | null>(null);
  protected readonly failure = signal('');
  protected readonly isBusy = signal(false);

  constructor() {
    staysWhile(this.isBusy);
    void this.look();
  }

  private async look(): Promise<void> {
    const { profile: id, key, texts } = this.question;
    const body = { key, texts: texts.slice(0, MOST_TEXTS).map(({ document, field }) => ({ document, field })) };
    try {
      this.allowed.set((await firstValueFrom(this.client.post('/profiles/{id}/reach/allow', body, null, { id }))).body);
    } catch (error) {
      this.failure.set((error as Error).message);
    }
  }

  protected async allow(): Promise<void> {
    const [allowed, { profile: id, revision }] = [this.allowed(), this.question];
    if (allowed === null || this.isBusy()) return;
    this.isBusy.set(true);
    this.failure.set('');
    try {
      const profile = await firstValueFrom(this.api.saveDraft(id, allowed.document as JsonObject, revision));
      this.store.dispatch(LibraryActions.profileStored({ profile }));
      this.dialog.close(true);
    } catch (error) {
      this.failure.set(`Not allowed. ${(error as Error).message}`);
    }
    this.isBusy.set(false);
  }
}
