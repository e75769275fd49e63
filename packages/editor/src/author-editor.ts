import {
  buttonOf,
  type ButtonId,
  type ClipboardPayload,
  type CompiledRules,
  type Pasted,
  type PastedPicture,
  type ResolvedProfile,
} from '@typikon/core';
import { baseKeymap, chainCommands, exitCode, splitBlockAs } from 'prosemirror-commands';
import { history } from 'prosemirror-history';
import { keymap } from 'prosemirror-keymap';
import { liftListItem, sinkListItem, splitListItem } from 'prosemirror-schema-list';
import { EditorState, type Command, type Plugin } from 'prosemirror-state';
import { EditorView } from 'prosemirror-view';
import { checkAddress } from './address';
import { buildAddressStrip, type AddressStrip } from './address-strip';
import { EDITOR_BUTTONS } from './buttons/index';
import { compileSchema, markNameOf, nodeNameOf } from './schema/compile';
import { readHtml, writeHtml } from './schema/html';
import { Intake } from './paste/intake';
import { standInBoxes } from './paste/stand-ins';
import { buildPasteStrip, type PasteStrip } from './paste/strip';
import { markRange } from './selection';
import { frameDocument, type Surface } from './surface';
import { buildToolbar, type Toolbar } from './toolbar';

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
  /** Called after each change that the author makes, with the whole markup. */
  onChange?(html: string): void;
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
 * The author's editor: the profile's buttons above a frame that carries the page kind's stylesheets.
 * Schema, buttons and paste all come from the same compiled rules.
 */
export class AuthorEditor {
  /** Resolves once the frame is there and the author can type. */
  readonly ready: Promise<void>;
  private view: EditorView | null = null;
  private readonly toolbar: Toolbar;
  private readonly strip: AddressStrip;
  private readonly pasteStrip: PasteStrip;
  private readonly intake: Intake;
  private readonly frame: HTMLIFrameElement;
  private isDestroyed = false;

  constructor(private readonly options: AuthorEditorOptions) {
    const { host, resolved, rules } = options;
    const { profile } = resolved;
    const document = host.ownerDocument;
    this.toolbar = buildToolbar(
      profile,
      document,
      (id) => this.press(id),
      () => this.focus(),
    );
    this.strip = buildAddressStrip(
      document,
      (typed) => checkAddress(typed, rules),
      () => this.focus(),
    );
    this.pasteStrip = buildPasteStrip(document);
    this.intake = new Intake(
      {
        resolved,
        rules,
        strip: this.pasteStrip,
        isWord: options.isWord,
        uploadPictures: options.uploadPictures,
        onPaste: options.onPaste,
        onSeeChanges: options.onSeeChanges,
      },
      () => this.view,
    );
    this.frame = document.createElement('iframe');
    this.frame.className = 'te-frame';
    this.frame.title = options.label;
    this.frame.style.maxHeight = `${profile.surface.heightPx}px`;
    host.replaceChildren(this.toolbar.dom, this.strip.dom, this.frame, this.pasteStrip.dom);
    this.ready = this.begin();
  }

  /** The markup as it stands in the editor now. */
  get html(): string {
    return this.view === null ? this.options.html : writeHtml(this.view.state.doc, this.view.dom.ownerDocument);
  }

  focus(): void {
    this.view?.focus();
  }

  /** Takes the editor out of the page. */
  destroy(): void {
    this.isDestroyed = true;
    this.view?.destroy();
    this.view = null;
    this.options.host.replaceChildren();
  }

  /** Does what a button does; 'link' asks for an address first. */
  press(id: ButtonId): void {
    const { view } = this;
    const button = EDITOR_BUTTONS.get(id);
    if (view === null || button === undefined) return;
    const command = button.command(view.state.schema);
    if (command === null || !command(view.state)) return;
    if (button.ask === 'address') {
      this.askForAddress(view);
      return;
    }
    command(view.state, view.dispatch, view);
    view.focus();
  }

  private async begin(): Promise<void> {
    const inner = await frameDocument(this.frame, this.options.surface);
    if (this.isDestroyed) return;
    const schema = compileSchema(this.options.rules);
    this.view = new EditorView(
      { mount: inner.mount },
      {
        state: EditorState.create({ schema, doc: readHtml(this.options.html, schema, inner.document), plugins: this.plugins() }),
        attributes: { role: 'textbox', 'aria-multiline': 'true', 'aria-label': this.options.label },
        dispatchTransaction: (transaction) => {
          const { view } = this;
          if (view === null) return;
          view.updateState(view.state.apply(transaction));
          this.toolbar.update(view.state);
          if (!transaction.docChanged) return;
          this.intake.changed();
          this.options.onChange?.(this.html);
        },
        handleDOMEvents: {
          // Before the editor reads anything of it: what comes from elsewhere is cleaned first.
          paste: (_view, event) => this.intake.paste(event),
          drop: (view, event) => this.intake.drop(event, view.dragging !== null),
          click: (_view, event) => {
            // A link in the editor is text to be edited, not a way out of it.
            if ((event.target as Element).closest('a') !== null) event.preventDefault();
            return false;
          },
        },
      },
    );
    this.toolbar.update(this.view.state);
  }

  private plugins(): Plugin[] {
    const { profile } = this.options.resolved;
    const shown = new Set(profile.toolbar.order.flatMap((group) => profile.toolbar.groups[group]?.buttons ?? []));
    const bindings: Record<string, Command> = { 'Alt-F10': () => (this.toolbar.focus(), true) };
    // A key works where its button is on the toolbar; undo and redo work always.
    for (const id of [...shown, 'undo', 'redo'] as ButtonId[]) {
      const { key } = buttonOf(id);
      if (key === null) continue;
      bindings[key] = () => {
        this.press(id);
        return true;
      };
    }
    bindings['Mod-y'] = bindings[buttonOf('redo').key!]!;
    const ofList =
      (make: (view: EditorState) => Command | null): Command =>
      (state, dispatch, view) =>
        make(state)?.(state, dispatch, view) ?? false;
    const item = (state: EditorState) => state.schema.nodes[nodeNameOf('li')];
    const lineBreak: Command = (state, dispatch) => {
      const type = state.schema.nodes[nodeNameOf('br')];
      if (type === undefined) return false;
      dispatch?.(state.tr.replaceSelectionWith(type.create()).scrollIntoView());
      return true;
    };
    const { enter } = profile.surface;
    const enterBegins: Command = (state, dispatch, view) => {
      if (enter === 'break') return lineBreak(state, dispatch);
      const block = state.schema.nodes[nodeNameOf('div')];
      return enter === 'block' && block !== undefined ? splitBlockAs(() => ({ type: block }))(state, dispatch, view) : false;
    };
    return [
      history(),
      standInBoxes(),
      keymap(bindings),
      keymap({
        Enter: chainCommands(
          ofList((state) => (item(state) === undefined ? null : splitListItem(item(state)!))),
          enterBegins,
        ),
        'Mod-]': ofList((state) => (item(state) === undefined ? null : sinkListItem(item(state)!))),
        'Mod-[': ofList((state) => (item(state) === undefined ? null : liftListItem(item(state)!))),
        'Shift-Enter': chainCommands(exitCode, lineBreak),
      }),
      keymap(baseKeymap),
    ];
  }

  private askForAddress(view: EditorView): void {
    const type = view.state.schema.marks[markNameOf('a')];
    if (type === undefined) return;
    const { selection } = view.state;
    const range = selection.empty ? markRange(view.state, type) : { from: selection.from, to: selection.to };
    let attributes: Record<string, string> = {};
    view.state.doc.nodesBetween(range.from, range.to, (node) => {
      const mark = type.isInSet(node.marks);
      if (mark) attributes = mark.attrs['attributes'] as Record<string, string>;
    });
    this.strip.open(attributes['href'] ?? '', (address) => {
      const mark = type.create({ attributes: { ...attributes, href: address } });
      view.dispatch(view.state.tr.removeMark(range.from, range.to, type).addMark(range.from, range.to, mark).scrollIntoView());
      view.focus();
    });
  }
}
