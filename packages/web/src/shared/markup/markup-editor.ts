import { HighlightStyle, syntaxHighlighting } from '@codemirror/language';
import { Compartment, EditorState, StateEffect, StateField, type Range } from '@codemirror/state';
import { Decoration, EditorView, drawSelection, highlightSpecialChars, keymap, lineNumbers, type DecorationSet } from '@codemirror/view';
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { tags } from '@lezer/highlight';
import type { Mark } from './differences';
import { htmlLanguage } from './html-language';

const setMarks = StateEffect.define<readonly Mark[]>();
const setChosen = StateEffect.define<readonly { start: number; end: number }[]>();

const MARKS = {
  removed: Decoration.mark({ class: 'ty-removed' }),
  changed: Decoration.mark({ class: 'ty-changed' }),
  new: Decoration.mark({ class: 'ty-new' }),
} as const;
const CHOSEN = Decoration.mark({ class: 'ty-chosen' });

function decorationField<T>(
  effect: { is(other: StateEffect<unknown>): boolean },
  make: (value: T, length: number) => Range<Decoration>[],
): StateField<DecorationSet> {
  return StateField.define<DecorationSet>({
    create: () => Decoration.none,
    update(decorations, transaction) {
      let next = decorations.map(transaction.changes);
      for (const candidate of transaction.effects)
        if (effect.is(candidate)) next = Decoration.set(make(candidate.value as T, transaction.newDoc.length), true);
      return next;
    },
    provide: (field) => EditorView.decorations.from(field),
  });
}

const marksField = decorationField<readonly Mark[]>({ is: (e) => e.is(setMarks) }, (marks, length) =>
  marks.filter(({ start, end }) => end > start && end <= length).map(({ start, end, kind }) => MARKS[kind].range(start, end)),
);
const chosenField = decorationField<readonly { start: number; end: number }[]>({ is: (e) => e.is(setChosen) }, (ranges, length) =>
  ranges.filter(({ start, end }) => end > start && end <= length).map(({ start, end }) => CHOSEN.range(start, end)),
);

const theme = EditorView.theme({
  '&': { height: '100%', fontSize: '11.5px', backgroundColor: 'transparent', color: 'var(--ty-ink)' },
  '&.cm-focused': { outline: '2px solid var(--ty-verdigris)', outlineOffset: '-2px' },
  '.cm-scroller': { fontFamily: 'var(--ty-mono)', lineHeight: '18px' },
  '.cm-content': { padding: '2px 0 16px' },
  '.cm-gutters': { backgroundColor: 'transparent', border: '0', color: 'var(--ty-soft)', fontSize: '10.5px' },
  '.cm-cursor': { borderLeftColor: 'var(--ty-ink)' },
  '&.cm-focused .cm-selectionBackground, .cm-selectionBackground': { backgroundColor: 'var(--ty-verdigris-wash) !important' },
  '.ty-removed, .ty-removed *': { color: 'var(--ty-rubric) !important' },
  '.ty-removed': { textDecoration: 'line-through', textDecorationThickness: '1.5px' },
  '.ty-changed': { borderBottom: '1.5px dashed var(--ty-ochre)' },
  '.ty-new': { borderBottom: '1.5px solid var(--ty-verdigris)' },
  '.ty-chosen': { backgroundColor: 'var(--ty-rubric-wash)', outline: '1px solid var(--ty-rubric)' },
});

const ink = HighlightStyle.define([
  { tag: [tags.angleBracket, tags.tagName], color: 'var(--ty-ink)' },
  { tag: [tags.attributeName, tags.attributeValue, tags.comment, tags.processingInstruction], color: 'var(--ty-soft)' },
]);

/** The change that turns one text into another, without what both begin and end with: what stays need not be read anew. */
function changeBetween(before: string, after: string): { from: number; to: number; insert: string } {
  const most = Math.min(before.length, after.length);
  let from = 0;
  while (from < most && before.charCodeAt(from) === after.charCodeAt(from)) from++;
  let tail = 0;
  while (tail < most - from && before.charCodeAt(before.length - 1 - tail) === after.charCodeAt(after.length - 1 - tail)) tail++;
  return { from, to: before.length - tail, insert: after.slice(from, after.length - tail) };
}

/** A CodeMirror editor for markup, with the bench's marks. */
export class MarkupEditor {
  private readonly view: EditorView;
  private readonly editable = new Compartment();
  private isSetting = false;

  constructor(parent: HTMLElement, { label, text, onEdit }: { label: string; text: string; onEdit?: (text: string) => void }) {
    this.view = new EditorView({
      parent,
      state: EditorState.create({
        doc: text,
        extensions: [
          lineNumbers(),
          highlightSpecialChars(),
          history(),
          drawSelection(),
          htmlLanguage,
          syntaxHighlighting(ink),
          EditorView.lineWrapping,
          keymap.of([...defaultKeymap, ...historyKeymap]),
          EditorView.contentAttributes.of({ 'aria-label': label, tabindex: '0' }),
          this.editable.of(EditorState.readOnly.of(onEdit === undefined)),
          marksField,
          chosenField,
          theme,
          EditorView.updateListener.of((update) => {
            if (update.docChanged && !this.isSetting) onEdit?.(update.state.doc.toString());
          }),
        ],
      }),
    });
  }

  /** Shows another text, unless it is the one that is there. */
  setText(text: string): void {
    const before = this.view.state.doc.toString();
    if (before === text) return;
    this.isSetting = true;
    this.view.dispatch({
      changes: changeBetween(before, text),
      effects: [setMarks.of([]), setChosen.of([])],
    });
    this.isSetting = false;
  }

  setEditable(isEditable: boolean): void {
    this.view.dispatch({ effects: this.editable.reconfigure(EditorState.readOnly.of(!isEditable)) });
  }

  setMarks(marks: readonly Mark[]): void {
    this.view.dispatch({ effects: setMarks.of(marks) });
  }

  /** Marks places as chosen and brings the first into view. */
  select(ranges: readonly { start: number; end: number }[]): void {
    const effects: StateEffect<unknown>[] = [setChosen.of(ranges)];
    const first = ranges[0];
    if (first !== undefined && first.start <= this.view.state.doc.length)
      effects.push(EditorView.scrollIntoView(first.start, { y: 'center' }));
    this.view.dispatch({ effects });
  }

  destroy(): void {
    this.view.destroy();
  }
}
