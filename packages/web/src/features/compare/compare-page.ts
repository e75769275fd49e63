import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatSelectModule } from '@angular/material/select';
import { Router, RouterLink } from '@angular/router';
import type { ComparisonLine } from '@typikon/core';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';
import { SiteWorker } from '../../state/site-worker';
import { TitleLine } from '../../ui/title-line';

/** What is told of a comparison: lines of one side, or all. */
type Showing = 'all' | 'from' | 'to';

/** Two profiles side by side: what each keeps that the other takes, each line with an example that proves it. */
@Component({
  selector: 'ty-compare-page',
  imports: [MatButtonModule, MatButtonToggleModule, MatFormFieldModule, MatSelectModule, RouterLink, TitleLine],
  templateUrl: './compare-page.html',
  styleUrl: './compare-page.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ComparePage {
  /** The ids of the profiles, from the address. */
  readonly from = input<string>();
  readonly to = input<string>();
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly worker = inject(SiteWorker);
  private readonly house = this.store.selectSignal(libraryFeature.selectHouse);
  private readonly census = this.store.selectSignal(libraryFeature.selectCensus);
  protected readonly profiles = this.store.selectSignal(libraryFeature.selectProfiles);
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  protected readonly one = computed(() => this.from() ?? this.profiles()[0]?.id ?? '');
  protected readonly other = computed(() => this.to() ?? this.profiles().find(({ id }) => id !== this.one())?.id ?? '');
  protected readonly showing = signal<Showing>('all');
  protected readonly lines = signal<readonly ComparisonLine[] | null>(null);
  protected readonly open = signal(0);
  protected readonly counts = computed(() => {
    const lines = this.lines() ?? [];
    const from = lines.filter(({ kept }) => kept === 'from').length;
    return { all: lines.length, from, to: lines.length - from };
  });
  protected readonly shown = computed(() => {
    const showing = this.showing();
    const elements = this.census()?.elements ?? {};
    return (this.lines() ?? [])
      .filter(({ kept }) => showing === 'all' || kept === showing)
      .map((line) => ({
        line,
        keeper: this.name(line.kept === 'from' ? this.one() : this.other()),
        // How often the element stands in all that is stored; of other things nothing is counted.
        stored: line.subject.kind === 'element' && line.subject.name === undefined ? (elements[line.subject.element ?? ''] ?? 0) : null,
      }));
  });
  protected readonly chosen = computed(() => this.shown()[this.open()]?.line ?? this.shown()[0]?.line ?? null);

  constructor() {
    effect((onCleanup) => {
      const [from, to, house] = [this.one(), this.other(), this.house()];
      const profiles = this.profiles().map(({ id, document }) => ({ id, document }));
      this.lines.set(null);
      if (from === '' || to === '') return;
      let isWanted = true;
      onCleanup(() => (isWanted = false));
      void this.worker.compare({ from, to, profiles, house }).then((lines) => {
        if (!isWanted) return;
        this.lines.set(lines);
        this.open.set(0);
      });
    });
  }

  protected name(id: string): string {
    return this.names().get(id) ?? id;
  }

  protected choose(from: string, to: string): void {
    void this.router.navigate(['/compare'], { queryParams: { from, to } });
  }

  protected show(showing: Showing): void {
    this.showing.set(showing);
    this.open.set(0);
  }
}
