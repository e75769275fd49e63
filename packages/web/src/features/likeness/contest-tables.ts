import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { MatTableModule } from '@angular/material/table';
import { shortSelector, specificityText, type ContestRow, type ContestTable } from '@typikon/core';
import type { TwoContests } from '../../state/likeness-tasks';

const OUTCOMES: Readonly<Record<Exclude<ContestRow['outcome'], 'wins' | 'condition'>, string>> = {
  importance: 'loses: the other is !important',
  origin: 'loses: an old attribute yields',
  inline: 'loses to the style attribute',
  layer: 'loses: its layer yields',
  specificity: 'outweighed',
  order: 'loses: it comes earlier',
};

/** For a property of an element: who wins and who loses in the editor, and on the page. */
@Component({
  selector: 'ty-contest-tables',
  imports: [MatTableModule],
  template: `
    @for (side of sides(); track side.name) {
      <section [attr.aria-label]="'The contest, ' + side.name.toLowerCase()">
        <h3>
          {{ side.name }} <code>{{ side.value }}</code>
          @if (side.levels > 0) {
            <span class="ty-soft">inherited, {{ side.levels === 1 ? 'one element' : side.levels + ' elements' }} up</span>
          }
        </h3>
        @if (side.rows.length === 0) {
          <p class="ty-soft">No rule says anything: the browser decides.</p>
        } @else {
          <table mat-table class="ty-dense" [dataSource]="side.rows" [attr.aria-label]="'Rules, ' + side.name.toLowerCase()">
            <ng-container matColumnDef="rule">
              <th mat-header-cell *matHeaderCellDef scope="col" class="rule">Rule</th>
              <td mat-cell *matCellDef="let row" [attr.role]="'rowheader'">
                <code [title]="row.selector">{{ row.rule }}</code>
              </td>
            </ng-container>
            <ng-container matColumnDef="file">
              <th mat-header-cell *matHeaderCellDef scope="col" class="file">File</th>
              <td mat-cell *matCellDef="let row">{{ row.file }}</td>
            </ng-container>
            <ng-container matColumnDef="weight">
              <th mat-header-cell *matHeaderCellDef scope="col">Weight</th>
              <td mat-cell *matCellDef="let row" class="ty-num weight">{{ row.weight }}</td>
            </ng-container>
            <ng-container matColumnDef="value">
              <th mat-header-cell *matHeaderCellDef scope="col">Declares</th>
              <td mat-cell *matCellDef="let row">
                <code>{{ row.value }}</code>
              </td>
            </ng-container>
            <ng-container matColumnDef="outcome">
              <th mat-header-cell *matHeaderCellDef scope="col">Outcome</th>
              <td mat-cell *matCellDef="let row">
                @if (row.outcome === 'wins') {
                  <b>wins</b>
                } @else {
                  {{ row.words }}
                }
              </td>
            </ng-container>
            <tr mat-header-row *matHeaderRowDef="columns"></tr>
            <tr mat-row *matRowDef="let row; columns: columns" [class.wins]="row.outcome === 'wins'"></tr>
          </table>
        }
      </section>
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
      flex: 1;
    }
    section {
      min-width: 0;
      padding-bottom: 12px;
    }
    section + section {
      border-left: 1px solid var(--ty-hair);
    }
    h3 {
      padding: 8px 12px 4px;
      font-size: 12.5px;
      font-weight: 600;
      line-height: 18px;
    }
    h3 .ty-soft {
      font-weight: 400;
    }
    p {
      padding: 2px 12px;
      font-size: 12.5px;
    }
    table {
      width: 100%;
      border-collapse: collapse;
      font-size: 12px;
      line-height: 17px;
    }
    th,
    td {
      padding: 4px 8px;
      border-bottom: 1px solid var(--ty-hair);
      text-align: left;
      vertical-align: top;
      font-weight: 400;
      overflow-wrap: anywhere;
    }
    th {
      color: var(--ty-soft);
      font-size: 11.5px;
    }
    th:first-child,
    td:first-child {
      padding-left: 12px;
    }
    .weight,
    th {
      white-space: nowrap;
      overflow-wrap: normal;
    }
    .rule {
      width: 26%;
    }
    .file {
      width: 20%;
    }
    code {
      font-size: 11.5px;
    }
    .wins {
      background: var(--ty-rubric-wash);
    }
    .wins b {
      color: var(--ty-rubric);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ContestTables {
  readonly contests = input.required<TwoContests>();
  protected readonly columns = ['rule', 'file', 'weight', 'value', 'outcome'];
  protected readonly sides = computed(() => {
    const { editor, page } = this.contests();
    return [side('As the author sees it', editor), side('As the reader sees it', page)];
  });
}

function side(name: string, table: ContestTable | null) {
  return {
    name,
    value: table?.value ?? '',
    levels: table?.levels ?? 0,
    rows: (table?.rows ?? []).map((row) => ({
      ...row,
      rule: row.selector === '' ? (row.sheet === 'style' ? 'the style attribute' : 'an old attribute') : shortSelector(row.selector),
      file: row.line === 0 ? '' : `${row.sheet}, line ${row.line}${row.layer === '' ? '' : `, in the layer ${row.layer}`}`,
      weight: row.selector === '' ? '' : specificityText(row.specificity),
      value: `${row.value}${row.important ? ' !important' : ''}`,
      words: row.outcome === 'condition' ? `waits: ${row.condition}` : row.outcome === 'wins' ? '' : OUTCOMES[row.outcome],
    })),
  };
}
