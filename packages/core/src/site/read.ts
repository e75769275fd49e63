import type * as z from 'zod';
import { toPointer } from '../profile/pointer';
import type { Problem } from '../profile/resolve';
import { siteSchema, type Site } from './schema';

/** What a value is called in sentences. */
const KINDS: Readonly<Record<string, string>> = {
  array: 'a list',
  boolean: 'true or false',
  int: 'a whole number',
  number: 'a number',
  object: 'an object',
  string: 'a text',
};

/**
 * Reads a site document.
 *
 * @param document parsed JSON of any kind
 * @returns the site with every default filled in, or every mistake with its place
 */
export function readSite(document: unknown): { ok: true; site: Site } | { ok: false; problems: Problem[] } {
  const read = siteSchema.safeParse(document, { reportInput: true });
  return read.success ? { ok: true, site: read.data } : { ok: false, problems: read.error.issues.flatMap(problemsOf) };
}

function problemsOf(issue: z.core.$ZodIssue): Problem[] {
  const path = issue.path.map(String);
  const at = (message: string, keys = path): Problem => ({ profile: 'site', pointer: toPointer(keys), message });
  switch (issue.code) {
    case 'invalid_type':
      return [at(issue.input === undefined ? 'is missing' : `must be ${KINDS[issue.expected] ?? issue.expected}`)];
    case 'invalid_value':
      return [at(`must be ${issue.values.length === 1 ? '' : 'one of '}${issue.values.map((value) => JSON.stringify(value)).join(', ')}`)];
    case 'unrecognized_keys':
      return issue.keys.map((key) => at('is not known here', [...path, key]));
    case 'invalid_union':
      return [at('must be "*" or a list of at least one name')];
    case 'too_big':
      return [at(`must have at most ${issue.maximum}${issue.origin === 'string' ? ' letters' : ''}`)];
    default:
      return [at(issue.message)];
  }
}
