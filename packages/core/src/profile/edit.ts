import { isObject, isSameJson, withValue, type Json, type JsonObject } from './merge-patch';
import { valueAt } from './pointer';
import { mergeChain, type ProfileSource } from './resolve';

/**
 * The merge patch (RFC 7396) that turns one value into another; undefined where they are equal already.
 * `to` undefined means that the value is to be gone.
 */
export function makePatch(from: Json | undefined, to: Json | undefined): Json | undefined {
  if (to === undefined) return from === undefined ? undefined : null;
  if (from !== undefined && isSameJson(from, to)) return undefined;
  if (!isObject(to)) return to;
  const base = isObject(from) ? from : {};
  const patch: JsonObject = {};
  for (const key of new Set([...Object.keys(base), ...Object.keys(to)])) {
    const change = makePatch(base[key], to[key]);
    if (change !== undefined) patch[key] = change;
  }
  return patch;
}

/** What a profile would have at a path if its own document said nothing there. */
export function inheritedValue(chain: readonly ProfileSource[], keys: readonly string[]): Json | undefined {
  return valueAt(mergeChain(chain.slice(1)), keys);
}

/**
 * Changes a profile's own document so that the resolved profile has a value at a path. What equals the inherited value is
 * not repeated, so that it goes on following the parent.
 *
 * @param chain the profile and its parents, as `resolveProfile` returns them
 * @param keys the path into the resolved profile
 * @param value the new value; undefined to have nothing there
 * @returns the new document of the profile itself
 */
export function setInProfile(chain: readonly ProfileSource[], keys: readonly string[], value: Json | undefined): JsonObject {
  const [own, ...parents] = chain;
  if (own === undefined) throw new Error('A profile chain has at least the profile itself.');
  // Where the document removes something further up, the change below it needs that back first.
  const inherited = parents.length === 0 ? undefined : inheritedValue(chain, keys);
  return withValue(own.document, keys, makePatch(inherited, value));
}

/** Takes out whatever a profile's own document says at a path, so that the inherited value holds again. */
export function resetInProfile(chain: readonly ProfileSource[], keys: readonly string[]): JsonObject {
  const [own] = chain;
  if (own === undefined) throw new Error('A profile chain has at least the profile itself.');
  return withValue(own.document, keys, undefined);
}

/** How many settings differ between two documents of a profile: leaves and whole lists, each counted once. */
export function countChanges(from: Json | undefined, to: Json | undefined): number {
  if (from !== undefined && to !== undefined && isSameJson(from, to)) return 0;
  if (!isObject(from) || !isObject(to)) return 1;
  return [...new Set([...Object.keys(from), ...Object.keys(to)])].reduce((sum, key) => sum + countChanges(from[key], to[key]), 0);
}
