import { escapeText } from '../html/serialize';

/** What a clipboard holds: a text for each type, and the names of files. */
export interface ClipboardPayload {
  types: Readonly<Record<string, string>>;
  files?: readonly { name: string; type: string; size?: number }[];
}

/** The markup of a payload: that of `text/html` between its marks, or else the plain text as paragraphs. */
export interface PastedMarkup {
  html: string;
  /** The clipboard type it was taken from. */
  type: string;
}

/** A header that Windows puts before the markup, with the places of the fragment in it. */
const CLIPBOARD_HEADER = /^\s*Version:[\d.]+[\s\S]*?(?=<)/;

/**
 * Takes the markup out of a payload. What stands around the fragment (a page's head, the header that an operating system
 * adds) stays readable to passes as far as it is markup: style sheets in it tell what lists looked like.
 */
export function markupOf({ types }: ClipboardPayload): PastedMarkup {
  const html = types['text/html'];
  if (html !== undefined && html.trim() !== '') return { html: html.replace(CLIPBOARD_HEADER, ''), type: 'text/html' };
  const text = types['text/plain'] ?? types['text'] ?? '';
  return { html: paragraphsOf(text), type: 'text/plain' };
}

/** Plain text as markup: empty lines part paragraphs, other line ends are breaks. */
export function paragraphsOf(text: string): string {
  return text
    .replace(/\r\n?/g, '\n')
    .split(/\n[\t ]*\n\s*/)
    .map((block) => block.replace(/^\n+|\n+$/g, ''))
    .filter((block) => block.trim() !== '')
    .map((block) => `<p>${escapeText(block).replace(/\n/g, '<br>')}</p>`)
    .join('\n');
}
