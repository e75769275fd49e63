/** What a clipboard holds: a text for each type, and the names of files. */
export interface ClipboardPayload {
  types: Readonly<Record<string, string>>;
  files?: readonly { name: string; type: string; size?: number | undefined }[] | undefined;
}

/** A header that Windows puts before the markup, with the places of the fragment in it. */
const CLIPBOARD_HEADER = /^\s{0,20}Version:[\d.]+[^<]*/;

/** The markup that a payload holds as it is; null where it has to be made of its text. */
export function markupAtHand({ types }: ClipboardPayload): string | null {
  const html = types['text/html'];
  return html === undefined || html.trim() === '' ? null : html.replace(CLIPBOARD_HEADER, '');
}
