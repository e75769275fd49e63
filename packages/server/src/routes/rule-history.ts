import { z } from '@hono/zod-openapi';
import { fromPointer, isSameJson, valueAt, type JsonObject } from '@typikon/core';

export const pointerQuery = z.object({
  pointer: z
    .string()
    .regex(/^(\/[^/]*)*$/, 'must be a JSON Pointer, such as "/markup/elements/iframe"')
    .max(500),
});

/** When a rule was last changed. */
export const ruleChange = z
  .object({
    revision: z.int(),
    savedAt: z.iso.datetime(),
    /** What stood there before and what has stood there since; null for nothing. */
    before: z.unknown(),
    after: z.unknown(),
    isFirst: z.boolean().openapi({ description: 'True where it stands as it did in the first version.' }),
  })
  .nullable()
  .openapi('RuleChange');

interface Version {
  revision: number;
  savedAt: Date;
  document: JsonObject;
}

/**
 * Finds the version that last changed what stands at a pointer.
 *
 * @param versions newest first; no more of them are asked for than it takes
 * @returns null where there is no version at all
 */
export async function latestChange(versions: AsyncIterable<Version>, pointer: string): Promise<z.infer<typeof ruleChange>> {
  const keys = fromPointer(pointer);
  const at = (version: Version) => valueAt(version.document, keys);
  let found: Version | null = null;
  let older: Version | null = null;
  let after: ReturnType<typeof valueAt>;
  for await (const version of versions) {
    if (found === null) after = at(version);
    else if (!isSameJson(after, at(version))) {
      older = version;
      break;
    }
    found = version;
  }
  if (found === null) return null;
  return {
    revision: found.revision,
    savedAt: found.savedAt.toISOString(),
    before: (older === null ? null : at(older)) ?? null,
    after: after ?? null,
    isFirst: older === null,
  };
}

/** So many versions are read at once. */
const BATCH = 8;

/**
 * The versions of something, newest first, a few at a time.
 *
 * @param read versions older than a revision, newest first
 */
export async function* newestFirst(read: (below: number, limit: number) => Promise<Version[]>): AsyncIterable<Version> {
  for (let below = Number.MAX_SAFE_INTEGER; ;) {
    const versions = await read(below, BATCH);
    yield* versions;
    if (versions.length < BATCH) return;
    below = versions[versions.length - 1]!.revision;
  }
}
