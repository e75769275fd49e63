import type { Json } from './merge-patch';

/** Makes a JSON Pointer (RFC 6901, section 3) from keys: `['markup', 'a/b']` is `/markup/a~1b`. */
export function toPointer(keys: readonly (string | number)[]): string {
  return keys.map((key) => `/${String(key).replace(/~/g, '~0').replace(/\//g, '~1')}`).join('');
}

/** Takes a JSON Pointer apart; the empty pointer, which means the whole document, has no keys. */
export function fromPointer(pointer: string): string[] {
  if (pointer === '') return [];
  return pointer
    .slice(1)
    .split('/')
    .map((key) => key.replace(/~1/g, '/').replace(/~0/g, '~'));
}

/** The value a pointer leads to, or undefined where the document has none. */
export function valueAt(document: Json | undefined, keys: readonly string[]): Json | undefined {
  let value = document;
  for (const key of keys) {
    if (Array.isArray(value)) value = value[Number(key)];
    else if (typeof value === 'object' && value !== null && Object.hasOwn(value, key)) value = value[key];
    else return undefined;
  }
  return value;
}
