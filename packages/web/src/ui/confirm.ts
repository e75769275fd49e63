import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';

export interface Question {
  title: string;
  text: string;
  /** What can be answered: the value given back, the words on the button, and which one is the usual one. */
  answers: readonly { value: string; label: string; isMain?: boolean }[];
}

/** Asks one question. Closes with the value of the answer; undefined where the person pressed Escape. */
@Component({
  selector: 'ty-confirm',
  imports: [MatButtonModule, MatDialogModule],
  template: `
    <h2 mat-dialog-title>{{ question.title }}</h2>
    <mat-dialog-content>{{ question.text }}</mat-dialog-content>
    <mat-dialog-actions>
      @for (answer of question.answers; track answer.value) {
        @if (answer.isMain) {
          <button mat-flat-button type="button" class="go" [mat-dialog-close]="answer.value">{{ answer.label }}</button>
        } @else {
          <button mat-stroked-button type="button" [mat-dialog-close]="answer.value">{{ answer.label }}</button>
        }
      }
    </mat-dialog-actions>
  `,
  styles: 'mat-dialog-actions { gap: 8px; padding: 8px 24px 18px; }',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Confirm {
  protected readonly question = inject<Question>(MAT_DIALOG_DATA);
}
