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
 * @param versions newest first
 * @returns null where there is no version at all
 */
export function latestChange(versions: readonly Version[], pointer: string): z.infer<typeof ruleChange> {
  const keys = fromPointer(pointer);
  const at = (version: Version) => valueAt(version.document, keys);
  const [newest] = versions;
  if (newest === undefined) return null;
  const now = at(newest);
  const index = versions.findIndex((version, i) => i + 1 === versions.length || !isSameJson(now, at(versions[i + 1]!)));
  const version = versions[index]!;
  const older = versions[index + 1];
  return {
    revision: version.revision,
    savedAt: version.savedAt.toISOString(),
    before: (older === undefined ? null : at(older)) ?? null,
    after: now ?? null,
    isFirst: older === undefined,
  };
}
