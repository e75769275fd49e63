import {
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  effect,
  inject,
  input,
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
import { selectRules } from '../../state/rules';
import { workshopFeature } from '../../state/workshop';

/** What is typed in a row is run through the rules once. */
const PAUSE_MS = 120;

/** What the author sees: a real editor, compiled from the draft, in a frame with the page kind's stylesheet and width. */
@Component({
  selector: 'ty-author-view',
  template: `
    <div class="place" tabindex="-1">
      <div class="host" #host [style.width.px]="widthPx()"></div>
    </div>
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      flex: 1;
      min-height: 0;
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
  private readonly rules = this.store.selectSignal(selectRules);
  private readonly library = this.store.selectSignal(libraryFeature.selectLibrary);
  private readonly source = this.store.selectSignal(benchFeature.selectSource);
  private readonly typed = this.store.selectSignal(benchFeature.selectTyped);
  private readonly proof = this.store.selectSignal(benchFeature.selectProof);
  /** The width that is shown, in pixels; null for that of the bench. */
  readonly widthPx = input<number | null>(null);
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
