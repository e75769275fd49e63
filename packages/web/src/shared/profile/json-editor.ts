import { json, jsonParseLinter } from '@codemirror/lang-json';
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { bracketMatching, HighlightStyle, syntaxHighlighting, syntaxTree } from '@codemirror/language';
import { lintGutter, lintKeymap, linter, type Diagnostic } from '@codemirror/lint';
import { EditorState } from '@codemirror/state';
import { EditorView, drawSelection, keymap, lineNumbers } from '@codemirror/view';
import { tags } from '@lezer/highlight';
import { fromPointer } from '@typikon/core/settings';

/** Something wrong at a place of the document. */
export interface JsonProblem {
  /** JSON Pointer into the edited text. */
  pointer: string;
  message: string;
}

const theme = EditorView.theme({
  '&': { height: '100%', fontSize: '12px', backgroundColor: 'transparent', color: 'var(--ty-ink)' },
  '&.cm-focused': { outline: '2px solid var(--ty-verdigris)', outlineOffset: '-2px' },
  '.cm-scroller': { fontFamily: 'var(--ty-mono)', lineHeight: '18px' },
  '.cm-gutters': { backgroundColor: 'transparent', border: '0', color: 'var(--ty-soft)', fontSize: '10.5px' },
  '.cm-cursor': { borderLeftColor: 'var(--ty-ink)' },
  '&.cm-focused .cm-selectionBackground, .cm-selectionBackground': { backgroundColor: 'var(--ty-verdigris-wash) !important' },
  '.cm-tooltip': { backgroundColor: 'var(--ty-sheet)', border: '1px solid var(--ty-line)', color: 'var(--ty-ink)' },
  '.cm-diagnostic-error': { borderLeft: '3px solid var(--ty-rubric)' },
  '.cm-lintRange-error': { backgroundImage: 'none', borderBottom: '2px solid var(--ty-rubric)' },
});

const ink = HighlightStyle.define([
  { tag: tags.propertyName, color: 'var(--ty-ink)' },
  { tag: [tags.string, tags.number, tags.bool, tags.null], color: 'var(--ty-verdigris)' },
]);

/** A CodeMirror editor for JSON that shows mistakes at their line: those of the syntax, and those that `check` finds in the meaning. */
export class JsonEditor {
  private readonly view: EditorView;

  constructor(
    parent: HTMLElement,
    {
      label,
      text,
      check,
      onEdit,
    }: { label: string; text: string; check: (text: string) => readonly JsonProblem[]; onEdit: (text: string) => void },
  ) {
    const parseMistakes = jsonParseLinter();
    this.view = new EditorView({
      parent,
      state: EditorState.create({
        doc: text,
        extensions: [
          lineNumbers(),
          history(),
          drawSelection(),
          bracketMatching(),
          json(),
          syntaxHighlighting(ink),
          lintGutter(),
          linter((view) => [...parseMistakes(view), ...placed(view, check)], { delay: 200 }),
          EditorView.lineWrapping,
          keymap.of([...defaultKeymap, ...historyKeymap, ...lintKeymap]),
          EditorView.contentAttributes.of({ 'aria-label': label, tabindex: '0' }),
          theme,
          EditorView.updateListener.of((update) => {
            if (update.docChanged) onEdit(update.state.doc.toString());
          }),
        ],
      }),
    });
  }

  setText(text: string): void {
    if (this.view.state.doc.toString() !== text) this.view.dispatch({ changes: { from: 0, to: this.view.state.doc.length, insert: text } });
  }

  destroy(): void {
    this.view.destroy();
  }
}

function placed(view: EditorView, check: (text: string) => readonly JsonProblem[]): Diagnostic[] {
  const text = view.state.doc.toString();
  try {
    JSON.parse(text);
  } catch {
    return [];
  }
  return check(text).map(({ pointer, message }) => ({ ...rangeOf(view, pointer), severity: 'error' as const, message }));
}

/** Where the property that a pointer leads to stands in the text; the nearest one above it where it is not there. */
function rangeOf(view: EditorView, pointer: string): { from: number; to: number } {
  const { doc } = view.state;
  let node = syntaxTree(view.state).topNode.firstChild;
  let found = { from: 0, to: Math.min(doc.length, doc.line(1).to) };
  for (const key of fromPointer(pointer)) {
    if (node === null) break;
    if (node.name === 'Array') {
      let item = node.getChildren('Value')[Number(key)] ?? null;
      if (item === null) {
        let child = node.firstChild;
        const items = [];
        for (; child !== null; child = child.nextSibling) if (!['[', ']', ',', '⚠'].includes(child.name)) items.push(child);
        item = items[Number(key)] ?? null;
      }
      if (item === null) break;
      found = { from: item.from, to: item.to };
      node = item;
      continue;
    }
    const property = node.getChildren('Property').find((candidate) => {
      const name = candidate.getChild('PropertyName');
      return name !== null && doc.sliceString(name.from + 1, name.to - 1) === key;
    });
    if (property === undefined) break;
    const name = property.getChild('PropertyName')!;
    found = { from: name.from, to: name.to };
    node = property.lastChild;
  }
  return found;
}
