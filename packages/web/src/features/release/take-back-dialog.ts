import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { NonNullableFormBuilder, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { firstValueFrom } from 'rxjs';
import { ContractClient } from '../../state/contract-client';
import { takeBack, type Target } from '../../state/releases';
import { staysWhile } from '../../ui/stays-while';

export interface TakeBackQuestion {
  target: Target;
  /** What is taken back, as it stands in a sentence. */
  name: string;
  number: number;
  /** The number of the last edition. */
  last: number;
}

/** Asks why an earlier edition is released again, as a new one. */
@Component({
  selector: 'ty-take-back',
  imports: [MatButtonModule, MatDialogModule, MatFormFieldModule, MatInputModule, ReactiveFormsModule],
  template: `
    <h2 mat-dialog-title>Take {{ question.name }} back to edition {{ question.number }}?</h2>
    <form [formGroup]="form" (ngSubmit)="takeBack()">
      <mat-dialog-content>
        <p>
          Edition {{ question.last + 1 }} will say what edition {{ question.number }} said, and holds from then on. A draft in which nothing
          was changed since edition {{ question.last }} follows; any other stays as it is.
        </p>
        <label for="take-back-why">Why</label>
        <mat-form-field appearance="outline" subscriptSizing="dynamic">
          <textarea matInput id="take-back-why" formControlName="note" rows="3" cdkFocusInitial></textarea>
        </mat-form-field>
        <p class="ty-failure" role="alert">{{ failure() }}</p>
      </mat-dialog-content>
      <mat-dialog-actions align="end">
        <button mat-button type="button" mat-dialog-close>Leave it</button>
        <button mat-flat-button type="submit" [disabled]="isBusy()">Take back to it</button>
      </mat-dialog-actions>
    </form>
  `,
  styleUrl: './release-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TakeBackDialog {
  protected readonly question = inject<TakeBackQuestion>(MAT_DIALOG_DATA);
  private readonly dialog = inject<MatDialogRef<TakeBackDialog, boolean>>(MatDialogRef);
  private readonly client = inject(ContractClient);
  protected readonly form = inject(NonNullableFormBuilder).group({ note: ['', Validators.maxLength(1000)] });
  protected readonly failure = signal('');
  protected readonly isBusy = signal(false);

  constructor() {
    staysWhile(this.isBusy);
  }

  protected async takeBack(): Promise<void> {
    if (this.isBusy() || !this.form.valid) return;
    this.isBusy.set(true);
    this.failure.set('');
    const { target, number, last } = this.question;
    try {
      await firstValueFrom(takeBack(this.client, target, number, last, this.form.getRawValue().note));
      this.dialog.close(true);
    } catch (error) {
      this.failure.set((error as Error).message);
    }
    this.isBusy.set(false);
  }
}
