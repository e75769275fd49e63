import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatInputModule } from '@angular/material/input';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatButtonModule } from '@angular/material/button';
import { toSignal } from '@angular/core/rxjs-interop';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import type { Lesson, Lessons, Unlearnable } from '@typikon/core';
import { mergePatch, type JsonObject } from '@typikon/core/settings';
import { Store } from '@ngrx/store';
import { Subject, catchError, map, merge, of, startWith, switchMap } from 'rxjs';
import { benchFeature } from '../../state/bench';
import { selectHouse } from '../../state/house';
import { proofRequest, ProofRunner } from '../../state/proof-runner';
import type { ProofRequest } from '../../state/types';
import { workshopFeature } from '../../state/workshop';
import { ChangesTable } from '../../shared/profile/changes-table';
import { ProfileEdit } from '../../shared/profile/edit';

type Listing = { status: 'idle' | 'busy' } | { status: 'failed'; message: string } | { status: 'ready'; lessons: Lessons };

const RISK_WORDS = { none: '', look: 'look', trust: 'trust' } as const;

/** Learns rules from a sample: lists what the draft would take from it, and builds the smallest rules for what is ticked. */
@Component({
  selector: 'ty-learn-dialog',
  imports: [MatCheckboxModule, MatInputModule, MatFormFieldModule, MatButtonModule, ChangesTable, MatDialogModule],
  // A worker of its own: listing takes longer than a proof, and must not be stopped for one.
  providers: [ProofRunner],
  templateUrl: './learn-dialog.html',
  styleUrl: './learn-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LearnDialog {
  private readonly store = inject(Store);
  private readonly runner = inject(ProofRunner);
  private readonly edit = inject(ProfileEdit);
  private readonly dialog = inject<MatDialogRef<LearnDialog>>(MatDialogRef);
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly house = this.store.selectSignal(selectHouse);
  private readonly role = this.store.selectSignal(workshopFeature.selectRole);
  private readonly benchSource = this.store.selectSignal(benchFeature.selectInput);
  private readonly specimen = this.store.selectSignal(benchFeature.selectSpecimen);
  protected readonly draft = this.store.selectSignal(workshopFeature.selectDraft);
  protected readonly sample = signal('');
  protected readonly ticked = signal<ReadonlySet<string>>(new Set());
  private readonly asked = new Subject<ProofRequest>();
  private readonly chosen = new Subject<{ request: ProofRequest; ids: string[] }>();

  protected readonly listing = toSignal(
    this.asked.pipe(
      switchMap((request) =>
        this.runner.lessons(request).pipe(
          map((lessons): Listing => ({ status: 'ready', lessons })),
          catchError((error: Error) => of<Listing>({ status: 'failed', message: error.message })),
          startWith<Listing>({ status: 'busy' }),
        ),
      ),
    ),
    { initialValue: { status: 'idle' } },
  );
  /** What the ticked lessons would change, as a merge patch; null while it is being worked out. */
  protected readonly patch = toSignal(
    merge(
      this.asked.pipe(map(() => ({}))),
      this.chosen.pipe(
        switchMap(({ request, ids }) => (ids.length === 0 ? of({}) : this.runner.learn(request, ids).pipe(startWith(null)))),
      ),
    ),
    { initialValue: {} },
  );
  protected readonly benchName = computed(() => this.specimen()?.name ?? 'what is on the bench');
  protected readonly rows = computed(() => {
    const listing = this.listing();
    if (listing.status !== 'ready') return [];
    const { lessons } = listing.lessons;
    const depthOf = (lesson: Lesson): number => {
      const parent = lessons.find(({ id }) => id === lesson.needs);
      return parent === undefined ? 0 : 1 + depthOf(parent);
    };
    const below = (parent: string | null): Lesson[] =>
      lessons.filter(({ needs }) => needs === parent).flatMap((lesson) => [lesson, ...below(lesson.id)]);
    return below(null).map((lesson) => ({
      ...lesson,
      depth: depthOf(lesson),
      isTicked: this.ticked().has(lesson.id),
      where: lesson.places === 1 ? 'one place' : `${lesson.places} places`,
      riskWord: RISK_WORDS[lesson.risk.level],
    }));
  });
  protected readonly unlearnable = computed(() => {
    const listing = this.listing();
    const all = listing.status === 'ready' ? listing.lessons.unlearnable : [];
    const words: Partial<Record<Unlearnable['layer'], string>> = {
      'safety-floor': 'The safety floor never lets through:',
      'house-limits': 'The house limits would have to allow first:',
    };
    return [...new Set(all.map(({ layer }) => layer))].map((layer) => ({
      layer,
      words: words[layer] ?? 'No small rule keeps:',
      labels: [...new Set(all.filter((thing) => thing.layer === layer).map(({ label }) => label))],
    }));
  });
  protected readonly after = computed((): JsonObject => mergePatch(this.draft(), this.patch() ?? {}) as JsonObject);
  protected readonly canTake = computed(
    () => this.ticked().size > 0 && this.patch() !== null && Object.keys(this.patch() ?? {}).length > 0,
  );

  protected useBench(): void {
    this.sample.set(this.benchSource() ?? '');
    this.list();
  }

  protected async useFile(files: FileList | null): Promise<void> {
    const file = files?.[0];
    if (file === undefined) return;
    this.sample.set(await file.text());
    this.list();
  }

  /** A paste brings markup where the clipboard has any. */
  protected paste(event: ClipboardEvent): void {
    const html = event.clipboardData?.getData('text/html') ?? '';
    if (html === '') return;
    event.preventDefault();
    this.sample.set(html);
    this.list();
  }

  protected list(): void {
    const request = this.request();
    this.ticked.set(new Set());
    if (request !== null) this.asked.next(request);
  }

  protected tick(lesson: Lesson, isTicked: boolean): void {
    const ticked = new Set(this.ticked());
    const all = this.rows();
    if (isTicked) {
      for (let next: Lesson | undefined = lesson; next !== undefined; next = all.find(({ id }) => id === next.needs)) ticked.add(next.id);
    } else {
      const drop = (id: string): void => {
        ticked.delete(id);
        for (const other of all) if (other.needs === id) drop(other.id);
      };
      drop(lesson.id);
    }
    this.choose(ticked);
  }

  protected tickAll(isTicked: boolean): void {
    // What touches readers and their data is ticked one by one.
    this.choose(
      new Set(
        isTicked
          ? this.rows()
              .filter(({ risk }) => risk.level !== 'trust')
              .map(({ id }) => id)
          : [],
      ),
    );
  }

  private choose(ticked: ReadonlySet<string>): void {
    this.ticked.set(ticked);
    const request = this.request();
    if (request !== null) this.chosen.next({ request, ids: [...ticked] });
  }

  protected take(): void {
    const patch = this.patch();
    if (patch === null) return;
    const { size } = this.ticked();
    this.edit.patch(patch, size === 1 ? 'Learning a rule from a sample' : `Learning ${size} rules from a sample`);
    this.dialog.close();
  }

  private request(): ProofRequest | null {
    const resolved = this.resolved();
    return resolved === null ? null : proofRequest(resolved, this.house(), this.role(), this.sample());
  }
}
