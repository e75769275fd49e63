import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { html } from '@codemirror/lang-html';
import { bracketMatching, defaultHighlightStyle, syntaxHighlighting } from '@codemirror/language';
import { search, searchKeymap } from '@codemirror/search';
import { EditorState } from '@codemirror/state';
import { EditorView, keymap, lineNumbers } from '@codemirror/view';

export interface CodeField {
  readonly value: string;
  set(value: string): void;
  focus(): void;
}

/** A field for markup: highlighted, searchable (Ctrl+F), with line numbers. */
export function codeField(parent: HTMLElement, value: string, label: string, changed: () => void): CodeField {
  const view = new EditorView({
    parent,
    state: EditorState.create({
      doc: value,
      extensions: [
        lineNumbers(),
        history(),
        bracketMatching(),
        search({ top: true }),
        html({ autoCloseTags: false }),
        syntaxHighlighting(defaultHighlightStyle),
        EditorView.lineWrapping,
        EditorView.contentAttributes.of({ 'aria-label': label }),
        EditorView.updateListener.of(({ docChanged }) => docChanged && changed()),
        keymap.of([...searchKeymap, ...defaultKeymap, ...historyKeymap]),
      ],
    }),
  });
  return {
    get value() {
      return view.state.doc.toString();
    },
    set: (text) => view.dispatch({ changes: { from: 0, to: view.state.doc.length, insert: text } }),
    focus: () => view.focus(),
  };
}
