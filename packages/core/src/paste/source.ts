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
}

const sign = (source: PasteSource, weight: number, mark: string, test: RegExp): Sign => ({ source, weight, mark, test });

/** Marks in `text/html`. Generators name themselves, office suites use namespaces and properties of their own. */
const SIGNS: readonly Sign[] = [
  sign('word-processor', 4, 'the namespace of a word processor', /xmlns:w=["']?urn:schemas-microsoft-com:office:word/i),
  sign(
    'word-processor',
    4,
    'a generator note of a word processor',
    /<meta[^>]+name=["']?(?:generator|progid)["']?[^>]+content=["']?[^"'>]*(?:word|writer)/i,
  ),
  sign('word-processor', 2, 'list properties of an office suite', /mso-list\s*:/i),
  sign('word-processor', 2, 'paragraph classes of an office suite', /class=["']?Mso(?:Normal|ListParagraph|Title|Heading|Footnote)/i),
  sign('word-processor', 2, 'footnote marks of a word processor', /mso-footnote|class=["']?sdfootnote/i),
  sign('word-processor', 2, 'a document wrapper of an online word processor', /<b[^>]+id=["']?docs-internal-guid/i),
  sign('spreadsheet', 4, 'the namespace of a spreadsheet', /xmlns:x=["']?urn:schemas-microsoft-com:office:excel/i),
  sign('spreadsheet', 4, 'a generator note of a spreadsheet', /<meta[^>]+(?:generator|progid)[^>]+(?:excel|calc|spreadsheet)/i),
  sign('spreadsheet', 2, 'number formats of cells', /mso-number-format|sdnum=|data-sheets-|class=["']?xl\d+/i),
  sign('presentation', 4, 'a generator note of a presentation', /<meta[^>]+(?:generator|progid)[^>]+(?:powerpoint|impress|presentation)/i),
  sign('presentation', 4, 'the namespace of a presentation', /office:powerpoint/i),
  sign(
    'web-mail',
    2,
    'a quotation of a mail program',
    /<blockquote[^>]+type=["']?cite|class=["']?(?:[\w-]*_quote|moz-cite-prefix|mail-quote)/i,
  ),
  sign('web-mail', 1, 'lines of a mail header', /(?:From|Sent|Subject):\s*<\/(?:b|strong)>/i),
  sign(
    'chat',
    2,
    'message marks of a chat',
    /data-(?:message|msg)-(?:id|ts|author)|class=["'][^"']*\b(?:chat|message)[-_](?:text|body|content)/i,
  ),
  sign(
    'pdf-viewer',
    2,
    'the text layer of a page viewer',
    /class=["'][^"']*\btextLayer|<span[^>]+role=["']presentation["'][^>]+style=["'][^"']*left:/i,
  ),
  sign('this-editor', 4, 'the mark of this editor', /data-pm-slice=|data-typikon/i),
  sign('web-page', 1, 'a fragment of a page', /<!--StartFragment-->|<(?:div|section|article|nav|main)\b/i),
];

const MARKDOWN: readonly RegExp[] = [
  /^#{1,6} \S/m,
  /^\s*[-*+] \S.*\n\s*[-*+] \S/m,
  /\*\*\S[^*\n]*\*\*/,
  /\[[^\]\n]+\]\([^)\s]+\)/,
  /^> \S/m,
  /^```/m,
];

/**
 * Tells where a payload comes from, and by what.
 *
 * @returns the source with the most weight behind it, and all that was found; plain text where there is no markup
 */
export function detectSource({ types }: ClipboardPayload): DetectedSource {
  const html = types['text/html'] ?? '';
  const text = types['text/plain'] ?? '';
  const evidence: Evidence[] = SIGNS.filter(({ test }) => test.test(html)).map(({ source, mark, weight }) => ({ source, mark, weight }));
  if (html.trim() === '') {
    const marks = MARKDOWN.filter((pattern) => pattern.test(text)).length;
    if (marks >= 2) evidence.push({ source: 'markdown', mark: `${marks} kinds of Markdown marks`, weight: marks });
    evidence.push({ source: 'plain-text', mark: 'no markup on the clipboard', weight: 1 });
    const lines = text.split('\n').filter((line) => line.trim() !== '');
    const broken = lines.filter(
      (line, i) => i + 1 < lines.length && line.length > 50 && line.length < 110 && !/[.!?:]\s*$/.test(line),
    ).length;
    if (lines.length > 4 && broken > lines.length / 2)
      evidence.push({ source: 'pdf-viewer', mark: 'lines broken at the same width', weight: 2 });
  } else if (evidence.length === 0) evidence.push({ source: 'web-page', mark: 'markup without any mark of an office program', weight: 1 });
  if (types['text/rtf'] !== undefined && html !== '')
    evidence.push({ source: 'word-processor', mark: 'rich text beside the markup', weight: 1 });
  const weights = new Map<PasteSource, number>();
  for (const { source, weight } of evidence) weights.set(source, (weights.get(source) ?? 0) + weight);
  const [source] = [...weights].reduce((best, next) => (next[1] > best[1] ? next : best));
  return { source, evidence };
}
