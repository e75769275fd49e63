import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';
import { MatTableModule } from '@angular/material/table';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { Api, type ApiFailure } from '../../state/api';
import { ContractClient } from '../../state/contract-client';
import { libraryFeature } from '../../state/library';
import { TimeChart } from '../chart/time-chart';
import { likenessPast, percentOf, type PastFigure, type PastSave } from './likeness-past';

export interface LikenessPastOf {
  profileId: string;
  pageKindId: string;
}

/** How alike the editor and the page were over time, with what changed between: as a chart and as a table. */
@Component({
  selector: 'ty-likeness-past-dialog',
  imports: [DatePipe, MatButtonModule, MatDialogModule, MatTableModule, TimeChart],
  template: `
    <h2 mat-dialog-title>{{ profileName() }} on {{ pageName() }}, over time</h2>
    <mat-dialog-content>
      @if (failure(); as failure) {
        <p class="ty-notice bad" role="alert">{{ failure }}</p>
      } @else if (past() === null) {
        <p role="status">Reading what was counted …</p>
      } @else if (past()!.length === 0) {
        <p role="status">Nothing was counted yet: no text that is published on this kind of page is written with the profile.</p>
      } @else {
        <p class="ty-soft">The share of elements that look the same while they are written and on the page.</p>
        <ty-time-chart [label]="label()" [points]="points()" [range]="range()" [written]="written" />
        <table mat-table class="ty-dense" [dataSource]="rows()" aria-label="The same in figures, the newest first">
          <ng-container matColumnDef="at">
            <th mat-header-cell *matHeaderCellDef scope="col">Counted</th>
            <td mat-cell *matCellDef="let row" class="ty-num">{{ row.at | date: 'd MMM y, HH:mm' }}</td>
          </ng-container>
          <ng-container matColumnDef="share">
            <th mat-header-cell *matHeaderCellDef scope="col">Look the same</th>
            <td mat-cell *matCellDef="let row" class="ty-num">{{ written(row.share) }}, {{ row.alike }} of {{ row.elements }}</td>
          </ng-container>
          <ng-container matColumnDef="causes">
            <th mat-header-cell *matHeaderCellDef scope="col">Causes</th>
            <td mat-cell *matCellDef="let row" class="ty-num">{{ row.causes }}</td>
          </ng-container>
          <ng-container matColumnDef="changes">
            <th mat-header-cell *matHeaderCellDef scope="col">What changed before</th>
            <td mat-cell *matCellDef="let row">
              @for (change of row.changes; track change) {
                <div>{{ change }}</div>
              } @empty {
                <span class="ty-soft">{{ row === rows().at(-1) ? 'the first count' : 'only texts' }}</span>
              }
            </td>
          </ng-container>
          <tr mat-header-row *matHeaderRowDef="columns"></tr>
          <tr mat-row *matRowDef="let row; columns: columns"></tr>
        </table>
      }
    </mat-dialog-content>
    <mat-dialog-actions><button mat-stroked-button type="button" mat-dialog-close>Close</button></mat-dialog-actions>
  `,
  styles: `
    table {
      width: 100%;
      margin-top: 12px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LikenessPastDialog {
  private readonly of = inject<LikenessPastOf>(MAT_DIALOG_DATA);
  private readonly api = inject(Api);
  private readonly client = inject(ContractClient);
  private readonly store = inject(Store);
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  private readonly pageKinds = this.store.selectSignal(libraryFeature.selectPageKinds);
  private readonly profiles = this.store.selectSignal(libraryFeature.selectProfiles);
  protected readonly columns = ['at', 'share', 'causes', 'changes'];
  protected readonly written = percentOf;
  protected readonly failure = signal('');
  protected readonly past = signal<readonly PastFigure[] | null>(null);
  protected readonly rows = computed(() => [...(this.past() ?? [])].reverse());
  protected readonly profileName = computed(() => this.names().get(this.of.profileId) ?? this.of.profileId);
  protected readonly pageName = computed(() => this.pageKinds().find(({ id }) => id === this.of.pageKindId)?.name ?? this.of.pageKindId);
  protected readonly points = computed(() => (this.past() ?? []).map(({ at, share, changes }) => ({ at, value: share, told: changes })));
  /** Down to the next ten percent below the least. */
  protected readonly range = computed((): readonly [number, number] => {
    const least = Math.min(...this.points().map(({ value }) => value));
    return [Math.max(0, Math.floor(least * 10 - 1e-9) / 10), 1];
  });
  protected readonly label = computed(() => {
    const points = this.points();
    const [first, last] = [points.at(0), points.at(-1)];
    if (first === undefined || last === undefined) return '';
    return points.length === 1
      ? `One count: ${percentOf(last.value)}.`
      : `${points.length} counts, from ${percentOf(first.value)} at first to ${percentOf(last.value)} now. The table below has them all.`;
  });

  constructor() {
    void this.read();
  }

  private async read(): Promise<void> {
    const { profileId, pageKindId } = this.of;
    try {
      const figures = (await firstValueFrom(this.api.likenessFigures())).filter(
        (figure) => figure.profileId === profileId && figure.pageKindId === pageKindId,
      );
      this.past.set(likenessPast(figures, await this.saves()));
    } catch (failure) {
      this.failure.set(`What was counted cannot be read. ${(failure as ApiFailure).message}`);
    }
  }

  /** The saves of the profile with those it extends, and of the stylesheets of the kind of page. */
  private async saves(): Promise<PastSave[]> {
    const chain: string[] = [];
    for (let at: unknown = this.of.profileId; typeof at === 'string' && !chain.includes(at);) {
      chain.push(at);
      at = this.profiles().find(({ id }) => id === at)?.document['extends'];
    }
    const sheets = this.pageKinds().find(({ id }) => id === this.of.pageKindId)?.stylesheets ?? [];
    const ofProfiles = chain.map(async (id) => {
      const { body } = await firstValueFrom(this.client.get('/profiles/{id}/revisions', {}, { id }));
      return body.map(({ savedAt }): PastSave => ({ what: this.names().get(id) ?? id, savedAt, note: '' }));
    });
    const ofSheets = sheets.map(async (id) =>
      (await firstValueFrom(this.api.stylesheetVersions(id))).map(({ savedAt, note }): PastSave => ({ what: `${id}.css`, savedAt, note })),
    );
    return (await Promise.all([...ofProfiles, ...ofSheets])).flat();
  }
}
