import { readFileSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { readHouseLimits, resolveProfile, type HouseLimits, type Json, type Problem, type ResolvedProfile } from '@typikon/core';
import { Failure } from './failure';

let read: Float64Array | null = null;

/** Counts the bytes that are read, in a cell that another thread looks at. */
export function countInputIn(cell: Float64Array): void {
  read = cell;
}

/** Reads a text file, or standard input for `-`. Throws a Failure that names the file and the cause. */
export function readText(path: string): string {
  try {
    const bytes = readFileSync(path === '-' ? 0 : path);
    if (read !== null) read[0]! += bytes.length;
    return bytes.toString('utf8');
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (code === 'EOF' || (path === '-' && code === 'EAGAIN')) return '';
    const cause =
      code === 'ENOENT'
        ? 'there is no such file'
        : code === 'EISDIR'
          ? 'it is a folder'
          : code === 'EACCES'
            ? 'it may not be read'
            : code === 'ERR_STRING_TOO_LONG' || code === 'ERR_FS_FILE_TOO_LARGE'
              ? 'it is too large'
              : String(code);
    throw new Failure(`${path}: cannot be read, ${cause}.`);
  }
}

/** Reads a JSON file. Throws a Failure with the line and column of a mistake. */
export function readJson(path: string): Json {
  const text = readText(path);
  try {
    const value = JSON.parse(text.replace(/^\ufeff/, '')) as Json;
    if (depthOf(value) > DEEPEST_JSON) throw new Failure(`${path}: is nested deeper than ${DEEPEST_JSON} levels.`);
    return value;
  } catch (error) {
    if (error instanceof Failure) throw error;
    throw new Failure(`${path}${placeOf(text, (error as Error).message)}: is not JSON, ${(error as Error).message}.`);
  }
}

/** Nobody writes settings that stand in each other deeper than this. */
const DEEPEST_JSON = 100;

/** How deep values stand in each other, without recursion; it stops looking where that is too deep. */
export function depthOf(value: Json): number {
  let deepest = 0;
  const stack: { value: Json; depth: number }[] = [{ value, depth: 0 }];
  for (let top = stack.pop(); top !== undefined && deepest <= DEEPEST_JSON; top = stack.pop()) {
    deepest = Math.max(deepest, top.depth);
    if (typeof top.value === 'object' && top.value !== null)
      for (const inner of Object.values(top.value)) stack.push({ value: inner, depth: top.depth + 1 });
  }
  return deepest;
}

function placeOf(text: string, message: string): string {
  const offset = /position (\d+)/.exec(message)?.[1];
  if (offset === undefined) return '';
  const before = text.slice(0, Number(offset)).split('\n');
  return `:${before.length}:${before[before.length - 1]!.length + 1}`;
}

/** Reads a profile file and, beside it, the files of the profiles it extends. */
export function readProfile(path: string): ResolvedProfile {
  const folder = dirname(path);
  const id = basename(path).replace(/\.json$/, '');
  const fileOf = (profile: string): string => (profile === id ? path : join(folder, `${profile}.json`));
  const resolution = resolveProfile(id, (profile) => {
    try {
      return readJson(fileOf(profile));
    } catch (error) {
      if (profile !== id && error instanceof Failure && error.message.includes('no such file')) return undefined;
      throw error;
    }
  });
  if (resolution.ok) return resolution.resolved;
  throw new Failure(inOneLine(resolution.problems, fileOf));
}

/** Reads a file of house limits. */
export function readHouse(path: string): HouseLimits {
  const read = readHouseLimits(readJson(path), path);
  if (read.ok) return read.house;
  throw new Failure(inOneLine(read.problems, () => path));
}

function inOneLine(problems: readonly Problem[], fileOf: (profile: string) => string): string {
  return problems
    .map(({ profile, pointer, message }) => `${fileOf(profile)}${pointer === '' ? '' : ` at ${pointer}`}: ${message}`)
    .join(' ');
}
