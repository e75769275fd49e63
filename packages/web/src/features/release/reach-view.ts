import { NgTemplateOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  contentChild,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
  type TemplateRef,
  untracked,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { MatTableModule } from '@angular/material/table';
import type { ReachGroup } from '@typikon/core/settings';
import { Acting } from '../../state/acting';
import type { TouchedText } from '../../state/reach';
import { citation, whatGoes, writersOf } from './reach-words';
import { ReachStore } from './reach-store';
import { TextByBoth } from './text-by-both';

/** So many texts of a group are listed at once. */
const MOST_LISTED = 100;

/** What releasing drafts would do to every stored text: how many, what goes by rule and by harm, and each text by both. */
@Component({
  selector: 'ty-reach-view',
  imports: [MatButtonModule, MatProgressBarModule, MatTableModule, NgTemplateOutlet, TextByBoth],
  templateUrl: './reach-view.html',
  styleUrl: './reach-view.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReachView {
  /** What is said where there is no text that could change. */
  readonly nothingStored = input.required<string>();
  /** What the two results of a text are called. */
  readonly heads = input.required<readonly [string, string]>();
  /** Texts that are left as they are, by document and field. */
  readonly marked = input<ReadonlySet<string>>(new Set());
  /** What can be done with the texts of the open group, as a template that is given the group. */
  protected readonly acts = contentChild<TemplateRef<{ $implicit: ReachGroup }>>('acts');
  protected readonly reach = inject(ReachStore);
  private readonly acting = inject(Acting);
  /** What the number of texts is the number of. */
  protected readonly counted = computed(() => {
    const [texts, candidates] = [this.reach.texts(), this.reach.candidates()];
    if (!this.reach.isLooked()) return 'texts are stored';
    return candidates === texts
      ? 'texts, all looked at'
      : `texts; ${candidates === 0 ? 'none holds what changed' : candidates === 1 ? 'one could change' : `${candidates} could change`}`;
  });
  /** How many come out differently: counted, or between what and what it is. */
  protected readonly differing = computed(() => {
    const { least, most } = this.reach.bounds();
    return least === most ? String(most) : `${least} to ${most}`;
  });
  protected readonly groups = computed(() => {
    const [touched, people] = [this.reach.touched(), this.acting.people()];
    return this.reach
      .sum()
      .groups.map((group) => ({ group, words: whatGoes(group), writers: writersOf(group, touched, people), cite: citation(group) }));
  });
  protected readonly columns = ['what', 'texts', 'letters', 'who'];
  protected readonly same = (_: number, row: { group: ReachGroup }): string => row.group.key;
  /** The group that is open, by key. */
  private readonly chosen = signal('');
  protected readonly open = computed(() => {
    const groups = this.groups();
    return (groups.find(({ group }) => group.key === this.chosen()) ?? groups[0])?.group ?? null;
  });
  protected readonly listed = computed(() => {
    const [open, touched] = [this.open(), this.reach.touched()];
    const texts = open?.documents.map((at) => touched[at]!) ?? [];
    // Those that lose most stand first.
    return [...texts]
      .sort((one, other) => other.reach.wordsLost - one.reach.wordsLost || one.title.localeCompare(other.title))
      .slice(0, MOST_LISTED);
  });
  protected readonly text = linkedSignal<readonly TouchedText[], TouchedText | null>({
    source: this.listed,
    computation: (listed, before) =>
      listed.find((one) => one.document === before?.value?.document && one.field === before.value.field) ?? listed[0] ?? null,
  });
  protected readonly more = computed(() => (this.open()?.documents.length ?? 0) - this.listed().length);

  constructor() {
    effect(() => {
      const text = this.text();
      untracked(() => {
        if (text !== null) void this.reach.show(text);
      });
    });
  }

  protected choose({ key }: ReachGroup): void {
    this.chosen.set(key);
  }
}
