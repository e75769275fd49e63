import { ChangeDetectionStrategy, Component, computed, effect, inject, signal } from '@angular/core';
import { MatTableModule } from '@angular/material/table';
import { MatButtonModule } from '@angular/material/button';
import { canDropFromNowOn, PASS_WORDS, type FromNowOn, type Thing } from '@typikon/core/settings';
import { Store } from '@ngrx/store';
import { BenchActions, benchFeature } from '../../state/bench';
import { selectHouse } from '../../state/house';
import { keyOfThing, thingName } from '../../state/paste-words';
import { proofRequest, ProofRunner, underProfile } from '../../state/proof-runner';
import type { Proof } from '../../state/types';
import { workshopFeature } from '../../state/workshop';
import { WorkshopActions } from '../../state/workshop.actions';
import { ProfileEdit } from '../../shared/profile/edit';

type Which = 'left' | 'gone';

/** An inventory of the result, beside plain words in paragraphs; each line can be taken away, or what went be kept, from now on. */
@Component({
  selector: 'ty-left-view',
  imports: [MatTableModule, MatButtonModule],
  templateUrl: './left-view.html',
  styleUrl: './left-view.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LeftView {
  protected readonly columns = ['what', 'count', 'values', 'acts'];
  protected readonly same = (_: number, row: { key: string }): string => row.key;
  private readonly store = inject(Store);
  private readonly edit = inject(ProfileEdit);
  private readonly runner = inject(ProofRunner);
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly house = this.store.selectSignal(selectHouse);
  private readonly role = this.store.selectSignal(workshopFeature.selectRole);
  private readonly arrival = this.store.selectSignal(benchFeature.selectArrival);
  private readonly proof = this.store.selectSignal(benchFeature.selectProof);
  protected readonly chosen = this.store.selectSignal(benchFeature.selectThing);
  protected readonly which = signal<Which>('left');
  /** What was done here last, in words. */
  protected readonly done = signal<{ sentence: string; isUndoable: boolean } | null>(null);
  private readonly isWorking = signal(false);
  private readonly input = this.store.selectSignal(benchFeature.selectInput);
  /** Nothing is done to things of what was on the bench before: the list of what is there now is on its way. */
  protected readonly isBusy = computed(
    () => this.isWorking() || this.proof()?.input !== this.input() || this.inventories()?.of !== this.proof(),
  );
  /** Passes work on pastes alone: of stored markup they drop and keep nothing. */
  protected readonly isPaste = computed(() => (this.proof()?.paste ?? null) !== null);

  /** What stands in what came in and in what is stored of it, with the proof that it was listed for. */
  private readonly inventories = signal<{ of: Proof; came: readonly Thing[]; left: readonly Thing[] } | null>(null);
  protected readonly isListed = computed(() => this.inventories() !== null);
  private readonly left = computed(() => this.inventories()?.left ?? []);
  protected readonly rows = computed(() => {
    const left = this.left();
    if (this.which() === 'left') return left.map((thing) => this.rowOf(thing));
    const now = new Map(left.map((thing) => [keyOfThing(thing), thing.count]));
    return (this.inventories()?.came ?? [])
      .map((thing) => ({ ...thing, count: thing.count - (now.get(keyOfThing(thing)) ?? 0) }))
      .filter(({ count }) => count > 0)
      .map((thing) => this.rowOf(thing));
  });

  constructor() {
    effect((onCleanup) => {
      const proof = this.proof();
      if (proof === null) return;
      const asked = this.runner.inventories(proof.input, proof.html).subscribe({
        next: ([came = [], left = []]) => this.inventories.set({ of: proof, came, left }),
        error: ({ message }: Error) => this.done.set({ sentence: message, isUndoable: false }),
      });
      onCleanup(() => asked.unsubscribe());
    });
  }

  protected choose(which: Which): void {
    this.which.set(which);
    this.done.set(null);
    this.store.dispatch(BenchActions.thingChosen({ thing: null }));
  }

  protected show(thing: Thing): void {
    const key = keyOfThing(thing);
    this.store.dispatch(BenchActions.thingChosen({ thing: this.chosen() === key ? null : key }));
  }

  protected drop(thing: Thing): void {
    const resolved = this.resolved();
    if (resolved === null) return;
    this.isWorking.set(true);
    this.runner.drop({ ...underProfile(resolved, this.house(), this.role()), names: [] }, thing).subscribe({
      next: (change) => {
        this.isWorking.set(false);
        if (change !== null) this.make(change, thing, 'goes');
      },
      error: ({ message }: Error) => {
        this.isWorking.set(false);
        this.done.set({ sentence: message, isUndoable: false });
      },
    });
  }

  protected keep(thing: Thing): void {
    const [resolved, proof] = [this.resolved(), this.proof()];
    if (resolved === null || proof === null) return;
    this.isWorking.set(true);
    const name = nameIn(thing);
    this.runner.keep(proofRequest(resolved, this.house(), this.role(), proof.input, this.arrival()), thing).subscribe({
      next: (change) => {
        this.isWorking.set(false);
        if (change !== null) this.make(change, thing, 'stays');
        else
          this.done.set({
            sentence: `No rule of this profile keeps ${name}: the house limits or the safety floor take it.`,
            isUndoable: false,
          });
      },
      error: ({ message }: Error) => {
        this.isWorking.set(false);
        this.done.set({ sentence: message, isUndoable: false });
      },
    });
  }

  protected undo(): void {
    this.store.dispatch(WorkshopActions.undoPressed());
    this.done.set(null);
  }

  private make({ patch, passes, changesRules }: FromNowOn, thing: Thing, becomes: 'goes' | 'stays'): void {
    const name = nameIn(thing);
    const where = [...passes.map((pass) => `§3 ${PASS_WORDS[pass].label}`), ...(changesRules ? ['§2 Markup'] : [])].join(' and ');
    this.edit.patch(patch, `${name} ${becomes}`);
    this.done.set({ sentence: `From now on ${name} ${becomes}: ${where}.`, isUndoable: true });
  }

  private rowOf(thing: Thing) {
    return {
      thing,
      key: keyOfThing(thing),
      name: thingName(thing),
      values: thing.kind === 'style' || thing.kind === 'attribute' ? thing.values.slice(0, 3).join(', ') : '',
      canDrop: canDropFromNowOn(thing),
    };
  }
}

function nameIn(thing: Thing): string {
  const { code, words } = thingName(thing);
  return thing.kind === 'link' ? `${words} ${code}`.trim() : `${code} ${words}`.trim();
}
