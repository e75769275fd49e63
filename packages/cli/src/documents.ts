import { readdirSync } from 'node:fs';
import { join, sep } from 'node:path';
import { Failure } from './failure';
import { readText } from './files';

/** A document of a folder. */
export interface DocumentFile {
  /** Its place in the folder, with slashes between. */
  file: string;
  html: string;
}

/** The one folder that was named. Throws a Failure where none or several were. */
export function oneFolder(positionals: readonly string[], usage: string): string {
  const [folder] = positionals;
  if (folder === undefined || positionals.length > 1) throw new Failure(`Give one folder of documents. Usage: typikon ${usage}`);
  return folder;
}

/**
 * Reads the documents of a folder and of all folders in it, one at a time, in the order of their names: what ends with `.html` or `.htm`.
 *
 * @throws Failure where that is no folder, or holds no document
 */
export function* readDocuments(folder: string): Generator<DocumentFile, void, undefined> {
  const names = namesIn(folder);
  if (names.length === 0) throw new Failure(`${folder}: holds no document, a file whose name ends with .html or .htm.`);
  for (const name of names) yield { file: name.split(sep).join('/'), html: readText(join(folder, name)) };
}

function namesIn(folder: string): string[] {
  try {
    return readdirSync(folder, { recursive: true, withFileTypes: true })
      .filter((entry) => !entry.isDirectory() && /\.html?$/i.test(entry.name))
      .map(({ parentPath, name }) => join(parentPath, name).slice(join(folder, '/').length))
      .sort();
  } catch {
    throw new Failure(`${folder}: cannot be read as a folder of documents.`);
  }
}
