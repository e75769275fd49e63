import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { MatTableModule } from '@angular/material/table';

/** A difference that the browser shows and no rule explains. */
interface Unexplained {
  element: string;
  property: string;
  editor: string;
  page: string;
}

/** What needs more room than it has, on one side. */
interface Misfit {
  element: string;
  side: 'editor' | 'page';
  neededPx: number;
  columnPx: number;
}

/** How what this browser measures in a document and what the rules say agree. */
@Component({
  selector: 'ty-measured-differences',
  imports: [MatTableModule],
  template: `
    @if (differences(); as count) {
      <p>
        This browser shows {{ count.all }} differences in this document;
        {{ unexplained().length === 0 ? 'the rules explain every one' : unexplained().length + ' the rules do not explain' }}.
        @if (unseen() > 0) {
          {{ unseen() }} that follow from the rules it does not show.
        }
      </p>
      @if (rows().length > 0) {
        <table mat-table class="ty-dense" [dataSource]="rows()" aria-label="What the browser shows and the rules do not say">
          <ng-container matColumnDef="element">
            <th mat-header-cell *matHeaderCellDef scope="col">Element</th>
            <td mat-cell *matCellDef="let row" role="rowheader">
              <code>{{ row.element }}</code>
            </td>
          </ng-container>
          <ng-container matColumnDef="what">
            <th mat-header-cell *matHeaderCellDef scope="col">What</th>
            <td mat-cell *matCellDef="let row">{{ row.what }}</td>
          </ng-container>
          <ng-container matColumnDef="author">
            <th mat-header-cell *matHeaderCellDef scope="col">Author</th>
            <td mat-cell *matCellDef="let row">
              <code>{{ row.author }}</code>
            </td>
          </ng-container>
          <ng-container matColumnDef="reader">
            <th mat-header-cell *matHeaderCellDef scope="col">Reader</th>
            <td mat-cell *matCellDef="let row">
              <code>{{ row.reader }}</code>
            </td>
          </ng-container>
          <tr mat-header-row *matHeaderRowDef="columns"></tr>
          <tr mat-row *matRowDef="let row; columns: columns"></tr>
        </table>
      }
    } @else {
      <p class="ty-soft">Nothing is measured yet.</p>
    }
  `,
  styles: `
    :host {
      display: block;
      padding: 8px 16px 14px;
      font-size: 12.5px;
    }
    table {
      margin-top: 8px;
    }
    th,
    td {
      padding: 3px 16px 3px 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MeasuredDifferences {
  /** What was measured; null before it is. */
  readonly measured = input.required<{ differences: ReadonlyMap<string, unknown> } | null>();
  readonly unexplained = input.required<readonly Unexplained[]>();
  readonly misfits = input.required<readonly Misfit[]>();
  /** How many differences follow from the rules that the browser does not show. */
  readonly unseen = input.required<number>();
  protected readonly columns = ['element', 'what', 'author', 'reader'];
  protected readonly differences = computed(() => {
    const measured = this.measured();
    return measured === null ? null : { all: measured.differences.size };
  });
  protected readonly rows = computed(() => [
    ...this.unexplained().map(({ element, property, editor, page }) => ({ element, what: property, author: editor, reader: page })),
    ...this.misfits().map(({ element, side, neededPx, columnPx }) => ({
      element,
      what: `does not fit: ${neededPx} px in ${columnPx} px`,
      author: side === 'editor' ? 'here' : '',
      reader: side === 'page' ? 'here' : '',
    })),
  ]);
}
