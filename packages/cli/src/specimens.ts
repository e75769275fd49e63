import { readdirSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { isObject, SPECIMEN_FORMAT, specimenSchema, withContent, type Json, type JsonObject, type SpecimenDocument } from '@typikon/core';
import { Failure } from './failure';
import { readJson, readText } from './files';

/** A specimen, and the file that it stands in. */
export interface SpecimenFile {
  file: string;
  /** Its place in the file, where that holds several; null where it is the file. */
  place: number | null;
  specimen: SpecimenDocument;
  /** The document as it is written, which names files for what the specimen holds. */
  document: JsonObject;
}

/**
 * Reads specimens: files that hold one or a list of them, and folders of such files. Other JSON files of a folder are passed over.
 *
 * @throws Failure that names the file, the place in it and what is wrong
 */
export function readSpecimens(paths: readonly string[]): SpecimenFile[] {
  return paths.flatMap((path) => (isFolder(path) ? specimensIn(path) : specimensOf(path, readJson(path))));
}

function isFolder(path: string): boolean {
  return statSync(path, { throwIfNoEntry: false })?.isDirectory() === true;
}

function specimensIn(folder: string): SpecimenFile[] {
  const files = readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith('.json'))
    .sort()
    .map((name) => join(folder, name));
  const found = files.flatMap((file) => {
    const value = readJson(file);
    return isSpecimen(Array.isArray(value) ? value[0] : value) ? specimensOf(file, value) : [];
  });
  if (found.length === 0) throw new Failure(`${folder}: holds no specimen, a JSON file with "format": "${SPECIMEN_FORMAT}".`);
  return found;
}

const isSpecimen = (value: Json | undefined): boolean => isObject(value) && value['format'] === SPECIMEN_FORMAT;

function specimensOf(file: string, value: Json): SpecimenFile[] {
  return (Array.isArray(value) ? value : [value]).map((one, at) => {
    const place = Array.isArray(value) ? at : null;
    const where = place === null ? file : `${file}, specimen ${at + 1}`;
    if (!isObject(one)) throw new Failure(`${where}: must be an object with "format": "${SPECIMEN_FORMAT}".`);
    const read = specimenSchema.safeParse(filled(one, file, where));
    if (read.success) return { file, place, specimen: read.data, document: one };
    const [issue] = read.error.issues;
    throw new Failure(`${where} at /${issue?.path.join('/') ?? ''}: ${issue?.message ?? 'is no specimen'}.`);
  });
}

function filled(document: JsonObject, file: string, where: string): JsonObject {
  try {
    return withContent(document, (name) => readText(join(dirname(file), name)));
  } catch (error) {
    throw error instanceof Failure ? error : new Failure(`${where}: ${(error as Error).message}.`);
  }
}
