import {
  canReadPatterns,
  clean,
  compileRules,
  resolveProfile,
  type CompiledRules,
  type HouseLimits,
  type Json,
  type PastedPicture,
  type ResolvedProfile,
} from '@typikon/core/editing';
import { AuthorEditor, type AuthorEditorOptions } from './author-editor';
import { buildPasteStrip } from './paste/strip';
import type { EditorServices } from './services/index';
import type { Surface } from './surface';

/** Everything an editor needs to know before it can begin. */
export interface EditorConfiguration {
  /** The profile, resolved; or its documents by id, with the id of the one that is meant. */
  profile: ResolvedProfile | { id: string; documents: Readonly<Record<string, Json>> };
  house?: HouseLimits | null;
  /** For whose content; empty for anybody whom the house limits bind. */
  role?: string;
  surface: Surface;
  services?: EditorServices;
  uploadPictures?: (pictures: readonly PastedPicture[]) => Promise<void>;
  isWord?: (word: string) => boolean;
  onPaste?: AuthorEditorOptions['onPaste'];
  onSeeChanges?: AuthorEditorOptions['onSeeChanges'];
}

const DRAFT_PAUSE_MS = 400;

// In a page without elements of its own, such as a server's, the module can still be loaded.
const Base: typeof HTMLElement = typeof HTMLElement === 'undefined' ? (class {} as typeof HTMLElement) : HTMLElement;

/**
 * `<typikon-editor>`: the author's editor as an element of a form (HTML, section 4.13.6 "Form-associated custom elements").
 *
 * Attributes: `name`, `label`, `required`. Properties: `configuration`, `value`. It fires `input` with each change and
 * `change` when the author leaves it after one; its value is the markup, cleaned by the profile's rules.
 *
 * @example
 * const editor = document.createElement('typikon-editor');
 * editor.configuration = { profile: { id: 'note', documents: { note } }, surface };
 * editor.value = '<p>Words</p>';
 * form.append(editor);
 */
export class TypikonEditor extends Base {
  static readonly formAssociated = true;
  static readonly observedAttributes = ['required', 'label'];
  private readonly internals: ElementInternals = this.attachInternals();
  private editor: AuthorEditor | null = null;
  private rules: CompiledRules | null = null;
  private given: EditorConfiguration | null = null;
  private text = '';
  private isChanged = false;
  private listenedTo: HTMLFormElement | null = null;
  private draftTimer: ReturnType<typeof setTimeout> | undefined;

  /** While what reads patterns is on its way. */
  private loading: Promise<void> | null = null;

  get configuration(): EditorConfiguration | null {
    return this.given;
  }

  set configuration(configuration: EditorConfiguration | null) {
    this.given = configuration;
    this.build(this.value);
  }

  /** The markup. What is set is cleaned by the rules before it is shown. */
  get value(): string {
    return this.editor?.html ?? this.text;
  }

  set value(html: string) {
    this.text = html;
    this.isChanged = false;
    this.build(html);
  }

  get name(): string {
    return this.getAttribute('name') ?? '';
  }

  get form(): HTMLFormElement | null {
    return this.internals.form;
  }

  get validity(): ValidityState {
    return this.internals.validity;
  }

  get validationMessage(): string {
    return this.internals.validationMessage;
  }

  /** Resolves once the author can type. */
  get ready(): Promise<void> {
    return this.editor?.ready ?? this.loading?.then(() => this.editor?.ready) ?? Promise.resolve();
  }

  checkValidity(): boolean {
    return this.internals.checkValidity();
  }

  reportValidity(): boolean {
    return this.internals.reportValidity();
  }

  override focus(): void {
    this.editor?.focus();
  }

  connectedCallback(): void {
    // Validity is shown at the element, which must be able to have the focus for that.
    if (!this.hasAttribute('tabindex')) this.tabIndex = -1;
    window.addEventListener('pagehide', this.onLeave);
    this.build(this.value);
  }

  disconnectedCallback(): void {
    this.text = this.value;
    this.keepDraft();
    window.removeEventListener('pagehide', this.onLeave);
    this.editor?.destroy();
    this.editor = null;
  }

  attributeChangedCallback(): void {
    this.tell();
  }

  formResetCallback(): void {
    this.value = this.getAttribute('value') ?? '';
  }

  /** Forgets what was kept locally, once the value is stored elsewhere. */
  stored(): void {
    this.forgetPause();
    this.given?.services?.drafts?.remove();
    this.querySelector('.te-draft')?.remove();
    this.isChanged = false;
  }

  private forgetPause(): void {
    clearTimeout(this.draftTimer);
    this.draftTimer = undefined;
  }

  /** Keeps what was written since the last pause, however soon the author leaves. */
  private keepDraft(): void {
    if (this.draftTimer === undefined) return;
    this.forgetPause();
    this.given?.services?.drafts?.write(this.value);
  }

  private readonly onLeave = (): void => this.keepDraft();

  private build(html: string): void {
    const { given } = this;
    if (given === null || !this.isConnected) return;
    if (!canReadPatterns() && mentionsPatterns(given)) {
      this.buildLater();
      return;
    }
    const resolved = 'chain' in given.profile ? given.profile : this.resolve(given.profile);
    const { house, role } = given;
    this.rules = compileRules(resolved, { ...(house == null ? {} : { house }), ...(role === undefined || role === '' ? {} : { role }) });
    this.editor?.destroy();
    this.editor = new AuthorEditor({
      host: this,
      resolved,
      rules: this.rules,
      surface: given.surface,
      html: clean(html, this.rules).html,
      label: this.getAttribute('label') ?? this.name,
      ...(given.services === undefined ? {} : { services: given.services }),
      ...(given.uploadPictures === undefined ? {} : { uploadPictures: given.uploadPictures }),
      ...(given.isWord === undefined ? {} : { isWord: given.isWord }),
      ...(given.onPaste === undefined ? {} : { onPaste: given.onPaste }),
      ...(given.onSeeChanges === undefined ? {} : { onSeeChanges: given.onSeeChanges }),
      onChange: () => {
        this.isChanged = true;
        this.tell();
        clearTimeout(this.draftTimer);
        this.draftTimer = setTimeout(this.onLeave, DRAFT_PAUSE_MS);
        this.dispatchEvent(new Event('input', { bubbles: true }));
      },
      onBlur: () => {
        if (!this.isChanged) return;
        this.isChanged = false;
        this.dispatchEvent(new Event('change', { bubbles: true }));
      },
    });
    this.tell();
    this.offerDraft();
  }

  /** Few profiles have patterns: what reads them comes for those alone. */
  private buildLater(): void {
    // What was written stays the value meanwhile.
    this.text = this.value;
    this.editor?.destroy();
    this.editor = null;
    this.textContent = 'The editor is being loaded …';
    this.loading = import('@typikon/core/pattern-engine').then(
      () => {
        this.loading = null;
        this.textContent = '';
        this.build(this.value);
      },
      () => {
        this.loading = null;
        this.textContent = 'The editor could not be loaded: the server does not answer. Load the page again.';
      },
    );
  }

  private resolve({ id, documents }: { id: string; documents: Readonly<Record<string, Json>> }): ResolvedProfile {
    const resolution = resolveProfile(id, (name) => documents[name]);
    if (!resolution.ok) throw new Error(resolution.problems.map(({ pointer, message }) => `${pointer} ${message}`.trim()).join(' '));
    return resolution.resolved;
  }

  /** Says whether the form may be sent. The value itself is written down when the form asks for it, not with each key. */
  private tell(): void {
    if (!this.isConnected) return;
    if (this.hasAttribute('required') && this.editor?.isEmpty === true)
      this.internals.setValidity({ valueMissing: true }, 'Please write something here.', this);
    else this.internals.setValidity({});
  }

  private readonly onFormData = (event: FormDataEvent): void => {
    if (this.name !== '') event.formData.set(this.name, this.value);
  };

  formAssociatedCallback(form: HTMLFormElement | null): void {
    this.listenedTo?.removeEventListener('formdata', this.onFormData);
    this.listenedTo = form;
    form?.addEventListener('formdata', this.onFormData);
  }

  /** What was not stored when the page was last left is offered back. */
  private offerDraft(): void {
    const drafts = this.given?.services?.drafts;
    const draft = drafts?.read() ?? null;
    if (drafts === undefined || draft === null || draft.html === this.value || this.rules === null) return;
    const strip = buildPasteStrip(this.ownerDocument);
    strip.dom.classList.add('te-draft');
    const at = new Date(draft.at);
    const when = Number.isNaN(at.getTime())
      ? ''
      : ` (${at.toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })})`;
    strip.say(`A text that was not stored is still in this browser${when}.`, [
      {
        label: 'Take it back',
        press: () => {
          drafts.takenBack?.();
          this.editor?.replaceAll(clean(draft.html, this.rules!).html);
          strip.dom.remove();
        },
      },
      {
        label: 'Throw it away',
        press: () => {
          drafts.remove();
          strip.dom.remove();
        },
      },
    ]);
    this.querySelector('.te-root')?.prepend(strip.dom);
  }
}

/** Whether a profile or the house limits may hold a pattern; more often than they do, never less. */
function mentionsPatterns({ profile, house }: EditorConfiguration): boolean {
  return /"pattern"/.test(JSON.stringify(['chain' in profile ? profile.chain : profile.documents, house ?? null]));
}

/** Makes `<typikon-editor>` known to the page; a second call does nothing. */
export function defineTypikonEditor(): void {
  if (customElements.get('typikon-editor') === undefined) customElements.define('typikon-editor', TypikonEditor);
}

/** Keeps text in the browser under a key (Web Storage). */
export function draftsInBrowser(key: string, storage: Storage): NonNullable<EditorServices['drafts']> {
  const name = `typikon-text:${key}`;
  return {
    read() {
      try {
        const kept = JSON.parse(storage.getItem(name) ?? 'null') as { html?: unknown; at?: unknown } | null;
        return kept !== null && typeof kept.html === 'string' && typeof kept.at === 'string' ? { html: kept.html, at: kept.at } : null;
      } catch {
        return null;
      }
    },
    write(html) {
      try {
        storage.setItem(name, JSON.stringify({ html, at: new Date().toISOString() }));
      } catch {
        // A full or forbidden storage must not keep anybody from writing on.
      }
    },
    remove: () => storage.removeItem(name),
  };
}
