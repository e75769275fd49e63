import { existsSync, readdirSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import {
  compiledSides,
  isObject,
  pageKindSchema,
  parseFragment,
  siteSchema,
  storedListSchema,
  stylesheetSchema,
  sumCensuses,
  takeCensus,
  type ComparedSide,
  type HouseLimits,
  type Json,
  type JsonObject,
  type PageKind,
  type PublishedOn,
  type Sheet,
  type Site,
  type StoredContent,
  type StoredTexts,
} from '@typikon/core';
import { Failure } from './failure';
import { readJson, readText } from './files';

/** What a schema says of a value. */
interface Reader<T> {
  safeParse(
    value: unknown,
  ): { success: true; data: T } | { success: false; error: { issues: readonly { path: PropertyKey[]; message: string }[] } };
}

/** Reads a file by a schema. Throws a Failure that names the first mistake and its place. */
function readBy<T>(schema: Reader<T>, path: string, value: Json = readJson(path)): T {
  const read = schema.safeParse(value);
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  throw new Failure(`${path} at /${issue?.path.join('/') ?? ''}: ${issue?.message ?? 'cannot be read'}.`);
}

/** Reads a list of things by the schema of one. */
function readList<T>(schema: Reader<T>, path: string): T[] {
  const value = readJson(path);
  if (!Array.isArray(value)) throw new Failure(`${path}: must be a list.`);
  return value.map((one, at) => {
    const read = schema.safeParse(one);
    if (read.success) return read.data;
    const [issue] = read.error.issues;
    throw new Failure(`${path} at /${[at, ...(issue?.path ?? [])].join('/')}: ${issue?.message ?? 'cannot be read'}.`);
  });
}

/** Reads a site document. */
export const readSite = (path: string): Site => readBy(siteSchema, path);

/**
 * Reads the kinds of page of a site, each with its stylesheets: `stylesheets/ID.css` beside the file. Where a list
 * `stylesheets.json` stands there, the media with which each is linked are taken from it.
 */
export function readPageKinds(path: string): PublishedOn[] {
  const kinds: PageKind[] = readList(pageKindSchema, path);
  const folder = dirname(path);
  const list = join(folder, 'stylesheets.json');
  const media = new Map<string, string>();
  if (existsSync(list)) for (const { id, media: query } of readList(stylesheetSchema.omit({ css: true }), list)) media.set(id, query);
  const sheets = new Map<string, Sheet>();
  const sheetOf = (id: string): Sheet => {
    const known = sheets.get(id) ?? {
      name: `${id}.css`,
      css: readText(join(folder, 'stylesheets', `${id}.css`)),
      media: media.get(id) ?? '',
    };
    sheets.set(id, known);
    return known;
  };
  return kinds.map((kind) => ({ kind, sheets: kind.stylesheets.map(sheetOf) }));
}

/** What is stored on a site, as far as checks need to know. */
export interface StoredList {
  /** The kinds of page on which content of each profile stands. */
  kindsOf(profile: string): ReadonlySet<string>;
  contentOf(profile: string): StoredContent;
  texts: StoredTexts[];
  /** The pages that there are, by their paths. */
  pages: ReadonlySet<string>;
}

/** Reads a list of stored texts; their files stand in a folder beside it, or in one that is named. */
export function readStored(path: string, folder = join(dirname(path), basename(path, '.json'))): StoredList {
  const entries = readBy(storedListSchema, path);
  const censuses = entries.map(({ file, profile }) => ({ profile, census: takeCensus(parseFragment(readText(join(folder, file))).root) }));
  const all = sumCensuses(censuses.map(({ census }) => census));
  const counts = new Map<string, StoredTexts & { taken: Record<string, number> }>();
  for (const { type, field, profile, taken = [] } of entries) {
    if (type === undefined || field === undefined) continue;
    const key = `${type} ${field} ${profile}`;
    const known = counts.get(key) ?? { type, field, profile, count: 0, taken: {} };
    counts.set(key, known);
    known.count++;
    for (const name of taken) known.taken[name] = (known.taken[name] ?? 0) + 1;
  }
  return {
    kindsOf: (profile) => new Set(entries.flatMap((entry) => (entry.profile === profile ? (entry.pageKind ?? []) : []))),
    contentOf: (profile) => ({
      documents: all.documents,
      most: all.most,
      classes: sumCensuses(censuses.flatMap((one) => (one.profile === profile ? one.census : []))).classes,
    }),
    texts: [...counts.values()],
    pages: new Set(['/', ...entries.flatMap(({ id }) => (id === undefined ? [] : `/documents/${id}`))]),
  };
}

/** Every profile of a folder with its rules; those with mistakes are left out. */
export function readProfiles(folder: string, house: HouseLimits | null): Map<string, ComparedSide> {
  const documents = new Map<string, JsonObject>();
  for (const name of readdirSync(folder).sort())
    if (name.endsWith('.json')) {
      const value = readJson(join(folder, name));
      if (isObject(value) && typeof value['format'] === 'string' && value['format'].startsWith('typikon-profile/'))
        documents.set(name.replace(/\.json$/, ''), value);
    }
  return compiledSides(documents, house);
}
