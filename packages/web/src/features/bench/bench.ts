import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { BenchActions, benchFeature, type BenchTab, type Showing } from '../../state/bench';
import { libraryFeature } from '../../state/library';
import { workshopFeature } from '../../state/workshop';
import { WorkshopActions } from '../../state/workshop.actions';
import { Split } from '../../ui/split';
import { Tabs, type Tab } from '../../ui/tabs';
import { AuthorView } from './author-view';
import { LedgerView } from './ledger-view';
import { MarkupView } from './markup-view';
import { MeasureLine } from './measure-line';
import { PageView } from './page-view';

/** The bench: one piece of markup run through the draft, live. What the author sees, the markup, the page, and the ledger below. */
@Component({
  selector: 'ty-bench',
  imports: [AuthorView, LedgerView, MarkupView, MeasureLine, PageView, Split, Tabs],
  templateUrl: './bench.html',
  styleUrl: './bench.scss',
  host: { role: 'region', 'aria-label': 'Bench' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Bench {
  private readonly store = inject(Store);
  protected readonly state = this.store.selectSignal(benchFeature.selectBenchState);
  protected readonly specimens = this.store.selectSignal(libraryFeature.selectSpecimens);
  protected readonly specimen = this.store.selectSignal(benchFeature.selectSpecimen);
  protected readonly roles = this.store.selectSignal(libraryFeature.selectRoles);
  protected readonly role = this.store.selectSignal(workshopFeature.selectRole);
  protected readonly tabs: readonly Tab<BenchTab>[] = [
    { id: 'author', label: 'Author' },
    { id: 'markup', label: 'Markup' },
    { id: 'page', label: 'Page' },
  ];
  protected readonly isEdited = computed(() => {
    const specimen = this.specimen();
    return specimen !== null && this.state().source !== specimen.html;
  });
  protected readonly picked = computed(() =>
    this.state().showing === 'source' ? `specimen:${this.state().specimenId}` : this.state().showing,
  );
  protected readonly ms = computed(() => {
    const ms = this.state().proof?.ms;
    return ms === undefined ? '' : ms < 10 ? `${ms.toFixed(1)} ms` : `${Math.round(ms)} ms`;
  });

  protected pick(value: string): void {
    const specimen = this.specimens().find(({ id }) => value === `specimen:${id}`);
    if (specimen === undefined) this.store.dispatch(BenchActions.inputChosen({ showing: value as Showing }));
    else if (specimen.id === this.state().specimenId) this.store.dispatch(BenchActions.inputChosen({ showing: 'source' }));
    else this.store.dispatch(BenchActions.specimenChosen({ specimen }));
  }

  protected chooseRole(role: string): void {
    this.store.dispatch(WorkshopActions.roleChosen({ role }));
  }

  protected startOver(): void {
    const specimen = this.specimen();
    if (specimen !== null) this.store.dispatch(BenchActions.specimenChosen({ specimen }));
  }

  protected choose(tab: string): void {
    this.store.dispatch(BenchActions.tabChosen({ tab: tab as BenchTab }));
  }
}
