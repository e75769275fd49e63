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
import { clean, type Profile } from '@typikon/core';
import { AuthorEditor, type Surface } from '@typikon/editor';
import { Store } from '@ngrx/store';
import { BenchActions, benchFeature } from '../../state/bench';
import { libraryFeature } from '../../state/library';
import { workshopFeature } from '../../state/workshop';

/** What the author sees: a real editor, compiled from the draft, in a frame with the page kind's stylesheet and width. */
@Component({
  selector: 'ty-author-view',
  template: `
    <div class="host" #host></div>
    @if (strip(); as text) {
      <p class="strip" role="status">{{ text }}</p>
    }
  `,
  styles: `
    :host,
    .host {
      display: flex;
      flex-direction: column;
      flex: 1;
      min-height: 0;
    }
    .strip {
      padding: 6px 16px;
      border-top: 1px solid var(--ty-line);
      background: var(--ty-verdigris-wash);
      font-size: 12.5px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AuthorView implements OnDestroy {
  private readonly store = inject(Store);
  private readonly host = viewChild.required<ElementRef<HTMLElement>>('host');
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly rules = this.store.selectSignal(workshopFeature.selectRules);
  private readonly library = this.store.selectSignal(libraryFeature.selectLibrary);
  private readonly source = this.store.selectSignal(benchFeature.selectSource);
  private readonly typed = this.store.selectSignal(benchFeature.selectTyped);
  /** Counts how often the bench was given other markup than what was typed here. */
  private readonly subject = computed(() => (this.typed() === null ? this.source() : null));
  protected readonly strip = signal('');
  private editor: AuthorEditor | null = null;
  private isPasting = false;

  constructor() {
    effect(() => {
      const profile = this.resolved()?.profile;
      const rules = this.rules();
      const library = this.library();
      const subject = this.subject();
      if (profile === undefined || rules === null || library === null) return;
      const html = subject ?? untracked(this.typed) ?? '';
      // What the author typed is not put back into the editor that it comes from.
      if (subject === null && this.editor !== null && this.builtFor === rules) return;
      this.builtFor = rules;
      this.build(profile, clean(html, rules).html);
    });
  }
  private builtFor: unknown = null;

  ngOnDestroy(): void {
    this.editor?.destroy();
  }

  private build(profile: Profile, html: string): void {
    const { rules, library } = { rules: this.rules()!, library: untracked(this.library)! };
    const kind = library.pageKinds.find(({ id }) => id === profile.surface.pageKind) ?? library.pageKinds[0];
    if (kind === undefined) return;
    const surface: Surface = {
      pageKind: kind,
      css: kind.css.map(({ css }) => css),
      baseAddress: `${library.siteOrigin}/`,
      language: 'en-GB',
    };
    this.editor?.destroy();
    this.strip.set('');
    this.editor = new AuthorEditor({
      host: this.host().nativeElement,
      profile,
      rules,
      surface,
      html,
      label: `Text, with the profile ${profile.name}`,
      onPaste: ({ html: payload, cleaned }) => {
        this.isPasting = true;
        const { length } = cleaned.ledger;
        this.strip.set(
          length === 0
            ? 'Pasted as it came.'
            : `Tidied the paste: ${length === 1 ? 'one change' : `${length} changes`}. The ledger below lists them.`,
        );
        this.store.dispatch(BenchActions.authorPasted({ html: payload }));
      },
      onChange: (changed) => {
        const isPaste = this.isPasting;
        this.isPasting = false;
        if (!isPaste) this.strip.set('');
        this.store.dispatch(BenchActions.authorTyped({ html: changed, isPaste }));
      },
    });
  }
}
