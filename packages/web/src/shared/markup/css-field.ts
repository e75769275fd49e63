import { ChangeDetectionStrategy, Component, effect, type ElementRef, inject, input, output, viewChild, DestroyRef } from '@angular/core';
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { css as cssLanguage } from '@codemirror/lang-css';
import { HighlightStyle, syntaxHighlighting } from '@codemirror/language';
import { lintGutter, linter, type Diagnostic } from '@codemirror/lint';
import { EditorState } from '@codemirror/state';
import { EditorView, keymap, lineNumbers } from '@codemirror/view';
import { tags } from '@lezer/highlight';
import { cssMistakes } from '@typikon/core';

const ink = HighlightStyle.define([
  { tag: [tags.className, tags.tagName, tags.labelName], color: 'var(--ty-ink)', fontWeight: '600' },
  { tag: tags.propertyName, color: 'var(--ty-ink)' },
  { tag: [tags.atom, tags.number, tags.unit, tags.color, tags.string], color: 'var(--ty-verdigris)' },
  { tag: tags.comment, color: 'var(--ty-soft)' },
]);

const theme = EditorView.theme({
  '&': {
    height: '100%',
    fontSize: '12px',
    border: '1px solid var(--ty-field)',
    borderRadius: '3px',
    backgroundColor: 'var(--ty-sheet)',
    color: 'var(--ty-ink)',
  },
  '&.cm-focused': { outline: '2px solid var(--ty-verdigris)', outlineOffset: '-1px' },
  '.cm-scroller': { fontFamily: 'var(--ty-mono)', lineHeight: '18px' },
  '.cm-gutters': { backgroundColor: 'transparent', border: '0', color: 'var(--ty-soft)' },
  '.cm-cursor': { borderLeftColor: 'var(--ty-ink)' },
  '.cm-tooltip': { backgroundColor: 'var(--ty-sheet)', border: '1px solid var(--ty-line)', color: 'var(--ty-ink)' },
});

const lint = (view: EditorView): Diagnostic[] =>
  cssMistakes(view.state.doc.toString()).map(({ start, end, message }) => ({
    from: Math.min(start, view.state.doc.length),
    to: Math.min(end, view.state.doc.length),
    severity: 'error',
    message,
  }));

/** A field for a stylesheet: highlighted, with mistakes at their line. It tells of a change when it is left. */
@Component({
  selector: 'ty-css-field',
  template: `<div #place></div>`,
  styles: `
    :host {
      display: block;
      height: 168px;
    }
    div {
      height: 100%;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CssField {
  readonly css = input.required<string>();
  readonly label = input.required<string>();
  readonly changed = output<string>();
  /** Each change at once. */
  readonly typed = output<string>();
  private readonly place = viewChild.required<ElementRef<HTMLElement>>('place');
  private view: EditorView | null = null;

  constructor() {
    effect(() => {
      const text = this.css();
      const place = this.place().nativeElement;
      if (this.view === null) this.view = this.build(place, text);
      else if (this.view.state.doc.toString() !== text)
        this.view.dispatch({ changes: { from: 0, to: this.view.state.doc.length, insert: text } });
    });
    inject(DestroyRef).onDestroy(() => this.view?.destroy());
  }

  private build(parent: HTMLElement, doc: string): EditorView {
    return new EditorView({
      parent,
      state: EditorState.create({
        doc,
        extensions: [
          lineNumbers(),
          history(),
          cssLanguage(),
          syntaxHighlighting(ink),
          lintGutter(),
          linter(lint, { delay: 200 }),
          EditorView.lineWrapping,
          keymap.of([...defaultKeymap, ...historyKeymap]),
          EditorView.contentAttributes.of({ 'aria-label': this.label(), tabindex: '0' }),
          EditorView.updateListener.of((update) => {
            if (update.docChanged && update.state.doc.toString() !== this.css()) this.typed.emit(update.state.doc.toString());
          }),
          EditorView.domEventHandlers({
            blur: (_event, view) => {
              const text = view.state.doc.toString();
              if (text !== this.css()) this.changed.emit(text);
            },
          }),
          theme,
        ],
      }),
    });
  }
}
