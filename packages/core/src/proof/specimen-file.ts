import { isObject, type JsonObject } from '../profile/merge-patch';

/**
 * A specimen as it stands in a file may name files beside it in the place of its content: `{"file": "letter.html"}`.
 *
 * @param document as it was read, not yet checked
 * @param read gives the text of a file by its name, which has no way out of the folder of the specimen
 * @returns the document with the texts in their places
 * @throws Error that says what is wrong, without the name of the file
 */
export function withContent(document: JsonObject, read: (name: string) => string): JsonObject {
  const { payload } = document;
  if (!isObject(payload) || !isObject(payload['types'])) return document;
  const types = Object.fromEntries(
    Object.entries(payload['types']).map(([type, content]) => [type, isObject(content) ? read(nameIn(content)) : content]),
  );
  return { ...document, payload: { ...payload, types } };
}

/** The names of the files that a specimen's content stands in. */
export function contentFiles({ payload }: JsonObject): string[] {
  if (!isObject(payload) || !isObject(payload['types'])) return [];
  return Object.values(payload['types']).flatMap((content) => (isObject(content) ? [nameIn(content)] : []));
}

function nameIn({ file, ...rest }: JsonObject): string {
  if (typeof file !== 'string' || Object.keys(rest).length > 0)
    throw new Error('content is either text or {"file": "name"}, a file beside the specimen');
  const steps = file.split(/[\\/]/);
  if (steps.some((step) => step === '' || step === '.' || step === '..') || file.includes(':'))
    throw new Error(`the file "${file}" must stand beside the specimen, or in a folder there`);
  return file;
}

const ENDINGS: Readonly<Record<string, string>> = { 'text/html': 'html', 'text/plain': 'txt', 'text/rtf': 'rtf' };

/**
 * The way back: a specimen whose content stands in files beside it.
 *
 * @param id begins the names of the files
 * @returns the document, and the text of each file by its name
 */
export function contentApart<Document extends { payload: { types: Readonly<Record<string, string>> } }>(
  document: Document,
  id: string,
): { document: JsonObject; files: Map<string, string> } {
  const files = new Map<string, string>();
  const types = Object.fromEntries(
    Object.entries(document.payload.types).map(([type, text], at) => {
      const name = `${id}.${ENDINGS[type] ?? `${at + 1}.txt`}`;
      files.set(name, text);
      return [type, { file: name }];
    }),
  );
  return { document: { ...document, payload: { ...document.payload, types } }, files };
}
