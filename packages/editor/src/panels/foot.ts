import type { Node } from 'prosemirror-model';
import { choice, make } from './make';

export interface Foot {
  dom: HTMLElement;
  showCount(isShown: boolean): void;
  changed(doc: Node): void;
}

/** How many words and characters a reader sees. */
export function countOf(doc: Node): { words: number; characters: number } {
  const text = doc.textBetween(0, doc.content.size, '\n', ' ');
  return { words: text.match(/[\p{L}\p{N}][\p{L}\p{N}'’.,:-]*/gu)?.length ?? 0, characters: [...text.replace(/\n/g, '').trim()].length };
}

/**
 * The line below the text: how long it is, and at what width it is shown.
 *
 * @param most the number of characters above which the author is told
 * @param widthsPx narrower widths to try, beside the page's own
 */
export function buildFoot(
  host: Document,
  most: number | undefined,
  widthsPx: readonly number[],
  columnPx: number,
  setWidth: (px: number | null) => void,
): Foot {
  const count = make(host, 'p', { role: 'status', hidden: true });
  const dom = make(host, 'div', { class: 'te-line' }, count);
  let isShown = false;
  let seen: Node | null = null;
  const narrower = widthsPx.filter((px) => px < columnPx);
  if (narrower.length > 0) {
    const width = choice(
      host,
      [{ value: '', label: `Page, ${columnPx} px` }, ...narrower.map((px) => ({ value: String(px), label: `${px} px` }))],
      '',
    );
    width.addEventListener('change', () => setWidth(width.value === '' ? null : Number(width.value)));
    dom.append(make(host, 'label', {}, 'Width ', width));
  }
  const draw = (): void => {
    dom.hidden = !isShown && narrower.length === 0;
    count.hidden = !isShown;
    if (!isShown || seen === null) return;
    const { words, characters } = countOf(seen);
    const tooMany =
      most !== undefined && characters > most
        ? `, ${(characters - most).toLocaleString('en-GB')} more than ${most.toLocaleString('en-GB')}`
        : '';
    count.textContent = `${words.toLocaleString('en-GB')} ${words === 1 ? 'word' : 'words'}, ${characters.toLocaleString('en-GB')} characters${tooMany}`;
    count.classList.toggle('te-fault', tooMany !== '');
  };
  draw();
  return {
    dom,
    showCount(shown) {
      isShown = shown;
      draw();
    },
    changed(doc) {
      seen = doc;
      if (isShown) draw();
    },
  };
}
