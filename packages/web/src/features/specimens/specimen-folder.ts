import {
  contentApart,
  isObject,
  SPECIMEN_FORMAT,
  specimenSchema,
  withContent,
  type Json,
  type JsonObject,
  type SpecimenDocument,
} from '@typikon/core';

/** A folder by the paths of its files, with the text of each. */
export type Folder = ReadonlyMap<string, string>;

/** More than this is no folder of specimens. */
const MOST_FILES = 5000;
const MOST_BYTES = 256 * 1024 * 1024;

/** Specimens as a folder: a file for each, and beside it those that its content stands in. */
export function folderOf(specimens: readonly (SpecimenDocument & { id: string })[]): Folder {
  const folder = new Map<string, string>();
  for (const specimen of specimens) {
    const { document, files } = contentApart(specimen, specimen.id);
    folder.set(`${specimen.id}.specimen.json`, `${JSON.stringify(document, null, 2)}\n`);
    for (const [name, text] of files) folder.set(name, text);
  }
  return folder;
}

/** A folder as a ZIP file. */
export async function zipped(folder: Folder): Promise<Uint8Array<ArrayBuffer>> {
  const { strToU8, zipSync } = await import('fflate');
  return zipSync(Object.fromEntries([...folder].map(([path, text]) => [path, strToU8(text)])));
}

/** The files of a ZIP file. Throws where it cannot be read, or would be beyond all measure. */
export async function unzipped(bytes: Uint8Array): Promise<Folder> {
  const { strFromU8, unzipSync } = await import('fflate');
  let count = 0;
  let size = 0;
  const files = unzipSync(bytes, {
    filter: ({ name, originalSize }) => {
      count++;
      size += originalSize;
      if (count > MOST_FILES || size > MOST_BYTES) throw new Error('it holds more than a folder of specimens does.');
      return !name.endsWith('/');
    },
  });
  return new Map(Object.entries(files).map(([path, content]) => [path, strFromU8(content)]));
}

/**
 * The specimens of a folder, each with its content in its place.
 *
 * @throws Error that names the file and says what is wrong with it
 */
export function specimensIn(folder: Folder): SpecimenDocument[] {
  const found = [...folder].flatMap(([path, text]) => {
    if (!path.endsWith('.json')) return [];
    let value: Json;
    try {
      value = JSON.parse(text) as Json;
    } catch (error) {
      throw new Error(`${path} is not JSON, ${(error as Error).message}.`, { cause: error });
    }
    const all = Array.isArray(value) ? value : [value];
    return all
      .filter((one): one is JsonObject => isObject(one) && one['format'] === SPECIMEN_FORMAT)
      .map((one) => filled(one, path, folder));
  });
  if (found.length === 0) throw new Error('There is no specimen in it.');
  return found;
}

function filled(document: JsonObject, path: string, folder: Folder): SpecimenDocument {
  const beside = path.slice(0, path.lastIndexOf('/') + 1);
  let whole: JsonObject;
  try {
    whole = withContent(document, (name) => {
      const text = folder.get(beside + name.replace(/\\/g, '/'));
      if (text === undefined) throw new Error(`the file "${name}" is not there`);
      return text;
    });
  } catch (error) {
    throw new Error(`${path}: ${(error as Error).message}.`, { cause: error });
  }
  const read = specimenSchema.safeParse(whole);
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  throw new Error(`${path} has a mistake at /${issue?.path.join('/') ?? ''}: ${issue?.message ?? ''}`);
}
