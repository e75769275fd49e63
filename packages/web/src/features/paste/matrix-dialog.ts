import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked, type OnDestroy } from '@angular/core';
import { MatTableModule } from '@angular/material/table';
import { MatSelectModule } from '@angular/material/select';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { passOrder, PASS_WORDS, type ResolvedProfile } from '@typikon/core/settings';
import { Store } from '@ngrx/store';
import type { Subscription } from 'rxjs';
import { BenchActions } from '../../state/bench';
import { selectHouse } from '../../state/house';
import { libraryFeature } from '../../state/library';
import { overtakenWords } from '../../state/paste-words';
import { isAtWork } from '../../state/paste-survey';
import { ProofRunner, underProfile } from '../../state/proof-runner';
import type { MatrixRow } from '../../state/types';
import { workshopFeature } from '../../state/workshop';
import { OtherSide } from './other-side';

type Side = 'draft' | 'other';

const figuresOf = (side: 'draft' | 'other'): string[] => ['kept', 'changed', 'lost', 'met'].map((figure) => `${side}-${figure}`);

/** All specimens through the draft, beside what was saved last or another profile: what is kept, changed and lost, and what is as expected. */
@Component({
  selector: 'ty-matrix-dialog',
  imports: [MatSelectModule, MatFormFieldModule, MatButtonModule, MatDialogModule, MatProgressBarModule, MatTableModule],
  providers: [OtherSide],
  templateUrl: './matrix-dialog.html',
  styleUrl: './matrix-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MatrixDialog implements OnDestroy {
  private readonly store = inject(Store);
  private readonly runner = inject(ProofRunner);
  private readonly dialog = inject<MatDialogRef<MatrixDialog>>(MatDialogRef);
  protected readonly other = inject(OtherSide);
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly house = this.store.selectSignal(selectHouse);
  private readonly role = this.store.selectSignal(workshopFeature.selectRole);
  protected readonly specimens = this.store.selectSignal(libraryFeature.selectSpecimens);
  private readonly rows = signal<Readonly<Record<Side, ReadonlyMap<string, MatrixRow>>>>({ draft: new Map(), other: new Map() });
  private readonly running = signal<readonly Subscription[]>([]);
  protected readonly failure = signal('');
  protected readonly isRunning = computed(() => this.running().some(({ closed }) => !closed) && this.done() < this.all());
  protected readonly all = computed(() => this.specimens().length * 2);
  protected readonly done = computed(() => this.rows().draft.size + this.rows().other.size);
  protected readonly isStopped = signal(false);

  protected readonly table = computed(() => {
    const { draft, other } = this.rows();
    return this.specimens().map((specimen) => {
      const [one, two] = [draft.get(specimen.id), other.get(specimen.id)];
      return {
        specimen,
        draft:
          one === undefined
            ? null
            : {
                ...one,
                vain: one.overtaken
                  .filter(({ how }) => how === 'undone')
                  .map(overtakenWords)
                  .join(' '),
              },
        other: two ?? null,
        isOther: one !== undefined && two !== undefined && one.html !== two.html,
      };
    });
  });
  protected readonly sides = ['draft', 'other'] as const;
  protected readonly figures = { draft: figuresOf('draft'), other: figuresOf('other') };
  protected readonly same = (_: number, { specimen }: { specimen: { id: string } }): string => specimen.id;
  protected readonly sums = computed(() => {
    const sum = (rows: ReadonlyMap<string, MatrixRow>) => {
      const all = [...rows.values()];
      return {
        met: all.reduce((total, { expectationsMet }) => total + expectationsMet, 0),
        expectations: all.reduce((total, { expectations }) => total + expectations, 0),
        lost: all.reduce((total, { lost }) => total + lost, 0),
      };
    };
    return {
      draft: sum(this.rows().draft),
      other: sum(this.rows().other),
      differing: this.table().filter(({ isOther }) => isOther).length,
    };
  });
  /** Passes that are on and change nothing on any specimen. */
  protected readonly idle = computed(() => {
    const resolved = this.resolved();
    const { draft } = this.rows();
    if (resolved === null || draft.size < this.specimens().length) return [];
    const working = new Set([...draft.values()].flatMap(({ passes }) => Object.keys(passes)));
    const { passes } = resolved.profile.paste;
    return passOrder(resolved)
      .filter((id) => isAtWork(passes, id) && !working.has(id))
      .map((id) => PASS_WORDS[id].label);
  });

  constructor() {
    effect(() => {
      const [resolved, other] = [this.resolved(), this.other.resolved()];
      untracked(() => this.start(resolved, other));
    });
  }

  ngOnDestroy(): void {
    this.end();
  }

  protected again(): void {
    this.start(this.resolved(), this.other.resolved());
  }

  protected stop(): void {
    this.end();
    this.isStopped.set(true);
  }

  protected chooseOther(id: string): void {
    this.other.chosen.set(id);
  }

  protected show(id: string): void {
    const specimen = this.specimens().find((candidate) => candidate.id === id);
    if (specimen !== undefined) this.store.dispatch(BenchActions.specimenChosen({ specimen }));
    this.dialog.close();
  }

  private start(resolved: ResolvedProfile | null, other: ResolvedProfile | null): void {
    this.end();
    this.isStopped.set(false);
    this.failure.set('');
    this.rows.set({ draft: new Map(), other: new Map() });
    const [house, role, specimens] = [this.house(), this.role(), this.specimens()];
    const run = (side: Side, profile: ResolvedProfile, next: () => void): void => {
      const subscription = this.runner.matrix({ ...underProfile(profile, house, role), specimens, isQuick: side === 'other' }).subscribe({
        next: (row) => this.rows.update((all) => ({ ...all, [side]: new Map(all[side]).set(row.specimenId, row) })),
        error: ({ message }: Error) => this.failure.set(message),
        complete: next,
      });
      this.running.update((all) => [...all, subscription]);
    };
    // One after the other: two workers at once would only take turns.
    if (resolved !== null)
      run('draft', resolved, () => {
        if (other !== null) run('other', other, () => undefined);
      });
  }

  private end(): void {
    for (const subscription of this.running()) subscription.unsubscribe();
    this.running.set([]);
  }
}
