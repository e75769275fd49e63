import { textFrame, type PageKind, type SurfaceSettings } from '@typikon/core/editing';

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
  html { background: #fff; position: relative; }
  body { min-height: 100vh; box-sizing: border-box; }
  [data-line] { margin: 0; }
  .ProseMirror { outline: none; min-height: 4em; }
  .ProseMirror-selectednode { outline: 2px solid #23665a; outline-offset: 2px; }
  .ProseMirror a { cursor: text; }
  .ProseMirror td, .ProseMirror th { min-width: 1.5em; }
  .ProseMirror iframe { pointer-events: none; }
  .ProseMirror details > summary { cursor: text; }
  .te-stand-in { padding: 2px 8px; border: 1px dashed #96650f; background: #fbf6ea; }
  .te-opaque-block { display: block; outline: 1px dashed #8d8a80; outline-offset: 3px; margin: 0.6em 0; }
  .te-opaque { outline: 1px dashed #8d8a80; }
  .te-opaque:empty::before, .te-opaque-block:empty::before { content: attr(data-shown); font: 11px/16px ui-monospace, monospace; padding: 0 4px; background: #f3efe6; color: #5a6070; }
  .te-anchor { display: inline-block; padding: 0 3px; font: 11px/16px ui-monospace, monospace; background: #f3efe6; color: #5a6070; border: 1px dotted #8d8a80; border-radius: 2px; }
  .te-cell-selected { background: #e6f0ee !important; outline: 1px solid #23665a; }
  .te-broken { outline: 1px dashed #a6301f; outline-offset: 1px; }
  .te-misspelt { text-decoration: underline wavy #a6301f 1px; text-underline-offset: 3px; text-decoration-skip-ink: none; }
  .te-found { background: #f6e3a8; color: #1e2430; }
  .te-here { outline: 2px solid #96650f; }
  [data-te-block] { outline: 1px dashed #a6301f66; outline-offset: 2px; }
  [data-te-block]::before { content: attr(data-te-block); float: right; margin: -2px -2px 0 6px; padding: 0 4px; font: 10px/14px ui-monospace, monospace; font-weight: 400; font-style: normal; letter-spacing: 0; text-transform: none; text-indent: 0; color: #a6301f; background: #fff; }
  tr[data-te-block]::before, table[data-te-block]::before, tbody[data-te-block]::before, thead[data-te-block]::before { display: none; }
  .te-overlay { position: absolute; left: 0; top: 0; width: 0; height: 0; }
  .te-too-wide, .te-size-note { position: absolute; z-index: 5; padding: 1px 7px; font: 600 12px/18px system-ui, sans-serif; color: #fff; background: #96650f; white-space: nowrap; pointer-events: none; }
  .te-size-note { background: #1e2430; }
  .te-knob { position: absolute; z-index: 6; width: 12px; height: 12px; border: 2px solid #fff; border-radius: 2px; background: #23665a; cursor: nwse-resize; touch-action: none; }
`;

/** The rules that ProseMirror needs to place the cursor (from its own stylesheet). */
const CURSOR_CSS = `
  .ProseMirror { position: relative; word-wrap: break-word; white-space: pre-wrap; white-space: break-spaces; font-variant-ligatures: none; }
  .ProseMirror pre { white-space: pre-wrap; }
  .ProseMirror li { position: relative; }
  .ProseMirror-hideselection *::selection { background: transparent; }
  img.ProseMirror-separator { display: inline !important; border: none !important; margin: 0 !important; width: 0 !important; height: 0 !important; }
  .ProseMirror-gapcursor { display: none; pointer-events: none; position: absolute; }
  .ProseMirror-gapcursor::after { content: ''; display: block; position: absolute; top: -2px; width: 20px; border-top: 1px solid currentColor; }
  .ProseMirror-focused .ProseMirror-gapcursor { display: block; }
`;

/** Which stylesheets a surface stands on: those of the page, the profile's own, or both. */
export function stylesheetsOf({ stylesheets, editingCss }: SurfaceSettings, { css }: Pick<Surface, 'css'>): string[] {
  return [...(stylesheets === 'editing' ? [] : css), ...(stylesheets === 'page' ? [] : [editingCss])];
}

/** Writes the surface into a frame of the same origin and returns the element that the editor takes over. */
export async function frameDocument(
  frame: HTMLIFrameElement,
  { pageKind, css, baseAddress, language }: Surface,
): Promise<{ document: Document; mount: HTMLElement }> {
  const loaded = new Promise<void>((resolve) => frame.addEventListener('load', () => resolve(), { once: true }));
  // Whatever is opened, nothing in it runs, not even what was opened without being cleaned.
  frame.srcdoc = `<!doctype html><html><head><meta charset="utf-8"><meta http-equiv="Content-Security-Policy" content="script-src 'none'"></head><body></body></html>`;
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
  for (const { element, className } of textFrame(pageKind).wrapper) {
    const wrapper = document.createElement(element);
    if (className !== undefined) wrapper.className = className;
    mount.append(wrapper);
    mount = wrapper;
  }
  // The column is as wide as on the published page, however wide the frame is.
  mount.style.maxWidth = `${pageKind.contentWidthPx}px`;
  return { document, mount };
}
