import { ChangeDetectionStrategy, Component, computed, effect, ElementRef, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { DatePipe } from '@angular/common';
import type { EntryGroup, Keeping } from '@typikon/core';
import { Store } from '@ngrx/store';
import { BenchActions, benchFeature } from '../../state/bench';
import { passOf, wordsOf } from '../../state/ledger-words';
import { selectHouse } from '../../state/house';
import { libraryFeature } from '../../state/library';
import { proofRequest, ProofRunner } from '../../state/proof-runner';
import { workshopFeature } from '../../state/workshop';
import { WorkshopActions } from '../../state/workshop.actions';
import { ProfileEdit } from '../../shared/profile/edit';
import { Api } from '../../state/api';
import type { RuleChange } from '../../state/types';
import type { Taken } from './let-through-dialog';
import { Dialogs } from '../../ui/dialogs';
import { SeverityMark } from '../../ui/severity-mark';

/** How many places of one group are listed before the rest is offered. */
const PLACES_AT_FIRST = 20;

/** The ledger in words, by rule, what a reader misses first. Choosing a place marks it in the markup; the citation opens the rule. */
@Component({
  selector: 'ty-ledger-view',
  imports: [MatButtonModule, DatePipe, SeverityMark],
  templateUrl: './ledger-view.html',
  styleUrl: './ledger-view.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LedgerView {
  private readonly store = inject(Store);
  private readonly edit = inject(ProfileEdit);
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly api = inject(Api);
  private readonly dialogs = inject(Dialogs);
  private readonly runner = inject(ProofRunner);
  private readonly house = this.store.selectSignal(selectHouse);
  private readonly role = this.store.selectSignal(workshopFeature.selectRole);
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  private readonly groupsOf = this.store.selectSignal(benchFeature.selectGroups);
  protected readonly proof = this.store.selectSignal(benchFeature.selectProof);
  protected readonly entry = this.store.selectSignal(benchFeature.selectEntry);
  protected readonly element = this.store.selectSignal(workshopFeature.selectElement);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly openKey = signal<string | null>(null);
  private readonly shownPlaces = signal(PLACES_AT_FIRST);

  protected readonly groups = computed(() => {
    const names = this.names();
    const element = this.element();
    const ledger = this.proof()?.ledger ?? [];
    const where = ({ places }: EntryGroup): string =>
      places.length === 1 ? `line ${ledger[places[0]!]?.line}` : `${places.length} places`;
    return this.groupsOf().map((group) => ({
      ...group,
      where: where(group),
      words: wordsOf(group, (id) => names.get(id) ?? id),
      isMarked: element !== null && group.element === element,
    }));
  });
  protected readonly total = computed(() => this.proof()?.ledger.length ?? 0);

  /** What would keep the things of the open group from now on; null where this profile cannot, and while that is worked out. */
  protected readonly keeping = signal<Keeping | null>(null);

  constructor() {
    effect((onCleanup) => {
      const [resolved, proof, house, role] = [this.resolved(), this.proof(), this.house(), this.role()];
      const group = this.groupsOf().find(({ key }) => key === this.openKey());
      this.keeping.set(null);
      if (group === undefined || resolved === null || proof === null) return;
      const entries = group.places.flatMap((index) => proof.ledger[index] ?? []);
      const asked = this.runner.keeping(proofRequest(resolved, house, role, proof.input), entries).subscribe({
        next: (keeping) => this.keeping.set(keeping),
        // What is not known is not offered; what stands in the way is told by the proof.
        error: () => undefined,
      });
      onCleanup(() => asked.unsubscribe());
    });
  }

  /** Who set the rule of the open group, and when. */
  protected readonly why = signal<{ key: string; change: RuleChange | null; failure: string } | null>(null);

  protected explain(group: EntryGroup): void {
    if (this.why()?.key === group.key) {
      this.why.set(null);
      return;
    }
    const profile = group.layer === 'house-limits' ? null : (group.origin ?? null);
    if (group.layer !== 'house-limits' && profile === null) {
      this.why.set({ key: group.key, change: null, failure: '' });
      return;
    }
    this.api.ruleHistory(profile, group.rule).subscribe({
      next: (change) => this.why.set({ key: group.key, change, failure: '' }),
      error: ({ message }: Error) => this.why.set({ key: group.key, change: null, failure: message }),
    });
  }

  /** Opens the way through the house limits. */
  protected async letThrough(group: EntryGroup & { words: { sentence: string } }): Promise<void> {
    const proof = this.proof();
    if (proof === null) return;
    const data: Taken = {
      sentence: group.words.sentence,
      entries: group.places.flatMap((index) => proof.ledger[index] ?? []),
      input: proof.input,
    };
    await this.dialogs.open(async () => (await import('./let-through-dialog')).LetThroughDialog, {
      data,
      width: '720px',
      maxWidth: '94vw',
      maxHeight: '92vh',
    });
  }

  protected keep({ patch, label }: Keeping): void {
    this.edit.patch(patch, `Allowing ${label}`);
  }

  /** The entry that the focus was in last. */
  protected readonly reached = signal<string | null>(null);
  /** The one entry whose buttons Tab stops at: the arrows lead to the others (ARIA Authoring Practices, roving tabindex). */
  protected readonly stop = computed(() => {
    const [groups, reached] = [this.groups(), this.reached()];
    return groups.some(({ key }) => key === reached) ? reached : (groups[0]?.key ?? null);
  });

  /** Leads from entry to entry; from within one, up leads to its own sentence first. */
  protected walk(event: KeyboardEvent): void {
    if (event.altKey || event.ctrlKey || event.metaKey || event.shiftKey) return;
    const groups = this.groups();
    const at = groups.findIndex(({ key }) => key === this.stop());
    const isWithin = !(event.target as HTMLElement).matches('.sentence');
    const ways: Readonly<Record<string, number>> = {
      ArrowDown: Math.min(at + 1, groups.length - 1),
      ArrowUp: isWithin ? at : Math.max(at - 1, 0),
      Home: 0,
      End: groups.length - 1,
    };
    const to = ways[event.key];
    if (to === undefined || groups.length === 0) return;
    event.preventDefault();
    this.host.querySelectorAll<HTMLElement>('.sentence')[to]?.focus();
  }

  protected isOpen(group: EntryGroup): boolean {
    return this.openKey() === group.key;
  }

  protected open(group: EntryGroup): void {
    if (this.isOpen(group)) {
      this.openKey.set(null);
      this.store.dispatch(BenchActions.entryChosen({ index: null }));
      return;
    }
    this.openKey.set(group.key);
    this.shownPlaces.set(PLACES_AT_FIRST);
    this.showPlace(group, group.places[0]!);
  }

  protected showPlace(group: EntryGroup, index: number): void {
    // The rule first: choosing a rule alone would mark all that it touched instead of this place.
    if (group.element !== '' && passOf(group) === null) this.openRule(group);
    this.store.dispatch(BenchActions.entryChosen({ index }));
  }

  protected openRule(group: EntryGroup): void {
    const pass = passOf(group);
    if (pass !== null) {
      this.store.dispatch(WorkshopActions.chapterChosen({ chapter: 'paste' }));
      this.store.dispatch(BenchActions.passChosen({ pass }));
      this.store.dispatch(BenchActions.lowerChosen({ lower: 'ledger' }));
      return;
    }
    const { element } = group;
    this.store.dispatch(WorkshopActions.elementChosen({ element: element === '' ? null : element }));
    if (element === '') this.store.dispatch(WorkshopActions.chapterChosen({ chapter: 'markup' }));
  }

  protected places(group: EntryGroup) {
    const ledger = this.proof()?.ledger ?? [];
    return group.places.slice(0, this.shownPlaces()).flatMap((index) => {
      const entry = ledger[index];
      return entry === undefined ? [] : [{ index, line: entry.line, before: entry.before.replace(/\s+/g, ' ').slice(0, 90) }];
    });
  }

  protected hidden(group: EntryGroup): number {
    return Math.max(0, group.places.length - this.shownPlaces());
  }

  protected showMore(): void {
    this.shownPlaces.update((shown) => shown + 200);
  }
}
