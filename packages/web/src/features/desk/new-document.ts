import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { type AbstractControl, NonNullableFormBuilder, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { titleField, type ContentType } from '@typikon/core';
import { firstValueFrom } from 'rxjs';
import { ContractClient } from '../../state/contract-client';
import { staysWhile } from '../../ui/stays-while';

export interface NewDocumentQuestion {
  type: ContentType;
}

/** Makes a document of a type. Closes with its id; undefined where none was made. */
@Component({
  selector: 'ty-new-document',
  imports: [MatButtonModule, MatDialogModule, MatFormFieldModule, MatInputModule, ReactiveFormsModule],
  template: `
    <h2 mat-dialog-title>New {{ type.label }}</h2>
    <form [formGroup]="form" (ngSubmit)="make()">
      <mat-dialog-content>
        <label class="label" for="new-document-title">{{ label }}</label>
        <mat-form-field appearance="outline" subscriptSizing="dynamic">
          <input matInput id="new-document-title" formControlName="title" cdkFocusInitial />
          @if (form.controls.title.touched && form.controls.title.invalid) {
            <mat-error>It needs one, of 200 letters at most.</mat-error>
          }
        </mat-form-field>
        @if (failure()) {
          <p class="ty-failure" role="alert">{{ failure() }}</p>
        }
      </mat-dialog-content>
      <mat-dialog-actions align="end">
        <button mat-button type="button" mat-dialog-close>Leave it</button>
        <button mat-flat-button type="submit" [disabled]="isBusy()">Make it</button>
      </mat-dialog-actions>
    </form>
  `,
  styles: `
    mat-form-field {
      width: 100%;
    }
    .label {
      display: block;
      margin-bottom: 4px;
      font-size: 13px;
    }
    mat-dialog-actions {
      gap: 8px;
      padding: 8px 24px 18px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NewDocument {
  protected readonly type = inject<NewDocumentQuestion>(MAT_DIALOG_DATA).type;
  private readonly opened = inject<MatDialogRef<NewDocument, string>>(MatDialogRef);
  private readonly client = inject(ContractClient);
  protected readonly label = titleField(this.type)?.title ?? 'Title';
  protected readonly failure = signal('');
  protected readonly isBusy = signal(false);
  protected readonly form = inject(NonNullableFormBuilder).group({
    title: ['', [isThere, Validators.maxLength(200)]],
  });

  constructor() {
    staysWhile(this.isBusy);
  }

  protected async make(): Promise<void> {
    this.form.markAllAsTouched();
    if (!this.form.valid || this.isBusy()) return;
    this.isBusy.set(true);
    try {
      const body = { type: this.type.id, title: this.form.getRawValue().title };
      this.opened.close((await firstValueFrom(this.client.post('/documents', body, null, {}))).body.id);
    } catch (error) {
      this.failure.set((error as Error).message);
      this.isBusy.set(false);
    }
  }
}

const isThere = ({ value }: AbstractControl<string>) => (value.trim() === '' ? { missing: true } : null);
