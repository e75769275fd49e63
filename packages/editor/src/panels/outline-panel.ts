import { TextSelection } from 'prosemirror-state';
import type { EditorView } from 'prosemirror-view';
import { outlineOf } from '../document/outline';
import { make, push } from './make';

export interface OutlinePanel {
  dom: HTMLElement;
  show(isShown: boolean): void;
  changed(): void;
}

/** The headings beside the text: each leads there; gaps between levels and doubles are said. */
export function buildOutline(host: Document, view: () => EditorView | null, top: number): OutlinePanel {
  const list = make(host, 'ol');
  const dom = make(
    host,
    'nav',
    { class: 'te-outline', 'aria-label': 'Outline', hidden: true },
    make(host, 'h2', { text: 'Outline' }),
    list,
  );
  let last: unknown = null;
  const draw = (): void => {
    const now = view();
    if (dom.hidden || now === null || last === now.state.doc) return;
    last = now.state.doc;
    const entries = outlineOf(now.state.doc, top);
    list.replaceChildren(
      ...(entries.length === 0
        ? [make(host, 'li', { class: 'te-hint', text: 'No headings yet.' })]
        : entries.map(({ level, text, at, fault }) => {
            const go = push(host, text === '' ? '(empty)' : text, () => {
              const here = view();
              if (here === null) return;
              here.dispatch(here.state.tr.setSelection(TextSelection.near(here.state.doc.resolve(at + 1))).scrollIntoView());
              here.focus();
            });
            const item = make(host, 'li', { class: fault === '' ? null : 'te-fault' }, make(host, 'b', { text: String(level) }), go);
            item.style.paddingLeft = `${Math.max(0, level - top) * 12}px`;
            if (fault !== '') item.append(make(host, 'p', { text: fault }));
            return item;
          })),
    );
  };
  return {
    dom,
    show(isShown) {
      dom.hidden = !isShown;
      last = null;
      draw();
    },
    changed: draw,
  };
}
