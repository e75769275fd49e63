import { Injectable, computed, effect, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Overtaken, PassId, PastePasses } from '@typikon/core';
import type { Subscription } from 'rxjs';
import { benchFeature } from './bench';
import { selectHouse } from './house';
import { libraryFeature } from './library';
import { proofRequest, ProofRunner, underProfile } from './proof-runner';
import type { MatrixRow } from './types';
import { workshopFeature } from './workshop';

/** So long nothing may change before all specimens are run: the live proof comes first. */
const PAUSE_MS = 900;

/** Runs all specimens in the background while the paste chapter is open: which passes do anything, and which work in vain. */
@Injectable({ providedIn: 'root' })
export class PasteSurvey {
  private readonly store = inject(Store);
  /** A worker of its own: what runs in the background never makes the live proof wait. */
  private readonly runner = new ProofRunner();
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly chapter = this.store.selectSignal(workshopFeature.selectChapter);
  private readonly role = this.store.selectSignal(workshopFeature.selectRole);
  private readonly house = this.store.selectSignal(selectHouse);
  private readonly specimens = this.store.selectSignal(libraryFeature.selectSpecimens);
  private readonly input = this.store.selectSignal(benchFeature.selectInput);
  private readonly arrival = this.store.selectSignal(benchFeature.selectArrival);
  private readonly rows = signal<readonly MatrixRow[] | null>(null);

  /** The passes that work in vain on what is on the bench. */
  readonly overtaken = signal<readonly Overtaken[]>([]);
  /** How much each pass that is off would find on what is on the bench; null while that is not known. */
  readonly would = signal<Partial<Record<PassId, number>> | null>(null);
  /** The passes that change something on some specimen; null while that is not known. */
  readonly worksOn = computed((): ReadonlySet<PassId> | null => {
    const rows = this.rows();
    return rows === null ? null : new Set(rows.flatMap(({ passes }) => Object.keys(passes) as PassId[]));
  });

  constructor() {
    effect((onCleanup) => {
      const resolved = this.resolved();
      const [house, role, specimens, input, arrival] = [this.house(), this.role(), this.specimens(), this.input(), this.arrival()];
      if (this.chapter() !== 'paste' || resolved === null || input === null) {
        this.overtaken.set([]);
        this.would.set(null);
        return;
      }
      const running: Subscription[] = [];
      const timer = setTimeout(() => {
        const rows: MatrixRow[] = [];
        running.push(
          this.runner.would(proofRequest(resolved, house, role, input, arrival)).subscribe({
            next: (found) => this.would.set(found),
            error: () => this.would.set(null),
          }),
          this.runner.overtaken(proofRequest(resolved, house, role, input, arrival)).subscribe({
            next: (found) => this.overtaken.set(found),
            // What is not known is not said; the proof itself tells what is wrong.
            error: () => this.overtaken.set([]),
          }),
          this.runner.matrix({ ...underProfile(resolved, house, role), specimens, isQuick: true }).subscribe({
            next: (row) => rows.push(row),
            complete: () => this.rows.set(rows),
            error: () => this.rows.set(null),
          }),
        );
      }, PAUSE_MS);
      onCleanup(() => {
        clearTimeout(timer);
        for (const one of running) one.unsubscribe();
      });
    });
  }
}

/** Whether a pass is on and has something to do: one that replaces nothing yet rests. */
export function isAtWork(passes: PastePasses, id: PassId): boolean {
  return passes[id].on && (id !== 'find-replace' || passes['find-replace'].rules.length > 0);
}
