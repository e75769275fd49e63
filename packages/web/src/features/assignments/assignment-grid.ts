import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatTableModule } from '@angular/material/table';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';
import { SiteStore } from '../../state/site';
import { TypeIcon } from '../../ui/type-icon';

interface Cell {
  profile: string;
  others: number;
  statement: number | null;
  beaten: readonly number[];
}

/** The same statements as a grid: a line for each field, a column for each role. */
@Component({
  selector: 'ty-assignment-grid',
  imports: [MatButtonModule, MatTableModule, RouterLink, TypeIcon],
  template: `
    @if (site.types().length === 0 || site.roles().length === 0) {
      <p class="empty">
        Here stands who writes each field with what, once there are
        @if (site.types().length === 0) {
          <a routerLink="/types">content types</a>{{ site.roles().length === 0 ? ' and' : '.' }}
        }
        @if (site.roles().length === 0) {
          <a routerLink="/writing/people">roles</a>.
        }
      </p>
    } @else {
      <table mat-table [dataSource]="rows()" aria-label="Who writes with what, field by field">
        <ng-container matColumnDef="field" sticky>
          <th mat-header-cell *matHeaderCellDef>Field</th>
          <td mat-cell *matCellDef="let row" class="where">
            @if (row.isFirst) {
              <span class="type"><ty-type-icon [name]="row.icon" [colour]="row.colour" [sizePx]="15" /> {{ row.label }}</span>
            }
            <a [routerLink]="['/types', row.type, row.field]">{{ row.title }}</a>
          </td>
        </ng-container>
        @for (role of site.roles(); track role.id) {
          <ng-container [matColumnDef]="role.id">
            <th mat-header-cell *matHeaderCellDef>{{ role.label }}</th>
            <td mat-cell *matCellDef="let row">
              @if (row.cells[role.id]; as cell) {
                <button mat-button type="button" class="cell ty-plain" (click)="point(cell)">
                  <span class="ty-unseen">{{ role.label }}, {{ row.title }}: </span>{{ cell.profile }}
                  <span class="by ty-num"
                    >{{ cell.statement === null ? 'rest' : cell.statement + 1 }}{{ cell.others > 0 ? ', +' + cell.others : '' }}</span
                  >
                </button>
              } @else {
                <span class="none" aria-label="may not write here">·</span>
              }
            </td>
          </ng-container>
        }
        <tr mat-header-row *matHeaderRowDef="columns(); sticky: true"></tr>
        <tr mat-row *matRowDef="let row; columns: columns()" [class.first]="row.isFirst" [class.nobody]="row.isNobodys"></tr>
      </table>
    }
  `,
  styles: `
    :host {
      flex: 1;
      min-height: 0;
      overflow: auto;
      background: var(--ty-sheet);
    }
    table {
      --mat-table-header-container-height: 40px;
      --mat-table-row-item-container-height: 30px;
      --mat-table-header-headline-line-height: 15px;
      --mat-table-row-item-label-text-size: 12.5px;
      min-width: 100%;
    }
    th,
    td {
      padding: 3px 8px;
    }
    .where {
      min-width: 150px;
      padding-left: 16px;
    }
    th:first-child {
      padding-left: 16px;
    }
    .type {
      display: flex;
      align-items: center;
      gap: 6px;
      padding-top: 4px;
      font-weight: 600;
      white-space: nowrap;
    }
    td a {
      color: var(--ty-ink);
      text-decoration: none;
    }
    td a:hover {
      text-decoration: underline;
    }
    tr:not(.first) td {
      border-top: 0;
    }
    th {
      white-space: normal;
    }
    td {
      vertical-align: bottom;
    }
    .cell {
      padding: 1px 4px;
      border: 0;
      border-radius: 3px;
      background: none;
      font-size: 12px;
      text-align: left;
      white-space: nowrap;
      cursor: pointer;
    }
    .cell:hover {
      background: var(--ty-sunken);
    }
    .by {
      color: var(--ty-rubric);
      font-size: 11px;
      vertical-align: 3px;
    }
    .empty {
      padding: 16px 20px;
      color: var(--ty-soft);
    }
    .none {
      padding-left: 4px;
      color: var(--ty-soft);
    }
    .nobody .where a {
      color: var(--ty-ochre);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AssignmentGrid {
  readonly pointed = output<{ won: number | null; beaten: readonly number[] }>();
  protected readonly site = inject(SiteStore);
  private readonly names = inject(Store).selectSignal(libraryFeature.selectNames);
  protected readonly columns = computed(() => ['field', ...this.site.roles().map(({ id }) => id)]);
  protected readonly rows = computed(() => {
    const [assignments, names, roles] = [this.site.assignments(), this.names(), this.site.roles()];
    return this.site.types().flatMap(({ id, label, icon, colour, fields }) =>
      fields.map(({ key, title }, at) => {
        const cells: Record<string, Cell | undefined> = {};
        for (const role of roles) {
          const { profile, choices, statement, beaten } = assignments.why({ roles: [role.id], type: id, field: key });
          if (profile !== null) cells[role.id] = { profile: names.get(profile) ?? profile, others: choices.length - 1, statement, beaten };
        }
        return { type: id, label, icon, colour, field: key, title, isFirst: at === 0, cells, isNobodys: Object.keys(cells).length === 0 };
      }),
    );
  });

  protected point({ statement, beaten }: Cell): void {
    this.pointed.emit({ won: statement, beaten });
  }
}
