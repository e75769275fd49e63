import { ChangeDetectionStrategy, Component } from '@angular/core';
import { MatTableModule } from '@angular/material/table';
import { BUTTONS, SHORTCUTS } from '@typikon/core';
import { TitleLine } from '../../ui/title-line';

interface KeyRow {
  keys: string;
  does: string;
  where: string;
}

const KEYS: readonly KeyRow[] = [
  { keys: 'Ctrl+K', does: 'Find anything', where: 'everywhere but in the author’s text' },
  { keys: 'Ctrl+S', does: 'Save', where: 'workshop, house limits, content types, who writes with what, desk' },
  { keys: 'Ctrl+Z', does: 'Undo', where: 'outside a text field' },
  { keys: 'Ctrl+Shift+Z', does: 'Redo', where: 'outside a text field' },
  { keys: 'Alt+B', does: 'The view of the bench takes the whole height, and gives it back', where: 'workshop' },
  { keys: '↑ ↓ Home End', does: 'From entry to entry; Enter opens one, Tab leads into it', where: 'in the ledger' },
  { keys: 'Alt+↑, Alt+↓', does: 'Move a statement, a field, a pass or a group', where: 'on its name' },
  { keys: '← → ↑ ↓', does: 'Move the line between two panes', where: 'on the line' },
  { keys: 'Alt+F10', does: 'To the toolbar', where: 'in the author’s text' },
];

/** All keys: of the application, and those that authors have in their text where a profile does not change them. */
@Component({
  selector: 'ty-keys-page',
  imports: [MatTableModule, TitleLine],
  template: `
    <ty-title-line heading="All keys" />
    <div class="sheet" tabindex="0" role="region" aria-label="All keys">
      <table mat-table [dataSource]="rows" aria-label="All keys">
        <ng-container matColumnDef="keys">
          <th mat-header-cell *matHeaderCellDef scope="col">Keys</th>
          <td mat-cell *matCellDef="let row">
            <kbd>{{ row.keys }}</kbd>
          </td>
        </ng-container>
        <ng-container matColumnDef="does">
          <th mat-header-cell *matHeaderCellDef scope="col">What they do</th>
          <td mat-cell *matCellDef="let row">{{ row.does }}</td>
        </ng-container>
        <ng-container matColumnDef="where">
          <th mat-header-cell *matHeaderCellDef scope="col">Where</th>
          <td mat-cell *matCellDef="let row" class="ty-soft">{{ row.where }}</td>
        </ng-container>
        <tr mat-header-row *matHeaderRowDef="columns; sticky: true"></tr>
        <tr mat-row *matRowDef="let row; columns: columns"></tr>
      </table>
    </div>
  `,
  styles: `
    :host {
      display: flex;
      flex: 1;
      flex-direction: column;
      min-height: 0;
    }
    .sheet {
      flex: 1;
      overflow: auto;
      background: var(--ty-sheet);
    }
    table {
      --mat-table-header-container-height: 34px;
      --mat-table-row-item-container-height: 36px;
      --mat-table-row-item-label-text-size: 13px;

      width: 100%;
    }
    kbd {
      font: 12.5px/20px var(--ty-sans);
      font-weight: 600;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class KeysPage {
  protected readonly columns = ['keys', 'does', 'where'];
  protected readonly rows: readonly KeyRow[] = [...KEYS, ...textKeys()];
}

function textKeys(): KeyRow[] {
  const where = 'in the author’s text';
  return [
    ...BUTTONS.flatMap(({ label, key }): KeyRow[] => (key === null ? [] : [{ keys: spelled(key), does: label, where }])),
    ...SHORTCUTS.map(({ typed, makes }): KeyRow => ({
      keys: typed,
      does: `Makes ${makes}`,
      where: 'at the begin of a line, or as it is typed',
    })),
  ];
}

const SPELLED: Readonly<Record<string, string>> = { Mod: 'Ctrl', ArrowUp: '↑', ArrowDown: '↓', ArrowLeft: '←', ArrowRight: '→' };

/** `Mod-Shift-b` as `Ctrl+Shift+B`. */
function spelled(key: string): string {
  return key
    .split('-')
    .map((part) => SPELLED[part] ?? (part.length === 1 ? part.toUpperCase() : part))
    .join('+');
}
