import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';
import type { JsonObject } from '@typikon/core/settings';
import { ChangesTable } from '../../shared/profile/changes-table';

/** Two states of something, one beside the other. */
export interface EditionChanges {
  title: string;
  one: JsonObject;
  other: JsonObject;
  heads: readonly [string, string];
}

/** Shows where two states differ. */
@Component({
  selector: 'ty-edition-changes',
  imports: [ChangesTable, MatButtonModule, MatDialogModule],
  template: `
    <h2 mat-dialog-title>{{ data.title }}</h2>
    <mat-dialog-content>
      <ty-changes-table [one]="data.one" [other]="data.other" [heads]="data.heads" caption="Where they differ" />
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button mat-flat-button type="button" mat-dialog-close>Close</button>
    </mat-dialog-actions>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EditionChangesDialog {
  protected readonly data = inject<EditionChanges>(MAT_DIALOG_DATA);
}
