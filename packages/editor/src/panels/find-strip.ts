import type { EditorView } from 'prosemirror-view';
import { findKey, nextFound, replaceFound, select } from '../plugins/find';
import { make, push, tick } from './make';

export interface FindStrip {
  dom: HTMLElement;
  open(): void;
  close(): void;
  /** Told of each change of the text or the selection. */
  changed(): void;
}

/** A strip below the toolbar that finds words and puts others in their place. */
export function buildFindStrip(host: Document, view: () => EditorView | null, closed: () => void): FindStrip {
  const text = make(host, 'input', { type: 'search', 'aria-label': 'Find', placeholder: 'Find', autocomplete: 'off' });
  const words = make(host, 'input', { type: 'text', 'aria-label': 'Replace with', placeholder: 'Replace with', autocomplete: 'off' });
  const isCaseKept = tick(host, 'Aa', false);
  isCaseKept.input.setAttribute('aria-label', 'Capitals count');
  const count = make(host, 'span', { class: 'te-count', role: 'status' });
  const tell = (): void => {
    const state = view()?.state;
    if (state === undefined || dom.hidden) return;
    const { found } = findKey.getState(state)!;
    const at = found.findIndex(({ from, to }) => from === state.selection.from && to === state.selection.to);
    const places = found.length === 0 ? 'nowhere' : found.length === 1 ? '1 place' : `${found.length} places`;
    count.textContent = text.value === '' ? '' : at < 0 ? places : `${at + 1} of ${found.length}`;
  };
  const ask = (): void => {
    const now = view();
    now?.dispatch(now.state.tr.setMeta(findKey, { text: text.value, isCaseKept: isCaseKept.input.checked }));
    tell();
  };
  const go = (direction: 1 | -1): void => {
    const now = view();
    const next = now === null ? null : nextFound(now.state, direction);
    if (now === null || next === null) return;
    now.dispatch(select(now.state, next));
    tell();
  };
  const replace = (isAll: boolean): void => {
    const now = view();
    if (now === null) return;
    const { found } = findKey.getState(now.state)!;
    const { from, to } = now.state.selection;
    const places = isAll ? found : found.filter((one) => one.from === from && one.to === to);
    if (places.length > 0) now.dispatch(replaceFound(now.state, places, words.value));
    if (!isAll) go(1);
    tell();
    if (isAll && places.length > 0) count.textContent = `${places.length} replaced`;
  };
  const close = (): void => {
    if (dom.hidden) return;
    dom.hidden = true;
    const now = view();
    now?.dispatch(now.state.tr.setMeta(findKey, { text: '', isCaseKept: false }));
  };
  const dom = make(
    host,
    'div',
    { class: 'te-strip te-find', role: 'search', 'aria-label': 'Find and replace', hidden: true },
    text,
    count,
    push(host, 'Before', () => go(-1)),
    push(host, 'Next', () => go(1)),
    isCaseKept.dom,
    words,
    push(host, 'Replace', () => replace(false)),
    push(host, 'All', () => replace(true)),
    push(host, 'Close', closed),
  );
  text.addEventListener('input', ask);
  isCaseKept.input.addEventListener('change', ask);
  dom.addEventListener('keydown', (event) => {
    event.stopPropagation();
    if (event.key === 'Escape') closed();
    else if (event.key === 'Enter' && event.target === text) go(event.shiftKey ? -1 : 1);
    else if (event.key === 'Enter' && event.target === words) replace(false);
    else return;
    event.preventDefault();
  });
  return {
    dom,
    open() {
      dom.hidden = false;
      const state = view()?.state;
      const { from, to, $from, $to } = state?.selection ?? {};
      if (state !== undefined && from !== undefined && to !== undefined && from < to && $from!.sameParent($to!) && to - from < 80)
        text.value = state.doc.textBetween(from, to);
      ask();
      text.focus();
      text.select();
    },
    close,
    changed: tell,
  };
}
