import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { MatSelectModule } from '@angular/material/select';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { selectHouse } from '../../state/house';
import { libraryFeature } from '../../state/library';
import { TitleLine } from '../../ui/title-line';
import { CompareStore, lineKey, type Compared } from './compare-store';

/** What is told of a comparison: lines of one side, or all. */
type Showing = 'all' | 'from' | 'to';
type Side = 'from' | 'to';

/** Two profiles side by side: what each keeps that the other takes, each line with an example that proves it. */
@Component({
  selector: 'ty-compare-page',
  imports: [
    MatButtonModule,
    MatButtonToggleModule,
    MatCheckboxModule,
    MatFormFieldModule,
    MatProgressBarModule,
    MatSelectModule,
    RouterLink,
    TitleLine,
  ],
  providers: [CompareStore],
  templateUrl: './compare-page.html',
  styleUrl: './compare-page.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ComparePage {
  /** The ids of the profiles and the numbers of their states, from the address. */
  readonly from = input<string>();
  readonly to = input<string>();
  readonly fromRevision = input<string>();
  readonly toRevision = input<string>();
  protected readonly compared = inject(CompareStore);
  private readonly router = inject(Router);
  private readonly store = inject(Store);
  private readonly house = this.store.selectSignal(selectHouse);
  protected readonly profiles = this.store.selectSignal(libraryFeature.selectProfiles);
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  protected readonly one = computed((): Compared => ({
    id: this.from() ?? this.profiles()[0]?.id ?? '',
    revision: revisionOf(this.fromRevision()),
  }));
  protected readonly other = computed((): Compared => ({
    // With one profile alone there are its own earlier states to look at.
    id: this.to() ?? this.profiles().find(({ id }) => id !== this.one().id)?.id ?? this.one().id,
    revision: revisionOf(this.toRevision()),
  }));
  protected readonly sides = computed(() =>
    (['from', 'to'] as const).map((side) => {
      const compared = side === 'from' ? this.one() : this.other();
      const revisions = this.compared.revisions()[compared.id] ?? [];
      return {
        side,
        compared,
        label: side === 'from' ? 'One profile' : 'The other profile',
        // The latest is the one that holds.
        states: revisions.slice(1).map(({ revision, savedAt }) => ({ revision, words: `revision ${revision}, ${dateOf(savedAt)}` })),
      };
    }),
  );
  protected readonly isSame = computed(() => sameState(this.one(), this.other()));
  protected readonly showing = signal<Showing>('all');
  /** Only lines whose thing stands in a stored document. */
  protected readonly onlyStored = signal(false);
  protected readonly open = signal(0);
  protected readonly counts = computed(() => {
    const lines = this.compared.lines() ?? [];
    const from = lines.filter(({ kept }) => kept === 'from').length;
    return { all: lines.length, from, to: lines.length - from };
  });
  protected readonly shown = computed(() => {
    const [showing, onlyStored, found] = [this.showing(), this.onlyStored(), this.compared.found()];
    const isBegun = this.compared.counted() > 0;
    return (this.compared.lines() ?? [])
      .filter(({ kept }) => showing === 'all' || kept === showing)
      .map((line) => {
        const isOfPaste = line.subject.kind === 'pass';
        const documents = isOfPaste ? 0 : (found.get(lineKey(line)) ?? 0);
        return { line, documents, words: isOfPaste ? 'acts on what is pasted' : isBegun ? documentsWords(documents) : '' };
      })
      .filter(({ documents }) => !onlyStored || documents > 0);
  });
  protected readonly chosen = computed(() => this.shown()[this.open()]?.line ?? this.shown()[0]?.line ?? null);

  constructor() {
    effect(() => {
      const [one, other] = [this.one(), this.other()];
      this.profiles();
      this.house();
      if (one.id !== '' && other.id !== '') untracked(() => void this.compared.compare(one, other));
      this.open.set(0);
    });
  }

  protected name({ id, revision }: Compared): string {
    const name = this.names().get(id) ?? id;
    return revision === null ? name : `${name}, revision ${revision}`;
  }

  protected choose(side: Side, id: string, revision: number | null): void {
    const [from, to] = side === 'from' ? [{ id, revision }, this.other()] : [this.one(), { id, revision }];
    this.go(from, to);
  }

  protected swap(): void {
    this.go(this.other(), this.one());
  }

  private go(from: Compared, to: Compared): void {
    const queryParams = { from: from.id, fromRevision: from.revision, to: to.id, toRevision: to.revision };
    void this.router.navigate(['/compare'], { queryParams });
  }

  protected show(showing: Showing): void {
    this.showing.set(showing);
    this.open.set(0);
  }
}

const revisionOf = (text: string | undefined): number | null => (text !== undefined && /^[1-9]\d{0,8}$/.test(text) ? Number(text) : null);

const sameState = (one: Compared, other: Compared): boolean => one.id === other.id && one.revision === other.revision;

const documentsWords = (count: number): string =>
  count === 0 ? 'in no stored document' : count === 1 ? 'in one stored document' : `in ${count.toLocaleString('en')} stored documents`;

const dateOf = (moment: string): string =>
  new Date(moment).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });
