import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { MatTableModule } from '@angular/material/table';
import type { LookGroup, RuleNote } from '@typikon/core';
import type { Shown } from '../../state/pages';
import { LookByBoth } from './look-by-both';
import { LooksStore, type LookingText } from './looks-store';

/** So many texts of a change are listed at once. */
const MOST_LISTED = 100;

/** How stored texts would look on pages that change: how many, by which declaration, and each text by both. */
@Component({
  selector: 'ty-looks-view',
  imports: [LookByBoth, MatButtonModule, MatProgressBarModule, MatTableModule],
  templateUrl: './looks-view.html',
  styleUrl: './reach-view.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LooksView {
  /** Pages as readers see them, and as they would. */
  readonly before = input.required<Shown>();
  readonly after = input.required<Shown>();
  /** The number of the last edition. */
  readonly edition = input.required<number>();
  protected readonly looks = inject(LooksStore);
  protected readonly columns = ['what', 'texts', 'letters', 'who'];
  protected readonly same = (_: number, row: { group: LookGroup }): string => row.group.key;
  protected readonly groups = computed(() =>
    this.looks.sum().groups.map((group) => ({ group, words: wordsOf(group), cite: ruleOf(group) })),
  );
  private readonly chosen = signal('');
  protected readonly open = computed(() => {
    const groups = this.groups();
    return (groups.find(({ group }) => group.key === this.chosen()) ?? groups[0])?.group ?? null;
  });
  protected readonly listed = computed(() => {
    const differing = this.looks.differing();
    const texts = this.open()?.texts.map((at) => differing[at]!) ?? [];
    return [...texts].sort((one, other) => other.differing - one.differing || one.title.localeCompare(other.title)).slice(0, MOST_LISTED);
  });
  protected readonly more = computed(() => (this.open()?.texts.length ?? 0) - this.listed().length);
  protected readonly text = linkedSignal<readonly LookingText[], LookingText | null>({
    source: this.listed,
    computation: (listed, before) => listed.find(({ id }) => id === before?.value?.id) ?? listed[0] ?? null,
  });
  protected readonly progress = computed(() => (this.looks.texts() === 0 ? 0 : (100 * this.looks.looked()) / this.looks.texts()));

  protected choose({ key }: LookGroup): void {
    this.chosen.set(key);
  }
}

/** What looks different, in a few words: a property, or what a declaration of several says. */
export function wordsOf({ element, properties, rule, was }: LookGroup): string {
  const [first, ...others] = properties;
  if (first === undefined) return '';
  const { property, before, after } = first;
  if (others.length === 0) return `${property} of ${element}: ${before} becomes ${after}`;
  const names = properties.map((one) => one.property);
  const shared = sharedBegin(names);
  const told = shared === '' ? `${names.slice(0, 3).join(', ')}${names.length > 3 ? ' …' : ''}` : shared;
  return `${told} of ${element}: ${was?.value ?? before} becomes ${rule?.value ?? after}`;
}

/** The words with which all of them begin, as property names have them; empty for none. */
function sharedBegin(names: readonly string[]): string {
  const parts = names.map((name) => name.split('-'));
  const [first = []] = parts;
  const length = first.findIndex((part, at) => parts.some((other) => other[at] !== part));
  return first.slice(0, length === -1 ? first.length : length).join('-');
}

/** The rule that decides now, and the one that decided where it is another. */
export function ruleOf({ rule, was }: LookGroup): string {
  const told = (note: RuleNote | null): string =>
    note === null ? 'the browser’s own' : `${note.sheet}, line ${note.line}, ${note.selector}`;
  const [now, then] = [told(rule), told(was)];
  return now === then ? now : `${now}; before: ${then}`;
}
