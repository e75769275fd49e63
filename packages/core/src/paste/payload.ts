import MarkdownIt from 'markdown-it';
import { escapeText } from '../html/serialize';
import { parseFragment } from '../html/parse';
import { renderedText } from '../html/rendered-text';
import { markupAtHand, type ClipboardPayload } from './clipboard-markup';
import { textRuns } from './text-runs';
import { textOfRtf } from './rtf';

export type { ClipboardPayload };

/** The markup of a payload: that of `text/html`, or else made of the text. */
export interface PastedMarkup {
  html: string;
  /** The clipboard type it was taken from. */
  type: string;
}

/**
 * Takes the markup out of a payload. What stands around the fragment (a page's head, the header that an operating system
 * adds) stays readable to passes as far as it is markup: style sheets in it tell what lists looked like.
 *
 * @param isMarkdown whether its plain text is to be read as Markdown
 */
export function markupOf(payload: ClipboardPayload, isMarkdown = false): PastedMarkup {
  const html = markupAtHand(payload);
  if (html !== null) return { html, type: 'text/html' };
  const { text, type } = textOf(payload);
  return { html: isMarkdown ? markdownAsMarkup(text) : paragraphsOf(text), type };
}

/** The plain text of a payload; rich text is read where there is nothing else, markup last. */
export function textOf({ types }: ClipboardPayload): { text: string; type: string } {
  const plain = types['text/plain'] ?? types['text'] ?? '';
  if (plain.trim() !== '') return { text: plain, type: 'text/plain' };
  const rich = types['text/rtf'] ?? types['application/rtf'] ?? '';
  if (rich.trim() !== '') return { text: textOfRtf(rich), type: 'text/rtf' };
  return { text: textOfMarkup(types['text/html'] ?? ''), type: 'text/html' };
}

/** A payload with the words of another and nothing else. */
export function plainPayload(payload: ClipboardPayload): ClipboardPayload {
  return { types: { 'text/plain': textOf(payload).text } };
}

function textOfMarkup(html: string): string {
  if (html.trim() === '') return '';
  const { root } = parseFragment(html);
  const lines = textRuns(root).map(({ text }) => text.replace(/\s+/g, ' ').trim());
  return lines.filter((line) => line !== '').join('\n\n') || renderedText(root).trim();
}

/** Plain text as markup: empty lines part paragraphs, other line ends are breaks. */
export function paragraphsOf(text: string): string {
  return text
    .replace(/\r\n?/g, '\n')
    .split(/\n[\t ]*\n/)
    .map((block) => block.replace(/^\n+|\n+$/g, ''))
    .filter((block) => block.trim() !== '')
    .map((block) => `<p>${escapeText(block).replace(/\n/g, '<br>')}</p>`)
    .join('\n');
}

/** Reads CommonMark with tables, struck words and bare addresses. */
const markdown = new MarkdownIt({ html: true, linkify: true });

/** Whether blocks were nested deeper than the reader goes, which leaves out what is in them. */
let isTooDeep = false;
const { block } = markdown;
const tokenize = block.tokenize.bind(block);
block.tokenize = (state, startLine, endLine) => {
  isTooDeep ||= state.level >= (markdown.options.maxNesting ?? Infinity);
  tokenize(state, startLine, endLine);
};

/**
 * Markdown (CommonMark, with tables) as markup. Markup in it stays markup: the rules come after. Text with blocks nested
 * deeper than anybody writes is taken as plain text, so that nothing is left out.
 */
export function markdownAsMarkup(text: string): string {
  isTooDeep = false;
  const html = markdown.render(text).trim();
  return isTooDeep ? paragraphsOf(text) : html;
}
