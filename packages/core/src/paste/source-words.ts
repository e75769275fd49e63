import type { PasteSource } from '../profile/paste-schema';

const SOURCES: Readonly<Record<PasteSource, string>> = {
  'word-processor': 'Word processor',
  spreadsheet: 'Spreadsheet',
  presentation: 'Presentation',
  'web-mail': 'Web mail',
  chat: 'Chat',
  'web-page': 'Web page',
  'pdf-viewer': 'PDF viewer',
  'this-editor': 'This editor',
  'plain-text': 'Plain text',
  markdown: 'Markdown',
};

/** What a kind of source is called. */
export function sourceName(source: PasteSource): string {
  return SOURCES[source];
}
