export type Json = null | boolean | number | string | Json[] | { [key: string]: Json };
export type JsonObject = { [key: string]: Json };

export function isObject(value: unknown): value is JsonObject {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/**
 * Applies a merge patch (RFC 7396, section 2): objects are merged key by key, `null` removes a key, anything else
 * replaces what was there. Neither argument is changed; parts that stay the same are shared with the result.
 */
export function mergePatch(target: Json | undefined, patch: Json): Json {
  if (!isObject(patch)) return patch;
  const merged: JsonObject = Object.create(null) as JsonObject;
  if (isObject(target)) for (const key of Object.keys(target)) merged[key] = target[key]!;
  for (const key of Object.keys(patch)) {
    const value = patch[key]!;
    if (value === null) delete merged[key];
    else merged[key] = mergePatch(merged[key], value);
  }
  return { ...merged };
}

/** Sets the value at a path of object keys, making objects on the way; `undefined` removes the key and the objects left empty by that. */
export function withValue(document: JsonObject, keys: readonly string[], value: Json | undefined): JsonObject {
  const [key, ...rest] = keys;
  if (key === undefined) return isObject(value) ? value : document;
  const copy: JsonObject = { ...document };
  if (rest.length === 0) {
    if (value === undefined) delete copy[key];
    else copy[key] = value;
    return copy;
  }
  const child = copy[key];
  if (!isObject(child) && value === undefined) return document;
  const changed = withValue(isObject(child) ? child : {}, rest, value);
  if (Object.keys(changed).length === 0 && value === undefined) delete copy[key];
  else copy[key] = changed;
  return copy;
}

/** Whether two JSON values are equal; the order of object keys does not count. */
export function isSameJson(one: Json | undefined, other: Json | undefined): boolean {
  if (one === other) return true;
  if (Array.isArray(one) && Array.isArray(other))
    return one.length === other.length && one.every((value, i) => isSameJson(value, other[i]));
  if (!isObject(one) || !isObject(other)) return false;
  const keys = Object.keys(one);
  return keys.length === Object.keys(other).length && keys.every((key) => Object.hasOwn(other, key) && isSameJson(one[key], other[key]));
}
