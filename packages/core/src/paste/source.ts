import type { PasteSource } from '../profile/paste-schema';
import type { ClipboardPayload } from './payload';

/** A mark in a payload that tells of its source. */
export interface Evidence {
  source: PasteSource;
  /** What was found, in words. */
  mark: string;
  /** How much it says: 1 hints, 2 speaks for it, 4 proves it. */
  weight: number;
}

export interface DetectedSource {
  source: PasteSource;
  evidence: Evidence[];
}

interface Sign {
  source: PasteSource;
  mark: string;
  weight: number;
  test: RegExp;
  /** One of these, in lower case, stands in whatever the test fits: looked for first, since that is far quicker. */
  words: readonly string[];
}

const sign = (source: PasteSource, weight: number, mark: string, test: RegExp, ...words: string[]): Sign => ({
  source,
  weight,
  mark,
  test,
  words,
});

/** Marks in `text/html`. Generators name themselves, office suites use namespaces and properties of their own. */
export const SIGNS: readonly Sign[] = [
  sign('word-processor', 4, 'the namespace of a word processor', /xmlns:w=["']?urn:schemas-microsoft-com:office:word/i, 'xmlns:w='),
  sign(
    'word-processor',
    4,
    'a generator note of a word processor',
    /<meta[^>]{1,200}name=["']?(?:generator|progid)["']?[^>]{1,200}content=["']?[^"'>]{0,100}(?:word|writer|document)/i,
    '<meta',
  ),
  sign(
    'word-processor',
    3,
    'a generator note of an office suite',
    /<meta[^>]{1,200}name=["']?generator["']?[^>]{1,200}content=["']?[^"'>]{0,40}office/i,
    '<meta',
  ),
  sign('word-processor', 2, 'list properties of an office suite', /mso-list\s*:/i, 'mso-list'),
  sign(
    'word-processor',
    2,
    'paragraph marks of an online word processor',
    /data-ccp-props|class=["'][^"']{0,200}\b(?:ListContainerWrapper|OutlineElement)/i,
    'data-ccp-props',
    'listcontainerwrapper',
    'outlineelement',
  ),
  sign(
    'word-processor',
    2,
    'paragraph classes of an office suite',
    /class=["']?Mso(?:Normal|ListParagraph|Title|Heading|Footnote)/i,
    'mso',
  ),
  sign('word-processor', 2, 'footnote marks of a word processor', /mso-footnote|class=["']?sdfootnote/i, 'mso-footnote', 'sdfootnote'),
  sign(
    'word-processor',
    4,
    'a note of an office suite that it was converted to XHTML',
    /<!--[^>]{0,200}converted to xhtml by/i,
    'converted to xhtml by',
  ),
  sign(
    'word-processor',
    4,
    'list ends, numbers or annotations of an office suite that writes XHTML',
    /class=["'][^"']{0,200}\b(?:odfLiEnd|annotation_style_by_filter|footnodeNumber|heading_numbering)\b/i,
    'odfliend',
    'annotation_style_by_filter',
    'footnodenumber',
    'heading_numbering',
  ),
  sign(
    'word-processor',
    3,
    'paragraph styles of an office suite that writes XHTML',
    /class=["'](?:[^"']{0,200}\s)?(?:Text_20_body|Heading_20_\d|[A-Z]\w{0,40}_20_\w{1,40}|text:[a-z-]{1,40})\b/,
    '_20_',
    'text:',
  ),
  sign(
    'word-processor',
    2,
    'a document wrapper of an online word processor',
    /<(?:b|span)[^>]{1,200}id=["']?docs-internal-guid/i,
    'docs-internal-guid',
  ),
  sign('spreadsheet', 4, 'the namespace of a spreadsheet', /xmlns:x=["']?urn:schemas-microsoft-com:office:excel/i, 'xmlns:x='),
  sign(
    'spreadsheet',
    4,
    'a generator note of a spreadsheet',
    /<meta[^>]{1,200}(?:generator|progid)[^>]{1,200}(?:excel|calc|spreadsheet)/i,
    '<meta',
  ),
  sign(
    'spreadsheet',
    4,
    'number formats of cells',
    /mso-number-format|sdnum=|sdval=|data-sheets-|class=["']?xl\d+/i,
    'mso-number-format',
    'sdnum=',
    'sdval=',
    'data-sheets-',
    'xl',
  ),
  sign(
    'presentation',
    4,
    'a generator note of a presentation',
    /<meta[^>]{1,200}(?:generator|progid)[^>]{1,200}(?:powerpoint|impress|presentation)/i,
    '<meta',
  ),
  sign('presentation', 4, 'the namespace of a presentation', /office:powerpoint/i, 'office:powerpoint'),
  sign(
    'web-mail',
    2,
    'a quotation of a mail program',
    /<blockquote[^>]{1,200}type=["']?cite|class=["']?(?:[\w-]*_quote|moz-cite-prefix|mail-quote)/i,
    'cite',
    '_quote',
    'mail-quote',
  ),
  sign('web-mail', 1, 'lines of a mail header', /(?:From|Sent|Subject):\s*<\/(?:b|strong)>/i, 'from', 'sent', 'subject'),
  sign(
    'chat',
    2,
    'message marks of a chat',
    /data-(?:message|msg)-(?:id|ts|author)|data-stringify-|class=["'][^"']{0,200}\b(?:chat|message)[-_](?:text|body|content)/i,
    'data-message-',
    'data-msg-',
    'data-stringify-',
    'chat',
    'message',
  ),
  sign(
    'pdf-viewer',
    2,
    'the text layer of a page viewer',
    /class=["'][^"']{0,200}\btextLayer|<span[^>]{1,200}role=["']presentation["'][^>]{1,200}style=["'][^"']{0,200}left:|<span[^>]{1,200}style=["'][^"']{0,200}left:[^"']{1,100}["'][^>]{0,100}role=["']presentation/i,
    'textlayer',
    'presentation',
  ),
  sign('this-editor', 4, 'the mark of this editor', /data-pm-slice=|data-typikon/i, 'data-pm-slice=', 'data-typikon'),
  sign(
    'web-page',
    1,
    'a fragment of a page',
    /<!--StartFragment-->|<(?:div|section|article|nav|main)\b/i,
    '<!--startfragment',
    '<div',
    '<section',
    '<article',
    '<nav',
    '<main',
  ),
];

const FAR_ENOUGH = 100_000;

const MARKDOWN: readonly RegExp[] = [
  /^#{1,6} \S/m,
  /\*\*\S[^*\n]*\*\*/,
  /\[[^\]\n]{1,300}\]\([^)\s]{1,300}\)/,
  /^> \S/m,
  /^```/m,
  /^\|.+\|[ \t]*\n\|[ :|-]+\|/m,
];
const MARKDOWN_LISTS: readonly RegExp[] = [/^[ \t]*[-*+] \S.*\n[ \t]*[-*+] \S/m, /^\d+\. \S.*\n\d+\. \S/m];

/** No line of a printed page is longer, in letters, or all of them shorter. */
const WIDEST = 130;
const NARROWEST = 35;

/** Whether most lines are as long as the longest and end in the middle of a sentence, as on a printed page. */
function isBrokenToWidth(all: Iterable<string>): boolean {
  const lines: string[] = [];
  let widest = 0;
  for (const line of all) {
    if (line.length > WIDEST) return false;
    if (line.trim() === '') continue;
    lines.push(line);
    widest = Math.max(widest, line.length);
  }
  if (lines.length < 4 || widest < NARROWEST) return false;
  let score = 0;
  lines.forEach((line, i) => {
    const next = lines[i + 1];
    if (next === undefined) return;
    if (/\p{L}-$/u.test(line) && /^\p{Ll}/u.test(next)) score += 2;
    else if (line.length > widest * 0.72 && !/[.!?:]\s*$/.test(line)) score++;
  });
  return score >= lines.length / 2;
}

const LINE_ENDS = /<br\b[^>]{0,100}>|<\/(?:p|div)>/gi;

/** The words of each line of some markup, as far as they are asked for. */
function* linesOf(html: string): Iterable<string> {
  const wordsOf = (from: number, to: number): string =>
    html
      .slice(from, to)
      .replace(/<[^>]{0,500}>/g, '')
      .replace(/\s+/g, ' ')
      .trim();
  let from = 0;
  for (const { index, 0: end } of html.matchAll(LINE_ENDS)) {
    yield wordsOf(from, index);
    from = index + end.length;
  }
  yield wordsOf(from, html.length);
}

/**
 * Tells where a payload comes from, and by what.
 *
 * @returns the source with the most weight behind it, and all that was found; plain text where there is no markup
 */
export function detectSource({ types }: ClipboardPayload): DetectedSource {
  // Marks stand at the begin; to search through megabytes for them would take longer than all the rest.
  const html = (types['text/html'] ?? '').slice(0, FAR_ENOUGH);
  const text = (types['text/plain'] ?? '').slice(0, FAR_ENOUGH);
  const lower = html.toLowerCase();
  const evidence: Evidence[] = SIGNS.filter(({ words, test }) => words.some((word) => lower.includes(word)) && test.test(html)).map(
    ({ source, mark, weight }) => ({ source, mark, weight }),
  );
  if (html.trim() === '') {
    const marks = MARKDOWN.filter((pattern) => pattern.test(text)).length;
    // Lists alone are typed in plain text as well.
    const lists = MARKDOWN_LISTS.filter((pattern) => pattern.test(text)).length;
    if (marks >= 1 && marks + lists >= 2)
      evidence.push({ source: 'markdown', mark: `${marks + lists} kinds of Markdown marks`, weight: marks + lists });
    evidence.push({ source: 'plain-text', mark: 'no markup on the clipboard', weight: 1 });
    if (isBrokenToWidth(text.split('\n'))) evidence.push({ source: 'pdf-viewer', mark: 'lines broken at the same width', weight: 2 });
  } else if (isBrokenToWidth(linesOf(html))) evidence.push({ source: 'pdf-viewer', mark: 'lines broken at the same width', weight: 2 });
  if (html.trim() !== '' && evidence.length === 0)
    evidence.push({ source: 'web-page', mark: 'markup without any mark of an office program', weight: 1 });
  if (types['text/rtf'] !== undefined && html !== '')
    evidence.push({ source: 'word-processor', mark: 'rich text beside the markup', weight: 1 });
  const weights = new Map<PasteSource, number>();
  for (const { source, weight } of evidence) weights.set(source, (weights.get(source) ?? 0) + weight);
  const [source] = [...weights].reduce((best, next) => (next[1] > best[1] ? next : best));
  return { source, evidence };
}
