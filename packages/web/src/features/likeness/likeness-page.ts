import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { MatSelectModule } from '@angular/material/select';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatInputModule } from '@angular/material/input';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { Router, RouterLink } from '@angular/router';
import {
  applyRepair,
  causeSentence,
  causeTitle,
  repairSentence,
  trialSentence,
  type Cause,
  type Repair,
  type Setting,
  type TriedRepair,
} from '@typikon/core';
import { Store } from '@ngrx/store';
import { ChartLine } from 'lucide';
import { firstValueFrom } from 'rxjs';
import { percentOf } from '../../shared/likeness/likeness-past';
import { Api } from '../../state/api';
import { libraryFeature } from '../../state/library';
import type { LikenessFigure, PublishedText } from '../../state/types';
import { Split } from '../../ui/split';
import { Tabs, type Tab } from '../../ui/tabs';
import { Icon } from '../../ui/icon';
import { TitleLine } from '../../ui/title-line';
import { ContestTables } from './contest-tables';
import { frameHtml } from '../../shared/page/frame-html';
import { LikenessDesk } from '../../shared/page/likeness-desk';
import { LikenessRunner } from '../../state/likeness-runner';
import type { LikenessTask } from '../../state/likeness-tasks';
import type { LikenessSummary, TwoContests } from '../../state/likeness-tasks';
import { measure, type Measured } from './measure';
import { MeasuredDifferences } from './measured-differences';
import { PageFrame, type PlaceMark } from '../../shared/page/page-frame';

type Below = 'contest' | 'second' | 'trial' | 'measured';

/** Widths between which the window can be tried, in CSS pixels. */
const NARROWEST = 320;
const WIDEST = 1920;
const PAUSE_MS = 150;

/** Why content looks different in the editor and on the page: both side by side, the causes, and repairs that are tried first. */
@Component({
  selector: 'ty-likeness-page',
  imports: [
    MatSelectModule,
    MatCheckboxModule,
    MatInputModule,
    MatFormFieldModule,
    MatButtonModule,
    ContestTables,
    Icon,
    MeasuredDifferences,
    PageFrame,
    RouterLink,
    Split,
    Tabs,
    TitleLine,
  ],
  providers: [LikenessRunner],
  templateUrl: './likeness-page.html',
  styleUrl: './likeness-page.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LikenessPage {
  /** From the address; the first pair that has documents where they are absent. */
  readonly profile = input<string>();
  readonly kind = input<string>();
  private readonly desk = inject(LikenessDesk);
  private readonly runner = inject(LikenessRunner);
  private readonly api = inject(Api);
  private readonly dialog = inject(MatDialog);
  private readonly router = inject(Router);
  private readonly names = inject(Store).selectSignal(libraryFeature.selectNames);
  private readonly siteOrigin = inject(Store).selectSignal(libraryFeature.selectSiteOrigin);
  private readonly editorFrame = viewChild<PageFrame>('editorFrame');
  private readonly pageFrame = viewChild<PageFrame>('pageFrame');

  private readonly pairs = this.desk.pairs;
  protected readonly profileId = computed(() => this.profile() ?? this.pairs()[0]?.profileId ?? '');
  protected readonly resolved = computed(() => this.desk.resolved(this.profileId()));
  protected readonly kindId = computed(
    () =>
      this.kind() ??
      this.pairs().find((pair) => pair.profileId === this.profileId())?.pageKindId ??
      this.resolved()?.profile.surface.pageKind ??
      '',
  );
  protected readonly profileOptions = computed(() => this.desk.profiles().map(({ id }) => ({ id, name: this.names().get(id) ?? id })));
  protected readonly kindOptions = computed(() =>
    this.desk.pageKinds().map(({ id, name }) => {
      const count = this.pairs().find((pair) => pair.profileId === this.profileId() && pair.pageKindId === id)?.documents ?? 0;
      return { id, name: count === 0 ? name : `${name}, ${count}` };
    }),
  );
  protected readonly page = computed(() => this.desk.pageKinds().find(({ id }) => id === this.kindId()) ?? null);
  protected readonly heading = computed(
    () => `${this.names().get(this.profileId()) ?? this.profileId()} on ${this.kindName(this.kindId())}`,
  );

  protected readonly widths = computed(() => this.page()?.widthsPx ?? []);
  protected readonly widthPx = linkedSignal(() => this.widths()[0] ?? 1280);
  protected readonly narrowest = NARROWEST;
  protected readonly widest = WIDEST;

  protected readonly contents = signal<readonly PublishedText[] | null>(null);
  /** Whether the documents are pages of other kinds. */
  protected readonly isBorrowed = signal(false);
  protected readonly withSpecimens = signal(false);
  protected readonly documentId = linkedSignal<readonly PublishedText[] | null, string>({
    source: this.contents,
    computation: (all, previous) => (all?.some(({ id }) => id === previous?.value) ? previous!.value : ''),
  });
  protected readonly secondId = signal('');
  protected readonly settings = computed(() => {
    const [resolved, page] = [this.resolved(), this.page()];
    return resolved === null || page === null ? null : this.desk.settings(resolved, page, this.widthPx());
  });
  protected readonly summary = signal<LikenessSummary | null>(null);
  protected readonly failure = signal('');
  /** Counts up with each press of “Try again”. */
  private readonly attempt = signal(0);
  protected readonly notice = signal('');
  protected readonly isBusy = signal(false);
  private readonly figures = signal<readonly LikenessFigure[]>([]);

  protected readonly causes = computed(() => (this.summary()?.causes ?? []).map((cause, at) => this.told(cause, at + 1)));
  protected readonly chosenId = linkedSignal<LikenessSummary | null, string>({
    source: this.summary,
    computation: (summary, previous) => {
      const causes = summary?.causes ?? [];
      return causes.some(({ id }) => id === previous?.value) ? previous!.value : (causes[0]?.id ?? '');
    },
  });
  protected readonly chosen = computed(() => this.causes().find(({ cause }) => cause.id === this.chosenId()) ?? null);
  /** What was tried for causes, by their ids; it holds as long as nothing changes. */
  protected readonly tried = linkedSignal<LikenessSummary | null, ReadonlyMap<string, readonly TriedRepair[]>>({
    source: this.summary,
    computation: () => new Map(),
  });
  protected readonly isTryingAll = signal(false);
  protected readonly edited = linkedSignal<string, { repair: Repair; text: string } | null>({
    source: this.chosenId,
    computation: () => null,
  });
  /** The repair that is shown before and after. */
  protected readonly shown = linkedSignal<string, TriedRepair | null>({ source: this.chosenId, computation: () => null });

  /** The place that is looked at: the document shown, and the element in it. */
  protected readonly place = linkedSignal<ReturnType<LikenessPage['chosen']>, { document: string; index: number; pseudo: string } | null>({
    source: () => this.chosen(),
    computation: (chosen) => {
      const shown = untracked(this.documentId);
      const places = chosen?.cause.places ?? [];
      const first = places.find(({ document }) => document === shown) ?? places[0];
      return first === undefined ? null : { document: first.document, index: first.index, pseudo: first.pseudo };
    },
  });
  protected readonly placeProperties = computed(() => {
    const place = this.place();
    const found = this.chosen()?.cause.places.find(
      ({ document, index, pseudo }) => document === place?.document && index === place.index && pseudo === place.pseudo,
    );
    return found?.differences ?? [];
  });
  protected readonly property = linkedSignal(() => this.placeProperties()[0]?.property ?? '');
  protected readonly contests = signal<TwoContests | null>(null);
  protected readonly measured = signal<Measured | null>(null);
  private readonly ready: { editor: readonly HTMLElement[] | null; page: readonly HTMLElement[] | null } = { editor: null, page: null };

  protected readonly below = signal<Below>('contest');
  protected readonly belowTabs = computed((): Tab<Below>[] => [
    { id: 'contest', label: 'Who wins' },
    { id: 'trial', label: 'Before and after' },
    { id: 'second', label: 'A second document' },
    {
      id: 'measured',
      label: 'Measured',
      ...(this.unexplained().length > 0 ? { mark: { text: String(this.unexplained().length), meaning: 'not explained' } } : {}),
    },
  ]);

  protected readonly document = computed(() => {
    const all = this.contents() ?? [];
    return all.find(({ id }) => id === this.documentId()) ?? all.find(({ id }) => id === this.place()?.document) ?? all[0] ?? null;
  });
  protected readonly second = computed(() => {
    const all = this.contents() ?? [];
    const others = all.filter(({ id }) => id !== this.document()?.id);
    const withPlace = this.chosen()?.cause.places.find(({ document }) => document !== this.document()?.id)?.document;
    return others.find(({ id }) => id === this.secondId()) ?? others.find(({ id }) => id === withPlace) ?? others[0] ?? null;
  });
  protected readonly html = computed(
    () => {
      const [settings, document] = [this.settings(), this.document()];
      return settings === null || document === null
        ? null
        : {
            editor: frameHtml(settings.editor, document.html, null, this.siteOrigin()),
            page: frameHtml(settings.page, document.html, titleOn(settings.page, document.title), this.siteOrigin()),
          };
    },
    // A window of another width shows the same page.
    { equal: (one, other) => one?.editor === other?.editor && one?.page === other?.page },
  );
  /** The page with the repair that is looked at, or as it is. */
  protected readonly trialHtml = computed(() => {
    const [settings, document] = [this.settings(), this.document()];
    const repair = (this.shown() ?? this.tried().get(this.chosenId())?.[0])?.repair;
    if (settings === null || document === null || repair === undefined) return null;
    const after = applyRepair(settings, repair);
    const isEditor = repair.side === 'editor';
    const of = (input: typeof settings): string =>
      frameHtml(
        isEditor ? input.editor : input.page,
        document.html,
        isEditor ? null : titleOn(input.page, document.title),
        this.siteOrigin(),
      );
    return { before: of(settings), after: of(after), isEditor };
  });
  protected readonly secondHtml = computed(() => {
    const [settings, second] = [this.settings(), this.second()];
    if (settings === null || second === null) return null;
    const repair = this.shown()?.repair;
    const used = repair === undefined ? settings : applyRepair(settings, repair);
    return {
      editor: frameHtml(used.editor, second.html, null, this.siteOrigin()),
      page: frameHtml(used.page, second.html, titleOn(used.page, second.title), this.siteOrigin()),
      isTried: repair !== undefined,
    };
  });
  protected readonly marks = computed((): PlaceMark[] => this.marksIn(this.document()?.id));
  protected readonly secondMarks = computed((): PlaceMark[] => this.marksIn(this.second()?.id));

  protected readonly share = computed(() => {
    const summary = this.summary();
    return summary === null || summary.elements === 0 ? null : summary.alike / summary.elements;
  });
  protected readonly before = computed(() => {
    const [profileId, pageKindId] = [this.profileId(), this.kindId()];
    const own = this.figures().filter((figure) => figure.profileId === profileId && figure.pageKindId === pageKindId);
    const last = own.at(-2);
    return last === undefined || last.elements === 0 ? null : last.alike / last.elements;
  });
  protected readonly figure = computed(() => {
    const [share, before] = [this.share(), this.before()];
    if (share === null) return '';
    return before === null || percentOf(before) === percentOf(share) ? '' : `, was ${percentOf(before)}`;
  });
  protected readonly percent = percentOf;
  protected readonly icons = { past: ChartLine };
  protected readonly placesTold = computed(() => {
    const summary = this.summary();
    if (summary === null) return '';
    const places = summary.elements - summary.alike;
    return `${places} ${places === 1 ? 'element' : 'elements'} in ${summary.documentsUnlike} of ${summary.documents} documents`;
  });
  protected readonly sheetsTold = computed(() => {
    const settings = this.settings();
    const told = (sheets: readonly { name: string }[]): string => (sheets.length === 1 ? sheets[0]!.name : `${sheets.length} files`);
    return settings === null ? null : { editor: told(settings.editor.sheets), page: told(settings.page.sheets) };
  });
  protected readonly last = computed(() => this.desk.taken().at(-1) ?? null);

  /** What the browser shows and the rules do not explain. */
  protected readonly unexplained = computed(() => {
    const measured = this.measured();
    const document = this.document()?.id;
    if (measured === null || document === undefined) return [];
    const said = this.said(document);
    return [...measured.differences].filter(([key]) => !said.has(key)).map(([key, values]) => ({ key, ...values, ...this.elementAt(key) }));
  });
  /** What the rules say and the browser does not show. */
  protected readonly unseen = computed(() => {
    const measured = this.measured();
    const document = this.document()?.id;
    if (measured === null || document === undefined) return 0;
    return [...this.said(document)].filter(
      (key) => measured.differences.size > 0 && !measured.differences.has(key) && !LAYOUT_SAID.test(key),
    ).length;
  });
  protected readonly misfits = computed(() =>
    (this.measured()?.misfits ?? []).map((misfit) => ({ ...misfit, ...this.elementAt(`${misfit.index} `) })),
  );

  /** What does not fit and only layout tells, such as a table that is wide by its words. */
  protected readonly foundByMeasure = computed(() => {
    const document = this.document()?.id;
    const told = new Set(
      (this.summary()?.causes ?? [])
        .filter(({ kind }) => kind === 'does-not-fit')
        .flatMap(({ places }) => places.filter((place) => place.document === document).map(({ index, fit }) => `${fit?.side} ${index}`)),
    );
    return this.misfits().filter(({ side, index }) => !told.has(`${side} ${index}`));
  });

  /** Compares once more after a failure. */
  protected tryAgain(): void {
    this.failure.set('');
    this.attempt.update((count) => count + 1);
  }

  constructor() {
    void this.readFigures();
    // The documents of the pair.
    effect((onCleanup) => {
      const [resolved, kind] = [this.resolved(), this.kindId()];
      if (resolved === null || kind === '') return;
      let isCurrent = true;
      onCleanup(() => (isCurrent = false));
      this.desk.contents(resolved, kind, this.withSpecimens()).then(
        ({ documents, isBorrowed }) => {
          if (!isCurrent) return;
          this.contents.set(documents);
          this.isBorrowed.set(isBorrowed);
        },
        (error: Error) => isCurrent && this.failure.set(error.message),
      );
    });
    // The comparison, whenever anything of it changes.
    effect((onCleanup) => {
      this.attempt();
      const [settings, contents] = [this.settings(), this.contents()];
      const files = this.desk.stylesheets().map(({ id }) => `${id}.css`);
      if (settings === null || contents === null) return;
      let isCurrent = true;
      const timer = setTimeout(() => {
        this.isBusy.set(true);
        this.runner
          .ask<LikenessSummary>({ kind: 'compare', input: settings, documents: contents.map(({ id, html }) => ({ id, html })), files })
          .then(
            (summary) => {
              if (!isCurrent) return;
              this.isBusy.set(false);
              this.failure.set('');
              this.summary.set(summary);
            },
            (error: Error) => {
              if (!isCurrent) return;
              this.isBusy.set(false);
              this.failure.set(error.message);
            },
          );
      }, PAUSE_MS);
      onCleanup(() => {
        isCurrent = false;
        clearTimeout(timer);
      });
    });
    // What was measured is of frames that are gone once others are written.
    effect(() => {
      this.html();
      this.ready.editor = this.ready.page = null;
      this.measured.set(null);
    });
    // A window of another width is measured once it is laid out.
    effect((onCleanup) => {
      this.widthPx();
      const timer = setTimeout(() => this.measureAgain(), PAUSE_MS);
      onCleanup(() => clearTimeout(timer));
    });
    // The repairs of the chosen cause.
    effect(() => {
      const id = this.chosenId();
      if (id !== '' && !this.tried().has(id)) void this.tryCause(id);
    });
    effect((onCleanup) => {
      const [place, property] = [this.place(), this.property()];
      this.summary();
      if (place === null || property === '') {
        this.contests.set(null);
        return;
      }
      let isCurrent = true;
      onCleanup(() => (isCurrent = false));
      void this.runner.ask<TwoContests | null>({ kind: 'contest', ...place, property }).then(
        (contests) => isCurrent && this.contests.set(contests),
        (error: Error) => isCurrent && this.failure.set(error.message),
      );
    });
  }

  /** Another profile begins with the page kind on which most of it is seen. */
  protected choosePair(profile: string, kind?: string): void {
    this.contents.set(null);
    this.summary.set(null);
    this.measured.set(null);
    const own = this.pairs().filter((pair) => pair.profileId === profile);
    const most = own.sort((a, b) => b.documents - a.documents)[0]?.pageKindId ?? this.desk.resolved(profile)?.profile.surface.pageKind;
    void this.router.navigate(['/styles/likeness', profile, kind ?? most ?? this.kindId()]);
  }

  protected chooseMark({ number, index }: PlaceMark, document: string | undefined): void {
    const cause = this.causes()[number - 1]?.cause;
    const place = cause?.places.find((one) => one.document === document && one.index === index);
    if (cause === undefined || place === undefined) return;
    this.chosenId.set(cause.id);
    this.place.set({ document: place.document, index, pseudo: place.pseudo });
    this.below.set('contest');
  }

  /** Scrolls the frames below to where the difference is. */
  protected showBelow(frame: PageFrame, document: string | undefined): void {
    const place = this.place();
    const index = place?.document === document ? place?.index : this.chosen()?.cause.places.find((one) => one.document === document)?.index;
    if (index !== undefined) frame.scrollTo({ index, top: 40 });
  }

  /** Goes to the next place of a cause, in whichever document it is. */
  protected nextPlace(step: 1 | -1): void {
    const places = this.chosen()?.cause.places ?? [];
    const now = this.place();
    const at = places.findIndex(
      ({ document, index, pseudo }) => document === now?.document && index === now.index && pseudo === now.pseudo,
    );
    const next = places[(at + step + places.length) % places.length];
    if (next === undefined) return;
    this.documentId.set(next.document);
    this.place.set({ document: next.document, index: next.index, pseudo: next.pseudo });
    setTimeout(() => this.showPlace(), 120);
  }

  protected readonly placeNumber = computed(() => {
    const now = this.place();
    const places = this.chosen()?.cause.places ?? [];
    return (
      1 + places.findIndex(({ document, index, pseudo }) => document === now?.document && index === now.index && pseudo === now.pseudo)
    );
  });

  protected framed(side: 'editor' | 'page', elements: readonly HTMLElement[]): void {
    this.ready[side] = elements;
    if (this.measureAgain()) this.showPlace();
  }

  private measureAgain(): boolean {
    const { editor, page } = this.ready;
    if (editor === null || page === null) return false;
    this.measured.set(measure(editor, page));
    return true;
  }

  /** Two frames are scrolled together: the same element is at the same height. */
  protected scrolled(side: 'editor' | 'page'): void {
    const [from, to] = side === 'editor' ? [this.editorFrame(), this.pageFrame()] : [this.pageFrame(), this.editorFrame()];
    const top = from?.isHovered() === true ? from.topElement() : null;
    if (top !== null) to?.scrollTo(top);
  }

  protected async tryAll(): Promise<void> {
    this.isTryingAll.set(true);
    try {
      for (const { cause } of this.causes()) if (this.failure() === '' && !this.tried().has(cause.id)) await this.tryCause(cause.id);
    } finally {
      this.isTryingAll.set(false);
    }
  }

  protected edit({ repair }: TriedRepair): void {
    if (repair.kind === 'add-rule') this.edited.set({ repair, text: repair.css });
  }

  /** Tries a rule as somebody has changed it. */
  protected async tryEdited(): Promise<void> {
    const edited = this.edited();
    if (edited?.repair.kind !== 'add-rule') return;
    const repair: Repair = { ...edited.repair, css: edited.text, rule: edited.text };
    const id = this.chosenId();
    const trial = await this.answerOf<TriedRepair>({ kind: 'try', repair, cause: id });
    if (trial === null) return;
    this.tried.update((all) => new Map([...all, [id, [trial, ...(all.get(id) ?? []).slice(1)]]]));
    this.edited.set(null);
  }

  protected lookAt(tried: TriedRepair): void {
    this.shown.set(tried);
    this.below.set('trial');
  }

  protected async take({ repair, trial }: TriedRepair): Promise<void> {
    const [resolved, page, chosen] = [this.resolved(), this.page(), this.chosen()];
    if (resolved === null || page === null || chosen === null || this.isBusy()) return;
    this.isBusy.set(true);
    this.failure.set('');
    try {
      await this.desk.take(repair, resolved, page, `${chosen.title}: ${repairSentence(repair)}`.slice(0, 300));
      this.notice.set(
        `Taken: ${trialSentence(trial)} ${repair.side === 'page' ? 'Readers get it with the next page they open.' : 'Authors get it when they open a text.'}`,
      );
      setTimeout(() => void this.readFigures(), 1500);
    } catch (error) {
      this.failure.set(`Not taken. ${(error as Error).message}`);
    } finally {
      this.isBusy.set(false);
    }
  }

  protected async undo(): Promise<void> {
    const label = this.last()?.label;
    if (label === undefined || this.isBusy()) return;
    this.isBusy.set(true);
    this.failure.set('');
    try {
      await this.desk.undo();
      this.notice.set(`Taken back: ${label}`);
    } catch (error) {
      this.failure.set(`Not taken back. ${(error as Error).message}`);
    } finally {
      this.isBusy.set(false);
    }
  }

  protected readonly repairSentence = repairSentence;
  protected readonly trialSentence = trialSentence;

  private async tryCause(id: string): Promise<void> {
    const summary = this.summary();
    const repairs = await this.answerOf<TriedRepair[]>({ kind: 'repairs', cause: id });
    if (repairs !== null && this.summary() === summary) this.tried.update((all) => new Map([...all, [id, repairs]]));
  }

  /** What the worker says; null where it failed, which is told. */
  private async answerOf<Result>(task: LikenessTask): Promise<Result | null> {
    try {
      return await this.runner.ask<Result>(task);
    } catch (error) {
      this.failure.set((error as Error).message);
      return null;
    }
  }

  private async readFigures(): Promise<void> {
    try {
      this.figures.set(await firstValueFrom(this.api.likenessFigures()));
    } catch {
      // The figures of the past are an addition; the comparison itself stands without them.
    }
  }

  protected async showPast(): Promise<void> {
    const [profileId, pageKindId] = [this.profileId(), this.kindId()];
    if (profileId === null || pageKindId === null) return;
    const { LikenessPastDialog } = await import('../../shared/likeness/likeness-past-dialog');
    this.dialog.open(LikenessPastDialog, { width: '760px', maxWidth: '94vw', data: { profileId, pageKindId } });
  }

  protected scrollBoth(index: number): void {
    for (const frame of [this.editorFrame(), this.pageFrame()]) frame?.scrollTo({ index, top: 60 });
  }

  private showPlace(): void {
    const place = this.place();
    if (place === null || place.document !== this.document()?.id) return;
    for (const frame of [this.editorFrame(), this.pageFrame()]) frame?.scrollTo({ index: place.index, top: 60 });
  }

  private told(cause: Cause, number: number) {
    const documents = new Set(cause.places.map(({ document }) => document)).size;
    return {
      cause,
      number,
      title: causeTitle(cause),
      sentence: causeSentence(cause),
      counts: `${cause.places.length} ${cause.places.length === 1 ? 'place' : 'places'} in ${documents} ${documents === 1 ? 'document' : 'documents'}`,
    };
  }

  private marksIn(document: string | undefined): PlaceMark[] {
    const place = this.place();
    return this.causes().flatMap(({ cause, number }) =>
      cause.places
        .filter((one) => one.document === document)
        .map(({ index }) => ({ number, index, isChosen: cause.id === this.chosenId() && index === place?.index })),
    );
  }

  private said(document: string): Set<string> {
    return new Set(
      (this.summary()?.causes ?? []).flatMap(({ places }) =>
        places
          .filter((place) => place.document === document && place.pseudo === '')
          .flatMap(({ index, differences }) => differences.map(({ property }) => `${index} ${property}`)),
      ),
    );
  }

  private elementAt(key: string): { element: string; property: string } {
    const [index = '', property = ''] = key.split(' ');
    const element = this.ready.page?.[Number(index)];
    return {
      element:
        element === undefined ? '' : `${element.localName}${element.className === '' ? '' : `.${element.className.replace(/\s+/g, '.')}`}`,
      property,
    };
  }

  private kindName(id: string): string {
    return this.desk.pageKinds().find((kind) => kind.id === id)?.name ?? id;
  }
}

/** What the rules claim and measuring leaves out, since layout decides it too. */
const LAYOUT_SAID =
  / (width|height|min-|max-|top|right|bottom|left|margin-(left|right)|aspect-ratio|grid-|transform|flex-basis|background-position|line-height|content|overflow|vertical-align|counter-|quotes|white-space|text-wrap|border-image|appearance)/;

/** The title above a text, on pages that put it there. */
const titleOn = (page: Setting, title: string): string | null => (page.title === '' ? null : title);
