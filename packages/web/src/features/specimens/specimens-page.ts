import { sourceName } from '@typikon/core/settings';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input, linkedSignal, signal, untracked } from '@angular/core';
import { MatSelectModule } from '@angular/material/select';
import { MatInputModule } from '@angular/material/input';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { Router, RouterLink } from '@angular/router';
import { idFrom, detectSource, SPECIMEN_FORMAT, type ClipboardPayload, type Expectation, type SpecimenDocument } from '@typikon/core';
import { payloadOf } from '@typikon/editor';
import { Store } from '@ngrx/store';
import { Api, type ApiFailure } from '../../state/api';
import { libraryFeature, LibraryActions } from '../../state/library';
import type { Specimen } from '../../state/types';
import { Confirm, type Question } from '../../ui/confirm';
import { download } from '../../ui/download';
import { TitleLine } from '../../ui/title-line';
import { ExpectationsEditor } from './expectations-editor';
import { readFolder, readSpecimenFiles } from './specimen-files';
import { inAddress } from '../../ui/in-address';

/** A specimen as it is edited: one that is stored, or one that was just caught. */
interface Edited {
  /** The stored one; null for one that is new. */
  stored: Specimen | null;
  id: string;
  name: string;
  kind: string;
  notes: string;
  profile: string;
  arrives: 'paste' | 'stored';
  payload: ClipboardPayload;
  expectations: Expectation[];
}

/** Specimens: what profiles are tried on. A catcher takes whole pastes, files and typed text; each can say what must come out of it. */
@Component({
  selector: 'ty-specimens-page',
  imports: [MatSelectModule, MatInputModule, MatFormFieldModule, MatButtonModule, ExpectationsEditor, RouterLink, TitleLine],
  templateUrl: './specimens-page.html',
  styleUrl: './specimens-page.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SpecimensPage {
  /** The specimen shown, from the address. */
  readonly id = input<string>();
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly dialog = inject(MatDialog);
  protected readonly profiles = this.store.selectSignal(libraryFeature.selectProfiles);
  protected readonly names = this.store.selectSignal(libraryFeature.selectNames);
  private readonly all = this.store.selectSignal(libraryFeature.selectSpecimens);
  protected readonly filter = inAddress('words');
  protected readonly isCatching = signal(false);
  protected readonly notice = signal('');
  protected readonly failure = signal('');
  protected readonly isBusy = signal(false);
  protected readonly typed = signal('');

  protected readonly listed = computed(() => {
    const wanted = this.filter().trim().toLowerCase();
    return this.all()
      .filter(({ name, kind, notes }) => wanted === '' || `${name} ${kind} ${notes}`.toLowerCase().includes(wanted))
      .map((specimen) => ({ specimen, types: Object.keys(specimen.payload.types).map(shortType).join(', ') }));
  });
  protected readonly total = computed(() => this.all().length);
  private readonly stored = computed(() => this.all().find(({ id }) => id === this.id()) ?? this.all()[0] ?? null);
  protected readonly edited = linkedSignal<Specimen | null, Edited | null>({
    source: this.stored,
    computation: (specimen) => (specimen === null ? null : editedFrom(specimen)),
  });
  protected readonly isChanged = computed(() => {
    const edited = this.edited();
    if (edited === null) return false;
    return edited.stored === null || JSON.stringify(documentOf(edited)) !== JSON.stringify(documentOf(editedFrom(edited.stored)));
  });
  protected readonly types = computed(() => Object.entries(this.edited()?.payload.types ?? {}).map(([type, text]) => ({ type, text })));
  protected readonly type = linkedSignal<string[], string>({
    source: () => this.types().map(({ type }) => type),
    computation: (types) => types[0] ?? '',
  });
  protected readonly raw = computed(() => {
    const text = this.edited()?.payload.types[this.type()] ?? '';
    return text.length > MOST_SHOWN ? `${text.slice(0, MOST_SHOWN)}\n… and ${text.length - MOST_SHOWN} more characters` : text;
  });
  protected readonly told = computed(() => {
    const edited = this.edited();
    if (edited === null) return '';
    const { source, evidence } = detectSource(edited.payload);
    const marks = evidence.filter((one) => one.source === source).map(({ mark }) => mark);
    return `${sourceName(source)}, told by ${marks.join(', ')}`;
  });

  constructor() {
    effect(() => {
      this.id();
      untracked(() => {
        this.isCatching.set(false);
        this.notice.set('');
        this.failure.set('');
      });
    });
  }

  protected beginCatch(): void {
    this.isCatching.set(true);
    this.typed.set('');
    this.failure.set('');
    this.notice.set('');
  }

  protected caught(event: ClipboardEvent): void {
    if (event.clipboardData === null) return;
    event.preventDefault();
    this.take(payloadOf(event.clipboardData), '');
  }

  protected dropped(event: DragEvent): void {
    event.preventDefault();
    const { dataTransfer } = event;
    if (dataTransfer === null) return;
    if (dataTransfer.files.length > 0) void this.readFiles([...dataTransfer.files]);
    else this.take(payloadOf(dataTransfer), '');
  }

  protected over(event: DragEvent): void {
    event.preventDefault();
  }

  protected takeTyped(): void {
    this.take({ types: { 'text/plain': this.typed() } }, '');
  }

  protected chooseFiles(list: FileList | null): void {
    void this.readFiles([...(list ?? [])]);
  }

  protected set(part: Partial<Edited>): void {
    this.edited.update((edited) => (edited === null ? null : { ...edited, ...part }));
  }

  protected save(): void {
    const edited = this.edited();
    if (edited === null || this.isBusy()) return;
    this.isBusy.set(true);
    this.failure.set('');
    const document = documentOf(edited);
    const id = idFrom(edited.name);
    const answer =
      edited.stored === null
        ? this.api.addSpecimen({ ...document, id: this.freeId(id) })
        : this.api.changeSpecimen(edited.id, document, edited.stored.revision);
    answer.subscribe({
      next: (specimen) => {
        this.isBusy.set(false);
        this.store.dispatch(LibraryActions.specimenStored({ specimen }));
        void this.router.navigate(['/specimens', specimen.id]).then(() => this.notice.set('Saved.'));
      },
      error: ({ message }: ApiFailure) => {
        this.isBusy.set(false);
        this.failure.set(`Not saved. ${message}`);
      },
    });
  }

  protected abandon(): void {
    const stored = this.stored();
    this.edited.set(stored === null ? null : editedFrom(stored));
    this.isCatching.set(false);
    this.failure.set('');
  }

  protected remove(): void {
    const { stored } = this.edited() ?? {};
    if (stored === undefined || stored === null) return;
    const data: Question = {
      title: `Remove “${stored.name}”?`,
      text: 'Nothing else refers to it. Export it first if it may be wanted again.',
      answers: [
        { value: 'remove', label: 'Remove it' },
        { value: 'keep', label: 'Keep it', isMain: true },
      ],
    };
    this.dialog
      .open<Confirm, Question, string>(Confirm, { data, maxWidth: '480px' })
      .afterClosed()
      .subscribe((answer) => {
        if (answer !== 'remove') return;
        this.api.removeSpecimen(stored.id, stored.revision).subscribe({
          next: () => {
            this.store.dispatch(LibraryActions.specimenRemoved({ id: stored.id }));
            void this.router.navigate(['/specimens']).then(() => this.notice.set(`“${stored.name}” is gone.`));
          },
          error: ({ message }: ApiFailure) => this.failure.set(`Not removed. ${message}`),
        });
      });
  }

  protected exportOne(): void {
    const { stored } = this.edited() ?? {};
    if (stored != null) download(`${stored.id}.specimen.json`, 'application/json', `${JSON.stringify(asDocument(stored), null, 2)}\n`);
  }

  /** All of them as a folder, which `typikon prove` takes as it is. */
  protected async exportAll(): Promise<void> {
    try {
      const { folderOf, zipped } = await import('./specimen-folder');
      download('specimens.zip', 'application/zip', await zipped(folderOf(this.all().map(asDocument))));
    } catch (error) {
      this.failure.set(`Not exported. ${error instanceof Error ? error.message : String(error)}`);
    }
  }

  private async readFiles(files: readonly File[]): Promise<void> {
    this.failure.set('');
    this.notice.set('');
    try {
      const isFolder = files.length > 1 && files.some(({ name }) => name.endsWith('.json'));
      const read = isFolder ? await readFolder(files) : (await Promise.all(files.map((file) => readSpecimenFiles(file)))).flat();
      const whole = read.flatMap(({ specimen }) => (specimen === undefined ? [] : [specimen]));
      const [single] = read;
      if (read.length === 1 && single !== undefined) {
        this.take(single.payload, single.name, single.specimen);
        this.notice.set(single.remarks.join(' '));
      } else if (whole.length === read.length) await this.addAll(whole);
      else this.failure.set('Take files one at a time; only specimens, and what they hold, can come together.');
    } catch (error) {
      this.failure.set(error instanceof Error ? error.message : String(error));
    }
  }

  private async addAll(specimens: readonly SpecimenDocument[]): Promise<void> {
    let added = 0;
    for (const specimen of specimens)
      await new Promise<void>((done, fail) =>
        this.api.addSpecimen({ ...specimen, id: this.freeId(specimen.id ?? idFrom(specimen.name)) }).subscribe({
          next: (stored) => {
            added++;
            this.store.dispatch(LibraryActions.specimenStored({ specimen: stored }));
            done();
          },
          error: ({ message }: ApiFailure) => fail(new Error(`“${specimen.name}” was not taken in, ${added} before it were. ${message}`)),
        }),
      );
    this.isCatching.set(false);
    this.notice.set(`${added} specimens were taken in.`);
  }

  private take(payload: ClipboardPayload, name: string, specimen?: SpecimenDocument): void {
    if (Object.values(payload.types).every((text) => text.trim() === '')) {
      this.failure.set('There is no text on the clipboard.');
      return;
    }
    const { source } = detectSource(payload);
    this.failure.set('');
    this.isCatching.set(false);
    this.edited.set({
      stored: null,
      id: '',
      name: specimen?.name ?? name,
      kind: specimen?.kind ?? sourceName(source).toLowerCase(),
      notes: specimen?.notes ?? '',
      profile: specimen !== undefined && this.names().has(specimen.profile) ? specimen.profile : (this.profiles()[0]?.id ?? ''),
      arrives: specimen?.arrives ?? 'paste',
      payload,
      expectations: specimen?.expectations ?? [],
    });
  }

  private freeId(id: string): string {
    const taken = new Set(this.all().map((specimen) => specimen.id));
    let free = id;
    for (let i = 2; taken.has(free); i++) free = `${id}-${i}`;
    return free;
  }
}

const MOST_SHOWN = 60_000;

function editedFrom(stored: Specimen): Edited {
  const { id, name, kind, notes, profileId, arrives, payload, expectations } = stored;
  return { stored, id, name, kind, notes, profile: profileId, arrives, payload, expectations };
}

function documentOf({ name, kind, notes, profile, arrives, payload, expectations }: Omit<Edited, 'stored' | 'id'>): SpecimenDocument {
  const { types, files } = payload;
  return {
    format: SPECIMEN_FORMAT,
    name,
    kind,
    notes,
    profile,
    arrives,
    payload: { types: { ...types }, ...(files === undefined ? {} : { files: [...files] }) },
    expectations,
  };
}

const asDocument = (specimen: Specimen): SpecimenDocument & { id: string } => ({ ...documentOf(editedFrom(specimen)), id: specimen.id });

function shortType(type: string): string {
  return type.replace(/^text\//, '').replace(/^plain$/, 'text');
}
