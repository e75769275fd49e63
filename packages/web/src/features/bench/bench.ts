import { ChangeDetectionStrategy, Component, computed, DestroyRef, ElementRef, inject, signal } from '@angular/core';
import { MatSelectModule } from '@angular/material/select';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatButtonModule } from '@angular/material/button';
import { MatDividerModule } from '@angular/material/divider';
import { MatMenuModule } from '@angular/material/menu';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { MatTooltipModule } from '@angular/material/tooltip';
import { PASTE_SOURCES, type PasteSource, sourceName } from '@typikon/core/settings';
import { Store } from '@ngrx/store';
import { Maximize2, Minimize2 } from 'lucide';
import { BenchActions, benchFeature, type BenchTab, type Showing } from '../../state/bench';
import { ProofRunner } from '../../state/proof-runner';
import { libraryFeature } from '../../state/library';
import { workshopFeature } from '../../state/workshop';
import { WorkshopActions } from '../../state/workshop.actions';
import { Icon } from '../../ui/icon';
import { Split } from '../../ui/split';
import { Tabs, type Tab } from '../../ui/tabs';
import { AuthorView } from './author-view';
import { ExpectationsView } from './expectations-view';
import { LedgerView } from './ledger-view';
import { LeftView } from './left-view';
import { MarkupView } from './markup-view';
import { DraftReach } from './draft-reach';
import { MeasureLine } from './measure-line';
import { PageView } from './page-view';

/** From this width on, what came in, what is stored and the ledger stand side by side. */
const WIDE_PX = 900;
/** How much of the height each view has, in percent, before anybody moved the grip: twenty lines of text on a small screen. */
const SHARES: Readonly<Record<BenchTab, number>> = { author: 86, page: 86, markup: 64, expectations: 64 };

/** The bench: one piece of markup run through the draft, live. What the author sees, the markup, the page, and the ledger below. */
@Component({
  selector: 'ty-bench',
  imports: [
    MatSelectModule,
    MatFormFieldModule,
    MatButtonModule,
    MatDividerModule,
    MatMenuModule,
    MatProgressBarModule,
    MatTooltipModule,
    Icon,
    AuthorView,
    ExpectationsView,
    LedgerView,
    LeftView,
    MarkupView,
    DraftReach,
    MeasureLine,
    PageView,
    Split,
    Tabs,
  ],
  templateUrl: './bench.html',
  styleUrl: './bench.scss',
  host: { role: 'region', 'aria-label': 'Bench', '(window:keydown)': 'key($event)' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Bench {
  private readonly store = inject(Store);
  protected readonly state = this.store.selectSignal(benchFeature.selectBenchState);
  protected readonly specimens = this.store.selectSignal(libraryFeature.selectSpecimens);
  protected readonly specimen = this.store.selectSignal(benchFeature.selectSpecimen);
  private readonly pageKinds = this.store.selectSignal(libraryFeature.selectPageKinds);
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  protected readonly roles = this.store.selectSignal(libraryFeature.selectRoles);
  protected readonly role = this.store.selectSignal(workshopFeature.selectRole);
  protected readonly arrives = this.store.selectSignal(benchFeature.selectArrives);
  protected readonly kind = this.store.selectSignal(benchFeature.selectKind);
  protected readonly detected = this.store.selectSignal(benchFeature.selectDetected);
  protected readonly sources = PASTE_SOURCES.map((id) => ({ id, name: sourceName(id) }));
  protected readonly sourceName = sourceName;
  protected readonly evidence = computed(() => {
    const { source, evidence } = this.detected();
    const marks = evidence.filter((one) => one.source === source).map(({ mark }) => mark);
    return `Told by ${marks.join(', ') || 'nothing that any other source has'}.`;
  });
  protected readonly tabs = computed((): readonly Tab<BenchTab>[] => {
    const verdicts = this.state().proof?.verdicts ?? [];
    const met = verdicts.filter(({ isMet }) => isMet).length;
    return [
      { id: 'author', label: 'Author' },
      { id: 'markup', label: 'Markup' },
      { id: 'page', label: 'Page' },
      ...(verdicts.length === 0
        ? []
        : [
            {
              id: 'expectations' as const,
              label: 'Expectations',
              mark: { text: `${met}/${verdicts.length}`, meaning: `${met} of ${verdicts.length} met` },
            },
          ]),
    ];
  });
  /** The tab that is shown: what has nothing to show is none. */
  protected readonly tab = computed(() => (this.tabs().some(({ id }) => id === this.state().tab) ? this.state().tab : 'markup'));
  protected readonly isEdited = computed(() => {
    return this.state().edited !== null;
  });
  protected readonly picked = computed(() =>
    this.state().showing === 'source' ? `specimen:${this.state().specimenId}` : this.state().showing,
  );
  protected readonly ms = computed(() => {
    const ms = this.state().proof?.ms;
    return ms === undefined ? '' : ms < 10 ? `${ms.toFixed(1)} ms` : `${Math.round(ms)} ms`;
  });

  /** Where it comes in by and whose it is, as far as that is not the usual. */
  protected readonly howItComesIn = computed(() =>
    [
      this.arrives() === 'paste' ? 'by paste' : 'as stored',
      ...(this.arrives() === 'paste' && this.state().sourceChosen !== null ? [`from ${sourceName(this.state().sourceChosen!)}`] : []),
      ...(this.role() === '' ? [] : [`by ${this.roleName()}`]),
    ].join(', '),
  );
  protected readonly roleName = computed(() => this.roles().find(({ id }) => id === this.role())?.name ?? 'anybody');
  protected readonly widths = computed(() => {
    const kinds = this.pageKinds();
    const pageKind = this.resolved()?.profile.surface.pageKind;
    const column = kinds.find(({ id }) => id === pageKind)?.contentWidthPx ?? 720;
    return [
      { label: 'as wide as here', px: null },
      { label: 'phone 390', px: 390 },
      { label: 'tablet 768', px: 768 },
      { label: `column ${column}`, px: column },
      { label: 'desk 1280', px: 1280 },
    ];
  });
  /** The width of the author's screen; null for that of the bench. */
  protected readonly widthPx = signal<number | null>(null);
  protected readonly width = computed(() => this.widths().find(({ px }) => px === this.widthPx()) ?? this.widths()[0]!);
  /** Whether the view has the whole height, without what is listed below. */
  protected readonly isWhole = signal(false);
  protected readonly isWide = signal(false);
  protected readonly share = computed(() => SHARES[this.tab()]);
  protected readonly icons = { more: Maximize2, less: Minimize2 };

  constructor() {
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    const watched = new ResizeObserver(() => this.isWide.set(host.clientWidth >= WIDE_PX));
    watched.observe(host);
    inject(DestroyRef).onDestroy(() => watched.disconnect());
  }

  protected key(event: KeyboardEvent): void {
    if (!event.altKey || event.ctrlKey || event.metaKey || event.shiftKey || event.code !== 'KeyB') return;
    event.preventDefault();
    this.isWhole.update((is) => !is);
  }

  private readonly runner = inject(ProofRunner);
  /** How far a proof is that takes long. */
  protected readonly progress = this.runner.progress.asReadonly();

  protected stop(): void {
    this.runner.stop();
    this.store.dispatch(BenchActions.proofFailed({ message: 'The last run was stopped; the next change begins another.' }));
  }

  protected tryAgain(): void {
    this.store.dispatch(BenchActions.proofAskedAgain());
  }

  protected pick(value: string): void {
    const specimen = this.specimens().find(({ id }) => value === `specimen:${id}`);
    if (specimen === undefined) this.store.dispatch(BenchActions.inputChosen({ showing: value as Showing }));
    else if (specimen.id === this.state().specimenId) this.store.dispatch(BenchActions.inputChosen({ showing: 'source' }));
    else this.store.dispatch(BenchActions.specimenChosen({ specimen }));
  }

  protected chooseWay(way: string): void {
    this.store.dispatch(BenchActions.wayChosen({ way: way as 'paste' | 'stored' }));
  }

  protected chooseSource(source: string): void {
    this.store.dispatch(BenchActions.sourceChosen({ source: source === '' ? null : (source as PasteSource) }));
  }

  protected chooseLower(lower: 'ledger' | 'left'): void {
    this.store.dispatch(BenchActions.lowerChosen({ lower }));
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
