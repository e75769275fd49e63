import { compileRules, resolveProfile, type JsonObject, type ResolvedProfile } from '@typikon/core';
import { NodeSelection, TextSelection } from 'prosemirror-state';
import type { EditorView } from 'prosemirror-view';
import { AuthorEditor, writeDocument, type AuthorEditorOptions } from '../src/index';

/** What jsdom has not: dialogs that open, clipboards, frames with markup, and boxes of text. Everything has the size 0 at the place 0. */
export function completePage(): void {
  const dialog = HTMLDialogElement.prototype;
  dialog.showModal = function (this: HTMLDialogElement) {
    this.open = true;
  };
  dialog.close = function (this: HTMLDialogElement) {
    this.open = false;
  };
  Object.assign(globalThis, { ClipboardEvent: class extends Event {} });
  completeRanges(window);
  // Frames read no `srcdoc` there: the document that such a frame begins with stands for it.
  Object.defineProperty(HTMLIFrameElement.prototype, 'srcdoc', {
    configurable: true,
    set(this: HTMLIFrameElement, html: string) {
      this.contentDocument!.write(html);
      this.contentDocument!.close();
      setTimeout(() => this.dispatchEvent(new Event('load')));
      completeRanges(this.contentWindow as unknown as typeof globalThis);
    },
  });
}

function completeRanges({ Range, Document }: typeof globalThis): void {
  Range.prototype.getClientRects = () => [new DOMRect()] as unknown as DOMRectList;
  Range.prototype.getBoundingClientRect = () => new DOMRect();
  Document.prototype.elementFromPoint = () => null;
}

export function resolvedOf(profile: JsonObject): ResolvedProfile {
  const resolution = resolveProfile('it', () => ({ format: 'typikon-profile/1', name: 'It', ...profile }));
  if (!resolution.ok) throw new Error(JSON.stringify(resolution.problems));
  return resolution.resolved;
}

/** An editor on a page, and what a person does with it. */
export interface EditorPage {
  editor: AuthorEditor;
  host: HTMLElement;
  view: EditorView;
  /** The markup with `[` and `]` around what is selected, or `|` where the cursor is. */
  readonly marked: string;
  /** Presses a button of the toolbar. */
  press(button: string): void;
  /** Presses the entry of the menu that is open. */
  choose(label: string): void;
  /** The labels of the open menu: in brackets those that cannot be pressed, with a star those that are on. */
  menu(): string[];
  /** The dialog that is open. */
  dialog(): HTMLDialogElement;
  isDialogOpen(): boolean;
  /** Writes into the field of that label in the open dialog. */
  fill(label: string, value: string): void;
  tick(label: string): void;
  /** Presses a button by its words, in the open dialog or a strip. */
  push(label: string): void;
  /** Sends the open dialog, and waits for what it does. */
  send(): Promise<void>;
  /** What the open dialog complains of; nothing where none is open. */
  complaint(): string;
  /** Presses a key in the text, such as `Mod-b`. */
  key(name: string): boolean;
  /** Types letters, as a keyboard does. */
  type(text: string): void;
  /** What the editor said last. */
  said(): string;
  select(from: number, to?: number): void;
}

const SIGNS = { '[': '\ue000', ']': '\ue001', '|': '\ue002' } as const;

export interface PageOptions extends Partial<Omit<AuthorEditorOptions, 'resolved' | 'rules' | 'html' | 'host'>> {
  profile: JsonObject;
}

/** Opens markup in an editor; `[` and `]` in it say what is selected, `|` where the cursor is, `¶` before a node that is selected whole. */
export async function openPage(marked: string, { profile, ...rest }: PageOptions): Promise<EditorPage> {
  const resolved = resolvedOf(profile);
  const rules = compileRules(resolved);
  const host = document.createElement('div');
  document.body.replaceChildren(host);
  const html = marked.replace(/[[\]|]/g, (sign) => SIGNS[sign as keyof typeof SIGNS]);
  const editor = new AuthorEditor({
    host,
    resolved,
    rules,
    html,
    label: 'Text',
    surface: {
      pageKind: { name: 'Page', stylesheets: [], wrapper: [{ element: 'main', className: 'text' }], contentWidthPx: 720 } as never,
      css: [],
      baseAddress: 'https://harbour.example/',
      language: 'en',
    },
    ...rest,
  });
  const frame = host.querySelector('iframe')!;
  await editor.ready;
  const view = editor['view']!;
  place(view);
  const text = (element: Element | null): string => element?.textContent ?? '';
  const dialog = (): HTMLDialogElement => {
    const found = host.querySelector('dialog');
    if (found === null) throw new Error('No dialog is open.');
    return found;
  };
  const controlOf = (label: string): HTMLInputElement => {
    const found = [...dialog().querySelectorAll('label')].find((one) => text(one).trim() === label);
    const control =
      found === undefined
        ? dialog().querySelector(`[aria-label="${label}"]`)
        : (found.querySelector('input, select, textarea') ?? dialog().querySelector(`#${found.htmlFor}`));
    if (control === null) throw new Error(`The dialog has no field “${label}”: ${text(dialog())}`);
    return control as HTMLInputElement;
  };
  const items = (): HTMLButtonElement[] => [...host.querySelectorAll<HTMLButtonElement>('.te-menu > button')];
  return {
    editor,
    host,
    view,
    get marked() {
      return markedOf(view);
    },
    press: (button) => editor.press(button as never),
    choose(label) {
      const item = items().find((one) => text(one) === label);
      if (item === undefined) throw new Error(`The menu has no “${label}”: ${items().map(text).join(', ')}`);
      item.click();
    },
    menu: () =>
      items().map((item) => {
        const isOn = item.getAttribute('aria-checked') === 'true';
        const words = `${text(item)}${isOn ? '*' : ''}`;
        return item.getAttribute('aria-disabled') === 'true' ? `(${words})` : words;
      }),
    dialog,
    isDialogOpen: () => host.querySelector('dialog') !== null,
    fill(label, value) {
      const control = controlOf(label);
      control.value = value;
      if (control.value !== value) throw new Error(`“${label}” cannot be “${value}”.`);
      for (const type of ['input', 'change']) control.dispatchEvent(new Event(type, { bubbles: true }));
    },
    tick: (label) => controlOf(label).click(),
    push(label) {
      const button = [...host.querySelectorAll('button')].find((one) => text(one) === label && !one.hidden);
      if (button === undefined) throw new Error(`There is no button “${label}”.`);
      button.click();
    },
    async send() {
      dialog()
        .querySelector('form')!
        .dispatchEvent(new Event('submit', { cancelable: true }));
      await settled();
    },
    complaint: () => text(host.querySelector('dialog .te-complaint')),
    key(name) {
      const parts = name.split('-');
      const key = parts.pop()!;
      const isShifted = parts.includes('Shift');
      const event = new (frame.contentWindow as unknown as typeof globalThis).KeyboardEvent('keydown', {
        key: key === 'Space' ? ' ' : key,
        keyCode: { Enter: 13, Tab: 9, Backspace: 8, Delete: 46, Escape: 27 }[key] ?? key.toUpperCase().charCodeAt(0),
        ctrlKey: parts.includes('Mod') || parts.includes('Ctrl'),
        shiftKey: isShifted,
        altKey: parts.includes('Alt'),
        bubbles: true,
        cancelable: true,
      });
      return !view.dom.dispatchEvent(event);
    },
    type(words) {
      for (const letter of words) {
        const { from, to } = view.state.selection;
        const isTaken = view.someProp('handleTextInput', (handle) => handle(view, from, to, letter, () => view.state.tr));
        if (isTaken !== true) view.dispatch(view.state.tr.insertText(letter, from, to));
      }
    },
    said: () => text(host.querySelector('.te-status')),
    select(from, to = from) {
      view.dispatch(view.state.tr.setSelection(TextSelection.create(view.state.doc, from, to)));
    },
  };
}

/** Lets everything that waits for a promise or a short timer run. */
export async function settled(ms = 0): Promise<void> {
  await new Promise((resolve) => setTimeout(resolve, ms));
}

/** Takes the signs out of the text, without a step that could be taken back, and selects what they stand around. */
function place(view: EditorView): void {
  const places: Partial<Record<string, number>> = {};
  const { tr } = view.state;
  let gone = 0;
  let image = -1;
  view.state.doc.descendants((node, at) => {
    const text = node.text ?? '';
    for (let index = 0; index < text.length; index++)
      if (Object.values<string>(SIGNS).includes(text[index]!)) {
        places[text[index]!] = at + index - gone;
        tr.delete(at + index - gone, at + index - gone + 1);
        gone++;
      }
    if (node.isInline && node.isAtom && !node.isText && node.type.spec.selectable !== false) image = at - gone;
  });
  tr.setMeta('addToHistory', false);
  const cursor = places[SIGNS['|']];
  const [from, to] = cursor === undefined ? [places[SIGNS['[']], places[SIGNS[']']]] : [cursor, cursor];
  const isNode = from !== undefined && to === from + 1 && from === image;
  if (from !== undefined && to !== undefined)
    tr.setSelection(isNode ? NodeSelection.create(tr.doc, from) : TextSelection.between(tr.doc.resolve(from), tr.doc.resolve(to)));
  view.dispatch(tr);
}

/** The markup of the document as it stands, written anew, with signs at the selection. */
function markedOf({ state }: EditorView): string {
  const { tr, selection } = state;
  const { from, to, empty } = selection;
  const signs = empty
    ? [{ at: from, sign: SIGNS['|'] }]
    : [
        { at: to, sign: SIGNS[']'] },
        { at: from, sign: SIGNS['['] },
      ];
  for (const { at, sign } of signs) {
    const $at = tr.doc.resolve(at);
    const marks = sign === SIGNS['|'] ? $at.marks() : (sign === SIGNS['['] ? $at.nodeAfter : $at.nodeBefore)?.marks;
    if ($at.parent.inlineContent) tr.insert(at, state.schema.text(sign, marks ?? []));
  }
  const back = Object.fromEntries(Object.entries(SIGNS).map(([shown, sign]) => [sign, shown]));
  return writeDocument(tr.doc).replace(/[\ue000-\ue002]/g, (sign) => back[sign]!);
}
