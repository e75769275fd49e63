import {
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  computed,
  effect,
  inject,
  signal,
  untracked,
  viewChild,
  type OnDestroy,
} from '@angular/core';
import { clean, type ResolvedProfile } from '@typikon/core';
import { AuthorEditor } from '@typikon/editor';
import { Store } from '@ngrx/store';
import { Api } from '../../state/api';
import { BenchActions, benchFeature } from '../../state/bench';
import { Dictionary } from '../../state/dictionary';
import { EditorSurroundings, surfaceOf } from '../../state/editor-services';
import { libraryFeature } from '../../state/library';
import { workshopFeature } from '../../state/workshop';

/** What is typed in a row is run through the rules once. */
const PAUSE_MS = 120;

/** What the author sees: a real editor, compiled from the draft, in a frame with the page kind's stylesheet and width. */
@Component({
  selector: 'ty-author-view',
  template: `
    <div class="widths" role="group" aria-label="Width of the author's screen">
      <span class="ty-soft">Shown</span>
      @for (width of widths(); track width.label) {
        <button type="button" [attr.aria-pressed]="chosen() === width.px" (click)="chosen.set(width.px)">{{ width.label }}</button>
      }
    </div>
    <div class="place" tabindex="-1">
      <div class="host" #host [style.width]="chosen() === null ? null : chosen() + 'px'"></div>
    </div>
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      flex: 1;
      min-height: 0;
    }
    .widths {
      display: flex;
      align-items: center;
      gap: 2px;
      flex: none;
      padding: 3px 12px;
      border-bottom: 1px solid var(--ty-hair);
      font-size: 12px;
    }
    .widths span {
      margin-right: 4px;
    }
    .widths button {
      padding: 2px 7px;
      border: 1px solid transparent;
      border-radius: 3px;
      background: none;
      color: var(--ty-soft);
      font-size: 12px;
      cursor: pointer;
    }
    .widths button[aria-pressed='true'] {
      border-color: var(--ty-line);
      background: var(--ty-sheet);
      color: var(--ty-ink);
    }
    .place {
      display: flex;
      flex: 1;
      min-height: 0;
      overflow: auto;
      background: var(--ty-sunken);
    }
    .host {
      display: flex;
      flex-direction: column;
      flex: none;
      width: 100%;
      height: 100%;
      min-height: 0;
      background: var(--ty-sheet);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AuthorView implements OnDestroy {
  private readonly store = inject(Store);
  private readonly host = viewChild.required<ElementRef<HTMLElement>>('host');
  private readonly api = inject(Api);
  private readonly dictionary = inject(Dictionary);
  private readonly surroundings = inject(EditorSurroundings);
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly rules = this.store.selectSignal(workshopFeature.selectRules);
  private readonly library = this.store.selectSignal(libraryFeature.selectLibrary);
  private readonly source = this.store.selectSignal(benchFeature.selectSource);
  private readonly typed = this.store.selectSignal(benchFeature.selectTyped);
  private readonly proof = this.store.selectSignal(benchFeature.selectProof);
  /** The width that is shown, in pixels; null for that of the bench. */
  protected readonly chosen = signal<number | null>(null);
  protected readonly widths = computed(() => {
    const column = this.library()?.pageKinds.find(({ id }) => id === this.resolved()?.profile.surface.pageKind)?.contentWidthPx ?? 720;
    return [
      { label: 'as wide as here', px: null },
      { label: 'phone 390', px: 390 },
      { label: 'tablet 768', px: 768 },
      { label: `column ${column}`, px: column },
      { label: 'desk 1280', px: 1280 },
    ];
  });
  private editor: AuthorEditor | null = null;
  private isPasting = false;
  private builtFor: unknown = null;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor() {
    effect(() => {
      const resolved = this.resolved();
      const rules = this.rules();
      const library = this.library();
      const typed = this.typed();
      const proof = typed === null ? this.proof() : null;
      const source = this.source();
      if (resolved === null || rules === null || library === null) return;
      if (typed === null) {
        // What came in is shown as it is stored; until that is known, what was there stays.
        if (proof === null || proof.input !== source || this.builtFor === proof) return;
        this.builtFor = proof;
        this.build(resolved, proof.html);
        return;
      }
      // What the author typed is not put back into the editor that it comes from.
      if (this.editor !== null && (this.builtFor === rules || this.rulesBuilt === rules)) return;
      this.builtFor = rules;
      this.build(resolved, clean(typed, rules).html);
    });
  }
  /** The rules that the editor was compiled from. */
  private rulesBuilt: unknown = null;

  ngOnDestroy(): void {
    clearTimeout(this.timer);
    this.tell();
    this.editor?.destroy();
  }

  private build(resolved: ResolvedProfile, html: string): void {
    const { rules, library } = { rules: untracked(this.rules)!, library: untracked(this.library)! };
    const surface = surfaceOf(library, resolved.profile.surface.pageKind);
    if (surface === null) return;
    this.rulesBuilt = rules;
    this.isChanged = false;
    this.editor?.destroy();
    this.editor = new AuthorEditor({
      host: this.host().nativeElement,
      resolved,
      rules,
      surface,
      html,
      label: `Text, with the profile ${resolved.profile.name}`,
      services: this.surroundings.services,
      isWord: (word) => this.dictionary.knows(word),
      uploadPictures: (pictures) => this.api.storePictures(pictures),
      onPaste: (payload) => {
        this.isPasting = true;
        this.store.dispatch(BenchActions.authorPasted({ payload }));
      },
      onSeeChanges: () => {
        this.store.dispatch(BenchActions.inputChosen({ showing: 'pasted' }));
        this.store.dispatch(BenchActions.lowerChosen({ lower: 'ledger' }));
      },
      onChange: () => {
        this.isChanged = true;
        clearTimeout(this.timer);
        if (this.isPasting) this.tell();
        else this.timer = setTimeout(() => this.tell(), PAUSE_MS);
      },
    });
  }
  private isChanged = false;

  /** Hands what the author has now to the bench. */
  private tell(): void {
    if (!this.isChanged || this.editor === null) return;
    this.isChanged = false;
    const isPaste = this.isPasting;
    this.isPasting = false;
    this.store.dispatch(BenchActions.authorTyped({ html: this.editor.html, isPaste }));
  }
}
