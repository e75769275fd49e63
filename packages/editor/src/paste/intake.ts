import type { ClipboardPayload, CompiledRules, Pasted, PastedPicture, ResolvedProfile } from '@typikon/core/editing';
import { closeHistory, undo } from 'prosemirror-history';
import { TextSelection } from 'prosemirror-state';
import type { EditorView } from 'prosemirror-view';
import { pasting, pastingIfThere, type Pasting } from './later';
import { isOwn, payloadOf, picturesAsMarkup } from './payload';
import { sentenceFor, type PasteStrip } from './strip';

export interface IntakeOptions {
  resolved: ResolvedProfile;
  rules: CompiledRules;
  strip: PasteStrip;
  /** Whether the author asked for the words alone. */
  isPlain?: () => boolean;
  isWord?: ((word: string) => boolean) | undefined;
  uploadPictures?: ((pictures: readonly PastedPicture[]) => Promise<void>) | undefined;
  onPaste?: ((payload: ClipboardPayload, pasted: Pasted) => void) | undefined;
  onSeeChanges?: (() => void) | undefined;
}

/** The text comes first. */
const AFTER_START_MS = 300;

/** Takes in what is pasted or dropped: through the profile's passes, with a strip that says what was done. */
export class Intake {
  /** Whether clean markup is being put in right now. */
  isInserting = false;
  private count = 0;

  constructor(
    private readonly options: IntakeOptions,
    private readonly view: () => EditorView | null,
  ) {
    // By the first paste it is there. Where it does not come, the paste asks again, and says so.
    setTimeout(() => void pasting().catch(() => undefined), AFTER_START_MS);
  }

  /** Handles a paste; false leaves it to the editor, which takes what was copied from itself. */
  paste(event: ClipboardEvent): boolean {
    if (this.isInserting || event.clipboardData === null || !this.takeIn(event.clipboardData)) return false;
    event.preventDefault();
    return true;
  }

  /** Handles a drop from elsewhere, at the place it was dropped. */
  drop(event: DragEvent, isMove: boolean): boolean {
    const view = this.view();
    if (isMove || view === null || event.dataTransfer === null || isOwn(payloadOf(event.dataTransfer))) return false;
    const place = view.posAtCoords({ left: event.clientX, top: event.clientY });
    if (place !== null) view.dispatch(view.state.tr.setSelection(TextSelection.near(view.state.doc.resolve(place.pos))));
    // A file that nobody takes would be opened by the browser, in place of the text.
    if (!this.takeIn(event.dataTransfer) && event.dataTransfer.files.length === 0) return false;
    event.preventDefault();
    view.focus();
    return true;
  }

  /** Told of each change of the text: what the strip says is about the paste alone. */
  changed(): void {
    if (!this.isInserting) this.options.strip.close();
  }

  private takeIn(transfer: DataTransfer): boolean {
    const view = this.view();
    const payload = payloadOf(transfer);
    const isPlain = this.options.isPlain?.() === true;
    if (view === null || (isOwn(payload) && !isPlain) || view.state.selection.$from.parent.type.spec.code === true) return false;
    const hasText = Object.values(payload.types).some((text) => text.trim() !== '');
    if (!hasText) {
      const files = [...transfer.files].filter(({ type }) => type.startsWith('image/'));
      if (files.length === 0) {
        if (transfer.files.length > 0) this.options.strip.say('Of files, only pictures can be put in.');
        return transfer.files.length > 0;
      }
      void picturesAsMarkup(files).then((html) => this.choose({ types: { 'text/html': html } }));
      return true;
    }
    this.choose(payload);
    return true;
  }

  private choose(payload: ClipboardPayload): void {
    const { resolved, strip } = this.options;
    const { choice } = resolved.profile.paste;
    if (this.options.isPlain?.() === true) {
      this.insertPlain(payload);
      return;
    }
    if (choice === 'cleaned') this.insert(payload);
    else if (choice === 'plain') this.insertPlain(payload);
    else
      strip.say('How should it be pasted?', [
        { label: 'Tidied', press: () => this.insert(payload) },
        { label: 'Text only', press: () => this.insertPlain(payload) },
        { label: 'Not at all', press: () => strip.close() },
      ]);
  }

  private insert(payload: ClipboardPayload): void {
    this.with((paste) => this.take(paste, payload));
  }

  private insertPlain(payload: ClipboardPayload): void {
    this.with((paste) => this.take(paste, paste.plainPayload(payload)));
  }

  /** Goes on at once where what takes in pastes is there; says so where it does not come. */
  private with(goOn: (paste: Pasting) => void): void {
    const paste = pastingIfThere();
    if (paste !== null) {
      goOn(paste);
      return;
    }
    const { strip } = this.options;
    strip.say('Taking in what was pasted …');
    pasting().then(
      (arrived) => {
        if (this.view() !== null) goOn(arrived);
      },
      () =>
        strip.say('Not pasted: a part of the editor could not be loaded, since the server does not answer.', [
          { label: 'Try again', press: () => this.with(goOn) },
        ]),
    );
  }

  private take({ runPaste }: Pasting, payload: ClipboardPayload): void {
    const { resolved, rules, strip, isWord, uploadPictures } = this.options;
    const run = (profile: ResolvedProfile): Pasted =>
      runPaste(payload, profile, { rules, idPrefix: this.idPrefix(), ...(isWord === undefined ? {} : { isWord }) });
    const pasted = run(resolved);
    if (pasted.pictures.length === 0) {
      this.put(payload, pasted, '');
      return;
    }
    if (uploadPictures === undefined) {
      this.put(payload, run(withStandIns(resolved)), '');
      return;
    }
    const { length } = pasted.pictures;
    strip.say(length === 1 ? 'Taking a picture into the library …' : `Taking ${length} pictures into the library …`);
    uploadPictures(pasted.pictures).then(
      () => this.put(payload, pasted, ''),
      (error: unknown) =>
        this.put(
          payload,
          run(withStandIns(resolved)),
          `Not stored: ${error instanceof Error ? error.message : 'the library does not answer.'}`,
        ),
    );
  }

  private put(payload: ClipboardPayload, pasted: Pasted, failure: string): void {
    const view = this.view();
    if (view === null) return;
    const { strip, onPaste, onSeeChanges } = this.options;
    onPaste?.(payload, pasted);
    this.isInserting = true;
    try {
      // A paste is one step of its own, so that it can be taken back alone.
      view.dispatch(closeHistory(view.state.tr));
      view.pasteHTML(pasted.html);
      view.dispatch(closeHistory(view.state.tr));
    } finally {
      this.isInserting = false;
    }
    const isPlain = Object.keys(payload.types).every((type) => type === 'text/plain');
    strip.say(sentenceFor({ changes: pasted.ledger.length, toUpload: pasted.picturesToUpload, failure }), [
      ...(onSeeChanges === undefined || pasted.ledger.length === 0 ? [] : [{ label: 'See', press: onSeeChanges }]),
      ...(isPlain
        ? []
        : [
            {
              label: 'Text only',
              press: () => {
                this.takeBack();
                this.insertPlain(payload);
              },
            },
          ]),
      { label: 'Undo', press: () => this.takeBack() },
    ]);
  }

  private takeBack(): void {
    const view = this.view();
    if (view === null) return;
    undo(view.state, view.dispatch);
    this.options.strip.close();
    view.focus();
  }

  /** Ids of one paste never meet those of another, or those that are there. */
  private idPrefix(): string {
    const html = this.view()?.dom.innerHTML ?? '';
    for (;;) {
      const prefix = this.count === 0 ? '' : `p${this.count}-`;
      this.count++;
      if (!html.includes(`${prefix}note-1"`)) return prefix;
    }
  }
}

/** The profile with a box for each picture, where the library takes none. */
function withStandIns(resolved: ResolvedProfile): ResolvedProfile {
  const { paste } = resolved.profile;
  const passes = { ...paste.passes, pictures: { ...paste.passes.pictures, embedded: 'stand-in' as const } };
  return { ...resolved, profile: { ...resolved.profile, paste: { ...paste, passes } } };
}
