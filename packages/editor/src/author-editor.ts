import {
  arrangeToolbar,
  buttonOf,
  clean,
  type ButtonId,
  type ClipboardPayload,
  type CompiledRules,
  type Pasted,
  type PastedPicture,
  type ResolvedProfile,
  isValueKept,
} from '@typikon/core/editing';
import { dropCursor } from 'prosemirror-dropcursor';
import { gapCursor } from 'prosemirror-gapcursor';
import { closeHistory, history } from 'prosemirror-history';
import { keymap } from 'prosemirror-keymap';
import type { Node, Schema } from 'prosemirror-model';
import { EditorState, Selection, TextSelection, type Command, type Plugin } from 'prosemirror-state';
import { EditorView } from 'prosemirror-view';
import { EDITOR_BUTTONS } from './buttons/index';

import type { EditorContext, Mode } from './context';
import { openDialog } from './panels/dialog';
import { buildFindStrip, type FindStrip } from './panels/find-strip';
import { buildFoot, type Foot } from './panels/foot';
import { make } from './panels/make';
import { openMenu } from './panels/menu';
import { buildOutline, type OutlinePanel } from './panels/outline-panel';
import { Intake } from './paste/intake';
import { ownMarkOf } from './paste/payload';
import { standInBoxes } from './paste/stand-ins';
import { buildPasteStrip, type PasteStrip } from './paste/strip';
import { findView } from './plugins/find';
import { indentBlocks, typingKeys } from './plugins/keys';
import { cursorAmongWords } from './plugins/cursor';
import { lines, singleSpaces } from './plugins/lines';
import { opaqueView } from './plugins/opaque-views';
import { overlay } from './plugins/overlay';
import { typedShortcuts } from './plugins/shortcuts';
import { correct, misspeltAt, spellingKey, spellingView } from './plugins/spelling';
import { styleMemory } from './plugins/style-memory';
import { marksOfFault, structureKey, structureView } from './plugins/views';
import { compileSchema, OPAQUE_BLOCK, OPAQUE_INLINE } from './schema/compile';
import { readDocument } from './schema/read';
import type { Source } from './schema/source';
import { writeDocument } from './schema/write';
import type { EditorServices } from './services/index';
import { frameDocument, stylesheetsOf, type Surface } from './surface';
import { blockedBy, buildToolbar, type Toolbar } from './toolbar/toolbar';

export interface AuthorEditorOptions {
  /** The element that the toolbar and the frame are put into. */
  host: HTMLElement;
  resolved: ResolvedProfile;
  rules: CompiledRules;
  surface: Surface;
  /** Clean markup to begin with. */
  html: string;
  /** What the field is called, for people who do not see it. */
  label: string;
  services?: EditorServices;
  /** Called after each change that the author makes; `html` writes the markup down, which takes time, so it is done when asked for. */
  onChange?(): void;
  /** Called when the author leaves the text. */
  onBlur?(): void;
  /** Called with each paste or drop, before it is put in: what came, and what the passes and rules made of it. */
  onPaste?: (payload: ClipboardPayload, pasted: Pasted) => void;
  /** Called when the author asks what was done to a paste. */
  onSeeChanges?: () => void;
  /** Puts pictures into the asset library; without it, boxes stand in their place. */
  uploadPictures?: (pictures: readonly PastedPicture[]) => Promise<void>;
  /** Whether a dictionary knows a word, for hyphens at the ends of lines. */
  isWord?: (word: string) => boolean;
}

/**
 * The author's editor: the profile's buttons beside a frame that carries the page kind's stylesheets.
 * Schema, buttons and paste all come from the same compiled rules.
 */
export class AuthorEditor {
  /** Resolves once the frame is there and the author can type. */
  readonly ready: Promise<void>;
  private view: EditorView | null = null;
  private source: Source | null = null;
  private written: { doc: Node; html: string } | null = null;
  private readonly schema: Schema;
  private readonly modes = new Set<Mode>();
  private readonly root: HTMLElement;
  private readonly toolbar: Toolbar;
  private readonly pasteStrip: PasteStrip;
  private readonly findStrip: FindStrip;
  private readonly outline: OutlinePanel;
  private readonly foot: Foot;
  private readonly status: HTMLElement;
  private readonly intake: Intake;
  private readonly frame: HTMLIFrameElement;
  private mount: HTMLElement | null = null;
  private isDestroyed = false;
  /** Closes the menu that was opened last, if it is still open. */
  private closeMenu = (): void => undefined;

  constructor(private readonly options: AuthorEditorOptions) {
    const { host, resolved, rules, surface } = options;
    const { profile } = resolved;
    const document = host.ownerDocument;
    this.schema = compileSchema(rules);
    this.toolbar = buildToolbar(
      { rules, profile, options: profile.toolbar.options },
      document,
      (id) => this.press(id),
      () => this.focus(),
    );
    this.pasteStrip = buildPasteStrip(document);
    this.findStrip = buildFindStrip(
      document,
      () => this.view,
      () => this.modes.has('find') && this.toggle('find'),
    );
    this.outline = buildOutline(document, () => this.view, profile.markup.headings.top);
    this.foot = buildFoot(
      document,
      profile.toolbar.options['word-count'].most,
      profile.surface.widthsPx,
      surface.pageKind.contentWidthPx,
      (px) => {
        if (this.mount !== null) this.mount.style.maxWidth = `${px ?? surface.pageKind.contentWidthPx}px`;
        this.frame.contentWindow?.dispatchEvent(new Event('resize'));
      },
    );
    this.intake = new Intake(
      {
        resolved,
        rules,
        strip: this.pasteStrip,
        isPlain: () => this.modes.has('paste-text'),
        isWord: options.isWord,
        uploadPictures: options.uploadPictures,
        onPaste: options.onPaste,
        onSeeChanges: options.onSeeChanges,
      },
      () => this.view,
    );
    this.frame = make(document, 'iframe', { class: 'te-frame', title: options.label });
    this.status = make(document, 'p', { class: 'te-status', role: 'status' });
    const text = make(document, 'div', { class: 'te-text' }, this.frame, this.outline.dom);
    const { bar, height, heightPx, tallestPx } = profile.surface;
    this.root = make(document, 'div', { class: `te-root te-bar-${bar}` });
    const edge = [this.toolbar.dom, this.findStrip.dom];
    this.root.append(...(bar === 'bottom' ? [text, ...edge] : [...edge, text]), this.pasteStrip.dom, this.foot.dom, this.status);
    text.style.height = height === 'fixed' ? `${heightPx}px` : '';
    text.style.minHeight = height === 'fixed' ? '' : `${heightPx}px`;
    text.style.maxHeight = height === 'between' ? `${Math.max(heightPx, tallestPx)}px` : '';
    host.replaceChildren(this.root);
    this.toolbar.fit();
    this.ready = this.begin();
  }

  /** The markup as it stands in the editor now: what was not edited, to the letter as it came. */
  get html(): string {
    if (this.view === null) return this.options.html;
    const { doc } = this.view.state;
    if (this.written?.doc !== doc) this.written = { doc, html: writeDocument(doc, this.source) };
    return this.written.html;
  }

  /** Whether there is nothing that a reader would see. */
  get isEmpty(): boolean {
    const doc = this.view?.state.doc ?? readDocument(this.options.html, this.schema).doc;
    let isEmpty = true;
    doc.descendants((node) => {
      if (!isEmpty) return false;
      const isSeen = node.isText
        ? node.text!.trim() !== ''
        : node.isLeaf && !['br', 'wbr', 'col'].includes(node.type.spec['element'] as string);
      if (isSeen) isEmpty = false;
      return isEmpty;
    });
    return isEmpty;
  }

  /** Puts other markup, which must be clean, in place of all that is there; what stays the same is not touched. */
  replaceAll(html: string): void {
    const { view } = this;
    if (view === null) return;
    const { doc } = readDocument(html, this.schema);
    const old = view.state.doc;
    const start = old.content.findDiffStart(doc.content);
    if (start === null) return;
    let { a, b } = old.content.findDiffEnd(doc.content)!;
    const overlap = start - Math.min(a, b);
    if (overlap > 0) {
      a += overlap;
      b += overlap;
    }
    view.dispatch(closeHistory(view.state.tr));
    view.dispatch(view.state.tr.replace(start, a, doc.slice(start, b)).scrollIntoView());
    view.dispatch(closeHistory(view.state.tr));
  }

  focus(): void {
    this.view?.focus();
  }

  /** Takes the editor out of the page. */
  destroy(): void {
    this.isDestroyed = true;
    this.toolbar.destroy();
    this.view?.destroy();
    this.view = null;
    this.options.host.replaceChildren();
  }

  /** Does what a button does: a command, a view of the text, or a dialog first. */
  press(id: ButtonId): void {
    const { view } = this;
    const button = EDITOR_BUTTONS.get(id);
    if (view === null || button === undefined) return;
    const context = this.context(view, id);
    this.toolbar.update(view.state, (mode) => this.modes.has(mode));
    const anchor = this.toolbar.button(id);
    if (anchor?.getAttribute('aria-disabled') === 'true' && anchor.dataset['button'] === id) {
      context.say(anchor.title);
      return;
    }
    if (button.mode === 'spelling') this.spell(context);
    else if (button.mode !== undefined) this.toggle(button.mode);
    else if (button.open !== undefined) {
      if (button.isPossible?.(view.state, context) !== false) button.open(context);
      else context.say(button.whyNot ?? 'Not possible here.');
    } else if (button.command !== undefined) context.run(button.command(context));
  }

  private context(view: EditorView, id: ButtonId | null): EditorContext {
    const { resolved, rules, surface, services = {}, host } = this.options;
    const { profile } = resolved;
    return {
      view,
      schema: view.state.schema,
      rules,
      profile,
      options: profile.toolbar.options,
      host: host.ownerDocument,
      services,
      baseAddress: surface.baseAddress,
      columnPx: surface.pageKind.contentWidthPx,
      run: (command) => {
        // Each press is one step of its own, so that it can be taken back alone.
        view.dispatch(closeHistory(view.state.tr));
        const isDone = command(view.state, view.dispatch, view);
        view.focus();
        return isDone;
      },
      press: (other) => this.press(other),
      blockedBy: (other) => blockedBy(other, { rules, options: profile.toolbar.options }),
      isOn: (mode) => this.modes.has(mode),
      toggle: (mode) => this.toggle(mode),
      say: (message) => this.say(message),
      menu: (label, entries, columns) => {
        const anchor = (id === null ? undefined : this.toolbar.button(id)) ?? this.toolbar.dom;
        this.closeMenu = openMenu(anchor, label, entries, () => this.focus(), columns);
      },
      dialog: (options) => openDialog({ ...options, root: this.root, closed: () => this.focus() }),
      replaceAll: (html) => this.replaceAll(html),
    };
  }

  /** Brings the buttons up to date with the next frame: keys that come fast are shown once. */
  private showButtons(): void {
    const window = this.options.host.ownerDocument.defaultView!;
    if (this.pending !== 0) return;
    this.pending = window.requestAnimationFrame(() => {
      this.pending = 0;
      if (this.view === null) return;
      this.toolbar.update(this.view.state, (mode) => this.modes.has(mode));
      // Once the buttons have their size.
      if (this.options.resolved.profile.surface.bar === 'selection') this.placeBar();
    });
  }
  private pending = 0;

  private say(message: string): void {
    this.status.textContent = message;
  }

  /** Switches a view of the text on or off. */
  private toggle(mode: Mode): void {
    const { view } = this;
    if (view === null) return;
    const isOn = !this.modes.has(mode);
    if (isOn) this.modes.add(mode);
    else this.modes.delete(mode);
    if (mode === 'structure') view.dispatch(view.state.tr.setMeta(structureKey, isOn));
    if (mode === 'spelling') view.dispatch(view.state.tr.setMeta(spellingKey, { isOn }));
    if (mode === 'outline') this.outline.show(isOn);
    if (mode === 'word-count') {
      this.foot.changed(view.state.doc);
      this.foot.showCount(isOn);
    }
    if (mode === 'full-window') {
      this.root.classList.toggle('te-full', isOn);
      this.toolbar.fit();
    }
    if (mode === 'paste-text') this.say(isOn ? 'The next paste brings the words alone.' : '');
    this.toolbar.update(view.state, (one) => this.modes.has(one));
    if (mode === 'find' && isOn) this.findStrip.open();
    else {
      if (mode === 'find') this.findStrip.close();
      view.focus();
    }
  }

  /** On a marked word the button offers others; elsewhere it switches the marks on and off. */
  private spell(context: EditorContext): void {
    const { view, services } = context;
    if (services.spelling === undefined) {
      context.say('There is no dictionary here.');
      return;
    }
    const wrong = misspeltAt(view.state, view.state.selection.head);
    if (wrong === null) this.toggle('spelling');
    else void this.suggest(context, wrong);
  }

  private async suggest(context: EditorContext, wrong: NonNullable<ReturnType<typeof misspeltAt>>): Promise<void> {
    const { view, services } = context;
    const spelling = services.spelling!;
    const others = await spelling.suggest(wrong.word);
    context.menu(`“${wrong.word}”`, [
      ...others.slice(0, 7).map((word) => ({ label: word, press: () => correct(view, wrong, word) })),
      ...(spelling.add === undefined
        ? []
        : [
            {
              label: `Add “${wrong.word}” to the site’s dictionary`,
              press: () =>
                void spelling.add!(wrong.word).then(
                  () => view.dispatch(view.state.tr.setMeta(spellingKey, { forget: wrong.word })),
                  (error: unknown) => context.say(error instanceof Error ? error.message : 'The dictionary does not answer.'),
                ),
            },
          ]),
      { label: 'Hide the marks', press: () => this.toggle('spelling') },
    ]);
  }

  private async begin(): Promise<void> {
    const { surface, resolved, rules, services = {} } = this.options;
    const { profile } = resolved;
    const css = stylesheetsOf(profile.surface, surface);
    const inner = await frameDocument(this.frame, { ...surface, css: [...css, teaserEnd(profile.toolbar.options['summary-break'].class)] });
    if (this.isDestroyed) return;
    this.mount = inner.mount;
    const { doc, source } = readDocument(this.options.html, this.schema);
    this.source = source;
    if (services.spelling !== undefined && profile.surface.spelling.atOnce) this.modes.add('spelling');
    this.view = new EditorView(
      { mount: inner.mount },
      {
        state: EditorState.create({ schema: this.schema, doc, selection: beginOf(doc), plugins: this.plugins() }),
        attributes: {
          role: 'textbox',
          'aria-multiline': 'true',
          'aria-label': this.options.label,
          // The profile's own dictionary marks words, not the browser's.
          spellcheck: 'false',
        },
        nodeViews: { [OPAQUE_BLOCK]: opaqueView(false), [OPAQUE_INLINE]: opaqueView(true) },
        // What says that it was copied from an editor may come from anywhere.
        transformPastedHTML: (html) => (this.intake.isInserting ? html : ownMarkOf(html, clean(html, rules).html)),
        dispatchTransaction: (transaction) => {
          const { view } = this;
          if (view === null) return;
          view.updateState(view.state.apply(transaction));
          this.showButtons();
          this.findStrip.changed();
          if (!transaction.docChanged) return;
          // What stood in it was meant for the text as it was.
          this.closeMenu();
          this.say('');
          this.outline.changed();
          this.foot.changed(view.state.doc);
          this.intake.changed();
          this.grow();
          this.options.onChange?.();
        },
        handleDOMEvents: {
          // Before the editor reads anything of it: what comes from elsewhere is cleaned first.
          paste: (_view, event) => {
            const isTaken = this.intake.paste(event);
            if (this.modes.has('paste-text')) this.toggle('paste-text');
            return isTaken;
          },
          drop: (view, event) => this.intake.drop(event, view.dragging !== null),
          click: (_view, event) => {
            // A link in the editor is text to be edited, not a way out of it; details open and close by their mark alone.
            if ((event.target as Element).closest('a') !== null) event.preventDefault();
            return false;
          },
          blur: () => {
            this.options.onBlur?.();
            return false;
          },
          contextmenu: (view, event) => {
            const at = view.posAtCoords({ left: event.clientX, top: event.clientY });
            const wrong = at === null ? null : misspeltAt(view.state, at.pos);
            if (wrong === null || services.spelling === undefined) return false;
            event.preventDefault();
            view.dispatch(view.state.tr.setSelection(TextSelection.create(view.state.doc, wrong.from, wrong.to)));
            void this.suggest(this.context(view, 'spelling'), wrong);
            return true;
          },
        },
        handleDoubleClickOn: (_view, _at, node) => {
          const element = node.type.spec['element'] as string | undefined;
          if (element !== 'img' && element !== 'iframe') return false;
          this.press(element === 'img' ? 'picture' : 'embed');
          return true;
        },
      },
    );
    // Keys that are not the editor's are the page's, such as the one that stores.
    inner.document.addEventListener('keydown', (event) => {
      if (event.defaultPrevented || !(event.ctrlKey || event.metaKey || event.altKey)) return;
      const { key, code, ctrlKey, metaKey, altKey, shiftKey } = event;
      const copy = new KeyboardEvent('keydown', { key, code, ctrlKey, metaKey, altKey, shiftKey, bubbles: true, cancelable: true });
      if (!this.options.host.dispatchEvent(copy)) event.preventDefault();
    });
    for (const details of inner.mount.querySelectorAll('details')) details.open = true;
    this.toolbar.update(this.view.state, (mode) => this.modes.has(mode));
    this.foot.changed(this.view.state.doc);
    if (profile.surface.bar === 'selection') this.placeBar();
    this.grow();
  }

  /** Gives the frame the height of its text, where the profile says so. */
  private grow(): void {
    const { height } = this.options.resolved.profile.surface;
    const body = this.frame.contentDocument?.body;
    if (height === 'fixed' || body == null || this.mount === null) return;
    const needed = Math.ceil(this.mount.getBoundingClientRect().bottom + (this.frame.contentWindow?.scrollY ?? 0) + 24);
    (this.frame.parentElement as HTMLElement).style.height = `${needed}px`;
  }

  /** Puts the buttons beside what is selected. */
  private placeBar(): void {
    const { view } = this;
    if (view === null) return;
    const { from, empty } = view.state.selection;
    const { dom } = this.toolbar;
    const at = view.coordsAtPos(from);
    const frame = this.frame.getBoundingClientRect();
    const root = this.root.getBoundingClientRect();
    dom.classList.toggle('te-idle', empty && !dom.contains(dom.ownerDocument.activeElement));
    const top = frame.top - root.top + at.top - dom.offsetHeight - 8;
    dom.style.top = `${top < frame.top - root.top ? frame.top - root.top + at.bottom + 8 : top}px`;
    dom.style.left = `${Math.max(4, Math.min(at.left, root.width - dom.offsetWidth - 4))}px`;
  }

  private plugins(): Plugin[] {
    const { resolved, rules, surface, services = {} } = this.options;
    const { profile } = resolved;
    const { options, shortcuts } = profile.toolbar;
    const shown = new Set(arrangeToolbar(profile.toolbar).flatMap(({ buttons }) => buttons));
    const bindings: Record<string, Command> = { 'Alt-F10': () => (this.toolbar.focus(), true) };
    // A key works where its button is on the toolbar; undo and redo work always.
    for (const id of [...shown, 'undo', 'redo'] as ButtonId[]) {
      const { key } = buttonOf(id);
      if (key === null || id === 'paste-text') continue;
      bindings[key] = () => {
        this.press(id);
        return true;
      };
    }
    // The browser pastes the words alone by this key; a press of the button does it for the next paste.
    bindings['Mod-y'] = bindings[buttonOf('redo').key!]!;
    const may = (element: string, name: string): boolean => isValueKept(rules, element, 'class', name);
    return [
      typedShortcuts(shortcuts, this.schema),
      history(),
      styleMemory(),
      standInBoxes(),
      marksOfFault(),
      structureView(),
      findView(),
      ...(profile.surface.spelling.language === 'none' ? [] : [spellingView(services.spelling, profile.surface.spelling.atOnce)]),
      overlay({ rules, columnPx: surface.pageKind.contentWidthPx }),
      lines(),
      singleSpaces(),
      cursorAmongWords(),
      dropCursor({ color: '#23665a', width: 2 }),
      gapCursor(),
      keymap(bindings),
      ...typingKeys(profile.surface, indentBlocks(1, options.indent.classes, may), indentBlocks(-1, options.indent.classes, may)),
    ];
  }
}

/** Shows where the teaser ends, which readers do not see. */
function teaserEnd(name: string): string {
  return `.ProseMirror hr.${name} { display: block !important; overflow: visible; height: 0; margin: 1.2em 0; border: 0; border-top: 2px dashed #96650f; }
    .ProseMirror hr.${name}::after { content: 'the teaser ends here'; position: relative; top: -10px; padding-right: 6px; font: 11px/18px system-ui, sans-serif; color: #96650f; background: #fff; }`;
}

/** The first place to type. What is kept as it is would be overwritten, if it were selected when the first letter comes. */
function beginOf(doc: Node): Selection {
  return Selection.findFrom(doc.resolve(0), 1, true) ?? Selection.atStart(doc);
}
