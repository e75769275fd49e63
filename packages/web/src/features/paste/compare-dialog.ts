import { NgTemplateOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  computed,
  effect,
  inject,
  signal,
  untracked,
  viewChild,
  type OnDestroy,
} from '@angular/core';
import { MatSelectModule } from '@angular/material/select';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule } from '@angular/material/dialog';
import { groupEntries, type EntryGroup } from '@typikon/core/settings';
import { Store } from '@ngrx/store';
import { forkJoin, type Subscription } from 'rxjs';
import { benchFeature } from '../../state/bench';
import { wordsOf } from '../../state/ledger-words';
import { selectHouse } from '../../state/house';
import { libraryFeature } from '../../state/library';
import { proofRequest, ProofRunner } from '../../state/proof-runner';
import type { Proof } from '../../state/types';
import { workshopFeature } from '../../state/workshop';
import { SeverityMark } from '../../ui/severity-mark';
import { newParts } from '../../shared/markup/differences';
import { MarkupEditor } from '../../shared/markup/markup-editor';
import { OtherSide } from './other-side';

/** What is on the bench under the draft and beside it under something else: both results, and what only one of the ledgers has. */
@Component({
  selector: 'ty-compare-dialog',
  imports: [MatSelectModule, MatFormFieldModule, MatButtonModule, MatDialogModule, NgTemplateOutlet, SeverityMark],
  providers: [OtherSide, ProofRunner],
  templateUrl: './compare-dialog.html',
  styleUrl: './compare-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CompareDialog implements OnDestroy {
  private readonly store = inject(Store);
  private readonly runner = inject(ProofRunner);
  protected readonly other = inject(OtherSide);
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly house = this.store.selectSignal(selectHouse);
  private readonly role = this.store.selectSignal(workshopFeature.selectRole);
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  private readonly input = this.store.selectSignal(benchFeature.selectInput);
  private readonly arrival = this.store.selectSignal(benchFeature.selectArrival);
  protected readonly specimen = this.store.selectSignal(benchFeature.selectSpecimen);
  private readonly draftHost = viewChild.required<ElementRef<HTMLElement>>('draft');
  private readonly otherHost = viewChild.required<ElementRef<HTMLElement>>('beside');
  private editors: [MarkupEditor, MarkupEditor] | null = null;
  private running: Subscription | null = null;
  protected readonly proofs = signal<{ draft: Proof; other: Proof } | null>(null);
  protected readonly failure = signal('');
  protected readonly isAlike = computed(() => {
    const proofs = this.proofs();
    return proofs !== null && proofs.draft.html === proofs.other.html;
  });

  /** What only one ledger has, or has more often than the other. */
  protected readonly sides = computed(() => {
    const proofs = this.proofs();
    const counts = (proof: Proof | undefined): ReadonlyMap<string, { group: EntryGroup; count: number }> =>
      new Map(groupEntries(proof?.ledger ?? []).map((group) => [keyOf(group), { group, count: group.places.length }]));
    const [draft, other] = [counts(proofs?.draft), counts(proofs?.other)];
    const only = (one: typeof draft, two: typeof draft) =>
      [...one]
        .filter(([key, { count }]) => count > (two.get(key)?.count ?? 0))
        .map(([, { group }]) => ({ group, words: wordsOf(group, (id) => this.names().get(id) ?? id) }));
    const common = [...draft].filter(([key, { count }]) => other.get(key)?.count === count).length;
    return { draft: only(draft, other), other: only(other, draft), common };
  });

  constructor() {
    effect(() => {
      const [resolved, other] = [this.resolved(), this.other.resolved()];
      const [house, role, input, arrival] = [this.house(), this.role(), this.input(), this.arrival()];
      if (resolved === null || other === null || input === null) return;
      this.running?.unsubscribe();
      this.running = forkJoin({
        draft: this.runner.prove(proofRequest(resolved, house, role, input, arrival)),
        other: this.runner.prove(proofRequest(other, house, role, input, arrival)),
      }).subscribe({
        next: (proofs) => {
          this.failure.set('');
          this.proofs.set(proofs);
        },
        error: ({ message }: Error) => this.failure.set(message),
      });
    });
    effect(() => {
      const proofs = this.proofs();
      if (proofs === null) return;
      const { draft, other } = proofs;
      untracked(() => {
        this.editors ??= [
          new MarkupEditor(this.draftHost().nativeElement, { label: 'Markup under the draft', text: '' }),
          new MarkupEditor(this.otherHost().nativeElement, { label: 'Markup beside it', text: '' }),
        ];
        const [one, two] = this.editors;
        one.setText(draft.html);
        two.setText(other.html);
        one.setMarks(newParts(other.html, draft.html, []));
        two.setMarks(newParts(draft.html, other.html, []));
      });
    });
  }

  ngOnDestroy(): void {
    this.running?.unsubscribe();
    for (const editor of this.editors ?? []) editor.destroy();
  }

  protected chooseOther(id: string): void {
    this.other.chosen.set(id);
  }
}

/** What two entries must share to say the same, whichever profile of the two set the rule. */
function keyOf({ rule, reason, action, element, attribute, property, after }: EntryGroup): string {
  return [rule, reason, action, element, attribute, property, after].join('|');
}
