import {
  ChangeDetectionStrategy,
  Component,
  computed,
  CUSTOM_ELEMENTS_SCHEMA,
  effect,
  type ElementRef,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { resolveProfile, type ResolvedProfile } from '@typikon/core';
import { defineTypikonEditor, draftsInBrowser, type TypikonEditor } from '@typikon/editor';
import { Store } from '@ngrx/store';
import { Api, type ApiFailure } from '../../state/api';
import { Dictionary } from '../../state/dictionary';
import { EditorSurroundings, surfaceOf } from '../../state/editor-services';
import { libraryFeature } from '../../state/library';
import { nameOf } from '../../state/profile-name';
import type { StoredDocument } from '../../state/types';
import { TitleLine } from '../../ui/title-line';

/** One document as its author writes it, with the profile that is saved for it. */
@Component({
  selector: 'ty-desk',
  imports: [RouterLink, TitleLine],
  schemas: [CUSTOM_ELEMENTS_SCHEMA],
  templateUrl: './desk.html',
  styleUrl: './desk.scss',
  host: { '(window:beforeunload)': 'beforeUnload($event)', '(window:keydown)': 'key($event)' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Desk {
  /** The id of the document, from the address. */
  readonly id = input.required<string>();
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly dictionary = inject(Dictionary);
  private readonly surroundings = inject(EditorSurroundings);
  private readonly library = this.store.selectSignal(libraryFeature.selectLibrary);
  private readonly house = this.store.selectSignal(libraryFeature.selectHouse);
  private readonly editor = viewChild<ElementRef<TypikonEditor>>('editor');
  protected readonly document = signal<StoredDocument | null>(null);
  protected readonly failure = signal('');
  protected readonly message = signal('');
  protected readonly isChanged = signal(false);
  protected readonly isSaving = signal(false);
  protected readonly profile = computed((): ResolvedProfile | null => {
    const id = this.document()?.profileId;
    const profiles = new Map(this.library()?.profiles.map((profile) => [profile.id, profile.document]));
    const resolution = id === undefined ? null : resolveProfile(id, (name) => profiles.get(name));
    return resolution?.ok === true ? resolution.resolved : null;
  });
  protected readonly path = computed(() => [{ text: 'Site', link: '/site' }, { text: this.document()?.contentType ?? '' }]);
  protected readonly profileName = computed(() => {
    const profile = this.library()?.profiles.find(({ id }) => id === this.document()?.profileId);
    return profile === undefined ? '' : nameOf(profile);
  });

  constructor() {
    defineTypikonEditor();
    effect(() => {
      const id = this.id();
      this.document.set(null);
      this.failure.set('');
      this.message.set('');
      this.isChanged.set(false);
      this.api.document(id).subscribe({
        next: (document) => this.document.set(document),
        error: ({ message }: ApiFailure) => this.failure.set(message),
      });
    });
    effect(() => {
      const element = this.editor()?.nativeElement;
      const profile = this.profile();
      const library = untracked(this.library);
      const document = untracked(this.document);
      if (element === undefined || profile === null || library === null || document === null || element.dataset['of'] === document.id)
        return;
      const surface = surfaceOf(library, document.pageKindId);
      if (surface === null) return;
      element.dataset['of'] = document.id;
      element.value = document.html;
      element.configuration = {
        profile,
        house: untracked(this.house),
        surface,
        services: { ...this.surroundings.services, drafts: draftsInBrowser(document.id, localStorage) },
        isWord: (word) => this.dictionary.knows(word),
        uploadPictures: (pictures) => this.api.storePictures(pictures),
      };
    });
  }

  protected changed(): void {
    this.isChanged.set(true);
    this.message.set('');
  }

  protected save(): void {
    const element = this.editor()?.nativeElement;
    const document = this.document();
    if (element === undefined || document === null || this.isSaving()) return;
    if (!element.reportValidity()) return;
    this.isSaving.set(true);
    this.failure.set('');
    const { value } = element;
    this.api.saveDocument(document.id, value, document.revision).subscribe({
      next: ({ changes, ...stored }) => {
        this.isSaving.set(false);
        element.stored();
        this.isChanged.set(element.value !== value);
        this.message.set(
          changes === 0 ? 'Stored as it stands here.' : `Stored. The rules changed ${changes === 1 ? 'one thing' : `${changes} things`}.`,
        );
        this.document.set(stored);
      },
      error: ({ message }: ApiFailure) => {
        this.isSaving.set(false);
        this.failure.set(`Not stored. ${message} Your text is kept in this browser.`);
      },
    });
  }

  protected key(event: KeyboardEvent): void {
    if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 's') return;
    event.preventDefault();
    this.save();
  }

  protected beforeUnload(event: BeforeUnloadEvent): void {
    if (this.isChanged()) event.preventDefault();
  }
}
