import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatTableModule } from '@angular/material/table';
import { MatButtonModule } from '@angular/material/button';
import { canDropFromNowOn, dropFromNowOn, PASSES, takeInventory, type FromNowOn, type Thing } from '@typikon/core';
import { Store } from '@ngrx/store';
import { BenchActions, benchFeature } from '../../state/bench';
import { selectHouse } from '../../state/house';
import { thingName } from '../../state/paste-words';
import { proofRequest, ProofRunner } from '../../state/proof-runner';
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
  protected readonly isBusy = computed(() => this.isWorking() || this.proof()?.input !== this.input());
  /** Passes work on pastes alone: of stored markup they drop and keep nothing. */
  protected readonly isPaste = computed(() => (this.proof()?.paste ?? null) !== null);

  private readonly left = computed(() => takeInventory(this.proof()?.html ?? ''));
  protected readonly rows = computed(() => {
    const left = this.left();
    if (this.which() === 'left') return left.map((thing) => this.rowOf(thing));
    const now = new Map(left.map((thing) => [keyOf(thing), thing.count]));
    return takeInventory(this.proof()?.input ?? '')
      .map((thing) => ({ ...thing, count: thing.count - (now.get(keyOf(thing)) ?? 0) }))
      .filter(({ count }) => count > 0)
      .map((thing) => this.rowOf(thing));
  });

  protected choose(which: Which): void {
    this.which.set(which);
    this.done.set(null);
    this.store.dispatch(BenchActions.thingChosen({ thing: null }));
  }

  protected show(thing: Thing): void {
    const key = keyOf(thing);
    this.store.dispatch(BenchActions.thingChosen({ thing: this.chosen() === key ? null : key }));
  }

  protected drop(thing: Thing): void {
    const resolved = this.resolved();
    const change = resolved === null ? null : dropFromNowOn(thing, resolved);
    if (change !== null) this.make(change, thing, 'goes');
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
    const where = [...passes.map((pass) => `§3 ${PASSES[pass].label}`), ...(changesRules ? ['§2 Markup'] : [])].join(' and ');
    this.edit.patch(patch, `${name} ${becomes}`);
    this.done.set({ sentence: `From now on ${name} ${becomes}: ${where}.`, isUndoable: true });
  }

  private rowOf(thing: Thing) {
    return {
      thing,
      key: keyOf(thing),
      name: thingName(thing),
      values: thing.kind === 'style' || thing.kind === 'attribute' ? thing.values.slice(0, 3).join(', ') : '',
      canDrop: canDropFromNowOn(thing),
    };
  }
}

function keyOf({ kind, name }: Pick<Thing, 'kind' | 'name'>): string {
  return `${kind} ${name}`;
}

function nameIn(thing: Thing): string {
  const { code, words } = thingName(thing);
  return thing.kind === 'link' ? `${words} ${code}`.trim() : `${code} ${words}`.trim();
}
