import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { NonNullableFormBuilder, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { firstValueFrom } from 'rxjs';
import type { AnswerOf } from '../../state/contract';
import { ContractClient } from '../../state/contract-client';
import type { NamedText } from '../../state/conversions';
import { staysWhile } from '../../ui/stays-while';

export interface AskQuestion {
  profile: string;
  /** Who is asked, in words. */
  writers: string;
  texts: readonly NamedText[];
}
export type Asked = AnswerOf<'post', '/profiles/{id}/questions'>;

/** Asks the authors of texts what a draft may do to them. */
@Component({
  selector: 'ty-ask',
  imports: [MatButtonModule, MatDialogModule, MatFormFieldModule, MatInputModule, ReactiveFormsModule],
  template: `
    <h2 mat-dialog-title>Ask {{ question.writers || 'their authors' }}?</h2>
    <form [formGroup]="form" (ngSubmit)="ask()">
      <mat-dialog-content>
        <p>
          Whoever changed {{ question.texts.length === 1 ? 'this text' : 'each of these ' + question.texts.length + ' texts' }} last finds
          it on their desk, as it is now and as the draft would leave it, and says whether it may come out so, or writes it anew.
        </p>
        <label for="ask-note">What you want to know</label>
        <mat-form-field appearance="outline" subscriptSizing="dynamic">
          <textarea matInput id="ask-note" formControlName="note" rows="3" cdkFocusInitial></textarea>
        </mat-form-field>
        <p class="ty-failure" role="alert">{{ failure() }}</p>
      </mat-dialog-content>
      <mat-dialog-actions align="end">
        <button mat-button type="button" mat-dialog-close>Leave it</button>
        <button mat-flat-button type="submit" [disabled]="isBusy() || form.invalid">Ask</button>
      </mat-dialog-actions>
    </form>
  `,
  styleUrl: './release-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AskDialog {
  protected readonly question = inject<AskQuestion>(MAT_DIALOG_DATA);
  private readonly dialog = inject<MatDialogRef<AskDialog, Asked>>(MatDialogRef);
  private readonly client = inject(ContractClient);
  protected readonly form = inject(NonNullableFormBuilder).group({ note: ['', Validators.maxLength(1000)] });
  protected readonly failure = signal('');
  protected readonly isBusy = signal(false);

  constructor() {
    staysWhile(this.isBusy);
  }

  protected async ask(): Promise<void> {
    if (this.isBusy() || this.form.invalid) return;
    this.isBusy.set(true);
    this.failure.set('');
    const { profile, texts } = this.question;
    const body = { ...this.form.getRawValue(), texts: texts.map(({ document, field }) => ({ document, field })) };
    try {
      this.dialog.close((await firstValueFrom(this.client.post('/profiles/{id}/questions', body, null, { id: profile }))).body);
    } catch (error) {
      this.failure.set(`Nobody was asked. ${(error as Error).message}`);
    }
    this.isBusy.set(false);
  }
}
