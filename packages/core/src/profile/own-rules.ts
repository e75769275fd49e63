import { isObject, type Json, type JsonObject } from './merge-patch';

/** What a document says of its profile, and not what the profile says. */
const ABOUT = new Set(['format', 'name', 'purpose', 'extends']);

/** How many values a profile sets itself in a chapter. */
export interface OwnRules {
  chapter: string;
  count: number;
}

/**
 * What a profile's own document sets, beside what it inherits, by chapter in the document's order. A list counts as one value, and so
 * does a rule that is taken out (RFC 7396, `null`).
 */
export function ownRules(document: JsonObject): OwnRules[] {
  return Object.entries(document)
    .filter(([chapter]) => !ABOUT.has(chapter))
    .map(([chapter, value]) => ({ chapter, count: valuesIn(value) }))
    .filter(({ count }) => count > 0);
}

function valuesIn(value: Json): number {
  const rest: Json[] = [value];
  let count = 0;
  for (let next = rest.pop(); next !== undefined; next = rest.pop())
    if (isObject(next)) rest.push(...Object.values(next));
    else count++;
  return count;
}
