import { DatePipe, NgComponentOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  type OnDestroy,
  signal,
  type Type,
  untracked,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatTooltipModule } from '@angular/material/tooltip';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { Redo2, Undo2 } from 'lucide';
import { DraftBackup } from '../../state/draft-backup';
import { libraryFeature } from '../../state/library';
import { aheadOf } from '../../state/editions';
import { nameOf } from '../../state/profile-name';
import { workshopFeature } from '../../state/workshop';
import { WorkshopActions, type Chapter } from '../../state/workshop.actions';
import { Dialogs } from '../../ui/dialogs';
import { Icon } from '../../ui/icon';
import { Split } from '../../ui/split';
import { Tabs, type Tab } from '../../ui/tabs';
import { TitleLine } from '../../ui/title-line';
import { TOOLTIPS } from '../../ui/tooltips';
import { LEARN_DIALOG } from './learn-look';
import { ConflictNotice } from './conflict-notice';
import { goTo } from './go-to';
import { WORKSHOP_PARTS } from './parts';

/** The profile workshop: the sheet with its chapters on the left, the bench on the right. */
@Component({
  selector: 'ty-workshop',
  imports: [MatButtonModule, ConflictNotice, DatePipe, Icon, MatTooltipModule, NgComponentOutlet, RouterLink, Split, Tabs, TitleLine],
  templateUrl: './workshop.html',
  styleUrl: './workshop.scss',
  providers: [TOOLTIPS],
  host: { '(window:keydown)': 'key($event)', '(window:beforeunload)': 'beforeUnload($event)' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Workshop implements OnDestroy {
  /** From the address: whether the profile is to begin from a sample. */
  readonly learn = input<string>();
  /** From the address: where something is set that is to be opened, a JSON Pointer into the profile. */
  readonly at = input<string>();
  /** The profile's id, from the address. */
  readonly id = input.required<string>();

  private readonly store = inject(Store);
  private readonly backups = inject(DraftBackup);
  private readonly dialogs = inject(Dialogs);
  protected readonly parts = inject(WORKSHOP_PARTS);
  private readonly arrived = signal<Partial<Record<Chapter, Type<unknown>>>>({});
  /** A chapter that could not be loaded. */
  protected readonly failedChapter = signal<Chapter | null>(null);
  /** The chapter in view; null while it comes. */
  protected readonly chapterPart = computed(() => this.arrived()[this.state().chapter] ?? null);
  protected readonly icons = { undo: Undo2, redo: Redo2 };
  /** The share of the sheet, in percent: on a wide screen the bench gets the room for three things side by side. */
  protected readonly share = innerWidth >= 1600 ? 44 : 56;
  private readonly profiles = this.store.selectSignal(libraryFeature.selectProfiles);
  protected readonly state = this.store.selectSignal(workshopFeature.selectWorkshopState);
  protected readonly resolution = this.store.selectSignal(workshopFeature.selectResolution);
  protected readonly findings = this.store.selectSignal(workshopFeature.selectFindings);
  protected readonly changes = this.store.selectSignal(workshopFeature.selectChanges);
  private readonly editions = this.store.selectSignal(libraryFeature.selectEditions);
  /** The number of the last edition, and whether what is saved is ahead of it; null before editions are known. */
  protected readonly edition = computed(() => {
    const [last, profile] = [this.editions().get(this.id()), this.profiles().find(({ id }) => id === this.id())];
    return last === undefined || profile === undefined
      ? null
      : { number: last.number, isAhead: aheadOf(profile, this.editions()) !== null };
  });
  protected readonly isKnown = computed(() => this.profiles().some(({ id }) => id === this.id()));
  protected readonly name = computed(() => nameOf({ id: this.id(), document: this.state().draft }));
  protected readonly path = computed(() => {
    const parent = this.state().draft['extends'];
    const profile = this.profiles().find(({ id }) => id === parent);
    return [
      { text: 'Profiles', link: '/profiles' },
      ...(profile === undefined ? [] : [{ text: `extends ${nameOf(profile)}`, link: `/profiles/${profile.id}` }]),
    ];
  });
  protected readonly tabs = computed<Tab<Chapter>[]>(() => {
    const findings = this.findings();
    const mark = (section: string) => {
      const { length } = findings.filter(({ pointer }) => pointer.startsWith(section));
      return length === 0 ? {} : { mark: { text: String(length), meaning: length === 1 ? 'one finding' : `${length} findings` } };
    };
    return [
      { id: 'toolbar', label: 'Toolbar', cite: '§1', ...mark('/toolbar') },
      { id: 'markup', label: 'Markup', cite: '§2', ...mark('/markup') },
      { id: 'paste', label: 'Paste', cite: '§3', ...mark('/paste') },
      { id: 'styles', label: 'Styles', cite: '§4', ...mark('/styles') },
      { id: 'surface', label: 'Surface', cite: '§5', ...mark('/surface') },
      { id: 'help', label: 'Help', cite: '§6', ...mark('/help') },
      { id: 'findings', label: 'Findings', cite: '¶', ...mark('') },
    ];
  });
  protected readonly lastStep = computed(() => this.state().past.at(-1)?.label ?? '');
  protected readonly nextStep = computed(() => this.state().future[0]?.label ?? '');

  constructor() {
    effect(() => {
      const id = this.id();
      const profile = untracked(this.profiles).find((candidate) => candidate.id === id);
      if (profile === undefined) return;
      this.store.dispatch(WorkshopActions.opened({ profile, backup: this.backups.read(id) }));
      // What the dialog reads must not make this run again.
      untracked(() => {
        if (this.learn() !== undefined) void this.openLearning();
      });
    });
    effect(() => {
      const { chapter } = this.state();
      untracked(() => void this.bring(chapter));
    });
    // After the profile was opened, which the effect above does.
    effect(() => {
      const [id, at] = [this.id(), this.at()];
      if (id !== '' && at !== undefined && untracked(this.isKnown)) untracked(() => goTo(this.store, at));
    });
  }

  ngOnDestroy(): void {
    this.store.dispatch(WorkshopActions.left());
  }

  /** Loads a chapter that is opened for the first time. */
  protected async bring(chapter: Chapter): Promise<void> {
    this.failedChapter.set(null);
    if (this.arrived()[chapter] !== undefined) return;
    try {
      const part = await this.parts.chapters[chapter]();
      this.arrived.update((parts) => ({ ...parts, [chapter]: part }));
    } catch {
      this.failedChapter.set(chapter);
    }
  }

  protected choose(chapter: string): void {
    this.store.dispatch(WorkshopActions.chapterChosen({ chapter: chapter as Chapter }));
  }

  protected async openFiles(): Promise<void> {
    await this.dialogs.open(async () => (await import('./files-dialog')).FilesDialog, {
      width: '720px',
      maxWidth: '94vw',
      maxHeight: '92vh',
    });
  }

  private async openLearning(): Promise<void> {
    await this.dialogs.open(async () => (await import('./learn-dialog')).LearnDialog, LEARN_DIALOG);
  }

  protected undo(): void {
    this.store.dispatch(WorkshopActions.undoPressed());
  }

  protected redo(): void {
    this.store.dispatch(WorkshopActions.redoPressed());
  }

  protected save(): void {
    if (this.changes() > 0 && !this.state().isSaving) this.store.dispatch(WorkshopActions.savePressed());
  }

  protected restoreBackup(): void {
    this.store.dispatch(WorkshopActions.backupRestored());
  }

  protected discardBackup(): void {
    this.store.dispatch(WorkshopActions.backupDiscarded());
  }

  protected key(event: KeyboardEvent): void {
    if (!(event.ctrlKey || event.metaKey) || event.altKey) return;
    const key = event.key.toLowerCase();
    if (key === 's') {
      event.preventDefault();
      this.save();
      return;
    }
    // In a text field the keys undo what was typed there.
    if (
      (event.target as HTMLElement).closest?.(
        'input:not([type=checkbox]):not([type=radio]), textarea, [contenteditable=true], .cm-editor',
      ) != null
    )
      return;
    if (key === 'z') {
      event.preventDefault();
      if (event.shiftKey) this.redo();
      else this.undo();
    } else if (key === 'y') {
      event.preventDefault();
      this.redo();
    }
  }

  protected beforeUnload(event: BeforeUnloadEvent): void {
    if (this.changes() > 0) event.preventDefault();
  }
}
