import type { Setting } from '@typikon/core';

const escaped = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;');

/**
 * Content as it stands in a setting, as a page for a sandboxed frame without scripts.
 *
 * @param html clean markup
 * @param title what the page puts above the content; null for the author's surface, which has none
 * @param base the site's origin, against which addresses are read
 */
export function frameHtml(
  { sheets, wrapper, columnPx }: Pick<Setting, 'sheets' | 'wrapper' | 'columnPx'>,
  html: string,
  title: string | null,
  base: string,
): string {
  const styles = sheets.map(
    ({ css, media = '' }) =>
      // The end tag is all that could end a style element; in CSS the stroke is an escape that changes nothing.
      `<style${media === '' ? '' : ` media="${escaped(media)}"`}>${css.replace(/<\/style/gi, '<\\/style')}</style>`,
  );
  const around = wrapper ?? [];
  const open = around.map(({ element, className }, at) => {
    const isMount = at === around.length - 1;
    return `<${element}${className === undefined ? '' : ` class="${escaped(className)}"`}${isMount ? ' data-mount' : ''}${isMount && columnPx !== null ? ` style="max-width: ${columnPx}px"` : ''}>`;
  });
  const close = [...around].reverse().map(({ element }) => `</${element}>`);
  return `<!doctype html><html lang="en-GB"><head><meta charset="utf-8"><meta http-equiv="Content-Security-Policy" content="script-src 'none'"><base href="${escaped(base)}/"><title>${escaped(title ?? 'The surface')}</title>${styles.join('')}</head><body>${open.join('')}${title === null ? '' : `<h1 data-title>${escaped(title)}</h1>`}${html}${close.join('')}</body></html>`;
}

/** The elements of the content in a frame, in document order, as the comparison counts them. */
export function contentElements(document: Document): HTMLElement[] {
  const mount = document.querySelector('[data-mount]');
  return mount === null ? [] : [...mount.querySelectorAll<HTMLElement>('*')].filter((element) => !element.hasAttribute('data-title'));
}
