import { type ElementNode, type FragmentNode, type ParentNode } from '../html/node';
import { parseDocument } from '../html/parse';
import { escapeAttribute, escapeText } from '../html/serialize';
import { TooMuch } from '../css/budget';
import { Cascade, elementsIn } from '../css/cascade';
import { Styles } from '../css/computed';
import type { MediaContext } from '../css/media';
import type { Sheet } from '../css/stylesheet';

/** An element around the content, from the outside in. */
export interface WrapperElement {
  element: string;
  className?: string | undefined;
}

/** Where content stands: the author's surface, or a kind of page. */
export interface Setting {
  /** In the order in which they are loaded. */
  sheets: readonly Sheet[];
  media: MediaContext;
  /** The elements around the content; null where the markup is a whole page already. */
  wrapper: readonly WrapperElement[] | null;
  /** The title that the page puts above the content; empty for none. */
  title: string;
  /** The width of the column, where the frame holds it without a stylesheet; null where only stylesheets do. */
  columnPx: number | null;
}

/** Content as it stands in a setting. */
export interface Placed {
  root: FragmentNode;
  /** The elements of the content in document order; those of the frame are not among them. */
  elements: readonly ElementNode[];
  /** How many characters of the frame stand before the content. */
  offset: number;
}

/** What was placed lately: repairs are tried on the same content again and again, and nobody changes it. */
const lately: { frame: string; html: string; placed: Placed }[] = [];
const MOST_KEPT = 4;
/** What is longer than this takes too much room to be kept, in UTF-16 units. */
const LONGEST_KEPT = 300_000;

/** A setting with its stylesheets read. */
export class Scene {
  readonly styles: Styles;

  constructor(readonly setting: Setting) {
    this.styles = new Styles(new Cascade(setting.sheets, setting.media), setting.media);
  }

  /**
   * Puts content into the setting.
   *
   * @param html the content, or the whole page where the setting has no wrapper
   */
  place(html: string): Placed {
    const { wrapper, title } = this.setting;
    const frame = JSON.stringify([wrapper, title]);
    const known = lately.find((one) => one.frame === frame && one.html === html);
    if (known !== undefined) return known.placed;
    const placed = this.put(html);
    if (html.length > LONGEST_KEPT) return placed;
    lately.push({ frame, html, placed });
    if (lately.length > MOST_KEPT) lately.shift();
    return placed;
  }

  private put(html: string): Placed {
    const { wrapper, title } = this.setting;
    if (wrapper === null) {
      const root = parseDocument(html);
      checkDepth(root);
      return { root, elements: [...elementsIn(root)].filter(({ name }) => !HEAD.has(name)), offset: 0 };
    }
    const open = wrapper.map(({ element, className }) =>
      className === undefined ? `<${element}>` : `<${element} class="${escapeAttribute(className)}">`,
    );
    const before = `<!doctype html><html lang="en"><head><title>T</title></head><body>${open.join('')}${title === '' ? '' : `<h1>${escapeText(title)}</h1>`}`;
    const close = [...wrapper].reverse().map(({ element }) => `</${element}>`);
    const root = parseDocument(`${before}${html}${close.join('')}</body></html>`);
    checkDepth(root);
    // The parser closes nothing of the frame within clean content, so the content begins where it was put.
    const elements = [...elementsIn(root)].filter((element) => isWithin(element, before.length, before.length + html.length));
    return { root, elements, offset: before.length };
  }
}

/** Browsers nest elements no deeper than this (Chromium and others), and neither do comparisons. */
export const DEEPEST = 512;

/** @throws TooMuch where elements are nested deeper than browsers nest them */
function checkDepth(root: ParentNode): void {
  const stack: { at: ParentNode; depth: number }[] = [{ at: root, depth: 0 }];
  let deepest = 0;
  for (let top = stack.pop(); top !== undefined; top = stack.pop()) {
    deepest = Math.max(deepest, top.depth);
    for (const child of top.at.children) if (child.type === 'element') stack.push({ at: child, depth: top.depth + 1 });
  }
  if (deepest > DEEPEST)
    throw new TooMuch(
      `The content is nested ${deepest.toLocaleString('en')} levels deep; browsers show ${DEEPEST}, and no more are compared.`,
    );
}

const scenes = new WeakMap<Setting, Scene>();

/** The scene of a setting, the same one as long as the setting is there: what was worked out of it is not worked out again. */
export function sceneOf(setting: Setting): Scene {
  let scene = scenes.get(setting);
  if (scene === undefined) scenes.set(setting, (scene = new Scene(setting)));
  return scene;
}

const HEAD: ReadonlySet<string> = new Set(['head', 'title', 'meta', 'link', 'style', 'script', 'base', 'noscript', 'template']);

function isWithin(element: ElementNode, start: number, end: number): boolean {
  if (element.start >= start && element.start < end) return true;
  // What the parser added by itself belongs to where its parent is.
  return element.start === -1 && element.parent?.type === 'element' && isWithin(element.parent, start, end);
}

/** Whether an element shows words of its own. */
export function hasWords(element: ParentNode): boolean {
  return element.children.some((child) => child.type === 'text' && child.value.trim() !== '');
}
