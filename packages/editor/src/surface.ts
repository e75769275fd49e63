import type { PageKind } from '@typikon/core';

/** What the author types in: the page's own stylesheets, wrapper and width. */
export interface Surface {
  pageKind: PageKind;
  /** The text of the page kind's stylesheets, in order. */
  css: readonly string[];
  /** The origin against which addresses in content are read, such as that of the site. */
  baseAddress: string;
  /** BCP 47. */
  language: string;
}

const EDITING_CSS = `
  html { background: #fff; }
  body { min-height: 100vh; box-sizing: border-box; }
  [data-line] { margin: 0; }
  .ProseMirror { outline: none; min-height: 4em; }
  .ProseMirror-selectednode { outline: 2px solid #23665a; outline-offset: 2px; }
  .ProseMirror table { border-collapse: collapse; }
  .te-stand-in { padding: 2px 8px; border: 1px dashed #96650f; background: #fbf6ea; }
`;

/** The rules that ProseMirror needs to place the cursor (from its own stylesheet). */
const CURSOR_CSS = `
  .ProseMirror { position: relative; word-wrap: break-word; white-space: pre-wrap; white-space: break-spaces; font-variant-ligatures: none; }
  .ProseMirror pre { white-space: pre-wrap; }
  .ProseMirror li { position: relative; }
  .ProseMirror-hideselection *::selection { background: transparent; }
  img.ProseMirror-separator { display: inline !important; border: none !important; margin: 0 !important; width: 0 !important; height: 0 !important; }
`;

/** Writes the surface into a frame of the same origin and returns the element that the editor takes over. */
export async function frameDocument(
  frame: HTMLIFrameElement,
  { pageKind, css, baseAddress, language }: Surface,
): Promise<{ document: Document; mount: HTMLElement }> {
  const loaded = new Promise<void>((resolve) => frame.addEventListener('load', () => resolve(), { once: true }));
  frame.srcdoc = '<!doctype html><html><head><meta charset="utf-8"></head><body></body></html>';
  await loaded;
  const document = frame.contentDocument;
  if (document === null) throw new Error('The frame of the editor has no document.');
  document.documentElement.lang = language;
  document.title = frame.title;
  const base = document.createElement('base');
  base.href = baseAddress;
  document.head.append(base);
  for (const text of [...css, EDITING_CSS, CURSOR_CSS]) {
    const style = document.createElement('style');
    style.textContent = text;
    document.head.append(style);
  }
  let mount: HTMLElement = document.body;
  for (const { element, className } of pageKind.wrapper) {
    const wrapper = document.createElement(element);
    if (className !== undefined) wrapper.className = className;
    mount.append(wrapper);
    mount = wrapper;
  }
  // The column is as wide as on the published page, however wide the frame is.
  mount.style.maxWidth = `${pageKind.contentWidthPx}px`;
  return { document, mount };
}
