import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { MatTableModule } from '@angular/material/table';
import { isObject, makePatch, toPointer, type Json } from '@typikon/core/settings';

/** One place where two documents differ. */
export interface Difference {
  pointer: string;
  one: Json | undefined;
  other: Json | undefined;
}

/** The places where two documents differ, as deep down as they can be told apart. */
export function differencesOf(one: Json | undefined, other: Json | undefined, keys: string[] = []): Difference[] {
  if (one !== undefined && other !== undefined && makePatch(one, other) === undefined) return [];
  if (!isObject(one) || !isObject(other)) return [{ pointer: toPointer(keys), one, other }];
  return [...new Set([...Object.keys(one), ...Object.keys(other)])].flatMap((key) => differencesOf(one[key], other[key], [...keys, key]));
}

/** Shows where two documents differ: the place, and what each says there. */
@Component({
  selector: 'ty-changes-table',
  imports: [MatTableModule],
  template: `
    <table mat-table class="ty-dense" [trackBy]="same" [dataSource]="differences()" [attr.aria-label]="caption()">
      <ng-container matColumnDef="place">
        <th mat-header-cell *matHeaderCellDef scope="col">Place</th>
        <td mat-cell *matCellDef="let row" [attr.role]="'rowheader'">
          <code>{{ row.pointer }}</code>
        </td>
      </ng-container>
      <ng-container matColumnDef="one">
        <th mat-header-cell *matHeaderCellDef scope="col">{{ heads()[0] }}</th>
        <td mat-cell *matCellDef="let row">
          <code>{{ wordsOf(row.one) }}</code>
        </td>
      </ng-container>
      <ng-container matColumnDef="other">
        <th mat-header-cell *matHeaderCellDef scope="col">{{ heads()[1] }}</th>
        <td mat-cell *matCellDef="let row">
          <code>{{ wordsOf(row.other) }}</code>
        </td>
      </ng-container>
      <tr mat-header-row *matHeaderRowDef="columns"></tr>
      <tr mat-row *matRowDef="let row; columns: columns"></tr>
      <tr *matNoDataRow>
        <td colspan="3">Nothing is different.</td>
      </tr>
    </table>
  `,
  styles: `
    :host {
      display: block;
      max-height: 240px;
      overflow: auto;
      background: var(--ty-sheet);
    }
    table {
      width: 100%;
      border-collapse: collapse;
      table-layout: fixed;
      font-size: 12.5px;
    }
    th,
    td {
      padding: 5px 14px 5px 0;
      border-bottom: 1px solid var(--ty-hair);
      text-align: left;
      vertical-align: top;
      font-weight: 400;
    }
    th:first-child,
    td:first-child {
      width: 36%;
    }
    td:nth-child(2),
    th:nth-child(2) {
      width: 24%;
    }
    th {
      color: var(--ty-soft);
      font-size: 11.5px;
    }
    code {
      overflow-wrap: anywhere;
      font-size: 12px;
    }
  `,
  host: { tabindex: '0', role: 'region', '[attr.aria-label]': 'caption()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ChangesTable {
  readonly one = input.required<Json | undefined>();
  readonly other = input.required<Json | undefined>();
  readonly heads = input<readonly [string, string]>(['Before', 'After']);
  readonly caption = input('What changes');
  protected readonly columns = ['place', 'one', 'other'];
  protected readonly same = (_: number, row: { pointer: string }): string => row.pointer;
  protected readonly differences = computed(() => differencesOf(this.one(), this.other()));

  /** What a document says at a place: nothing, that it is taken out, or a value. */
  protected wordsOf(value: Json | undefined): string {
    return value === undefined
      ? 'says nothing'
      : value === null
        ? 'takes it out'
        : JSON.stringify(value, null, 1).replace(/\s*\n\s*/g, ' ');
  }
}
