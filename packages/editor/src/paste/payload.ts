import { STAND_IN, type ClipboardPayload } from '@typikon/core/editing';

/** The mark that the editor puts on what is copied from it. */
const OWN_MARK = 'data-pm-slice';

/** Everything that a paste or drop brings, as far as a browser hands it over. */
export function payloadOf(transfer: DataTransfer): ClipboardPayload {
  const types: Record<string, string> = {};
  for (const type of transfer.types) {
    if (type === 'Files') continue;
    const text = transfer.getData(type);
    if (text !== '') types[type] = text;
  }
  const files = [...transfer.files].map(({ name, type, size }) => ({ name, type, size }));
  return files.length === 0 ? { types } : { types, files };
}

/** Whether something was copied from an editor of this kind: it has been cleaned, and carries marks that tell where it was cut. */
export function isOwn({ types }: ClipboardPayload): boolean {
  return (types['text/html'] ?? '').includes(OWN_MARK);
}

/** Pictures among the files of a paste, as markup that holds them; for a paste that brings nothing else. */
export async function picturesAsMarkup(files: readonly File[]): Promise<string> {
  const pictures = files.filter(({ type }) => type.startsWith('image/'));
  const addresses = await Promise.all(pictures.map(addressOf));
  return addresses.map((address) => `<p><img src="${address}" alt=""></p>`).join('');
}

function addressOf(file: File): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.addEventListener('load', () => resolve(reader.result as string));
    reader.addEventListener('error', () => reject(new Error(`${file.name} cannot be read.`)));
    reader.readAsDataURL(file);
  });
}

/** Finds the words that stand for pictures to upload. */
export const STAND_INS = new RegExp(`${STAND_IN.replace(/[[\]]/g, '\\$&')}(?:: [^\\]]{0,300})?\\]`, 'g');

/** Puts the mark of the editor's own clipboard, with what it says of where the text was cut, onto markup that was cleaned since. */
export function ownMarkOf(html: string, cleaned: string): string {
  const mark = new RegExp(`${OWN_MARK}="([^"<>]*)"`).exec(html);
  return mark === null ? cleaned : cleaned.replace(/^(\s*<[a-z][a-z0-9-]*)/i, `$1 ${OWN_MARK}="${mark[1]}"`);
}
