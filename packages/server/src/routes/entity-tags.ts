/** Entity tags are revisions (RFC 9110, section 8.8.3). */
export const etagHeader = { ETag: { schema: { type: 'string' as const }, description: 'The revision (RFC 9110, section 8.8.3).' } };

export const etagOf = (revision: number): string => `"${revision}"`;

/** Whether an If-Match header names a revision, or any (RFC 9110, section 13.1.1). */
export function matches(ifMatch: string, revision: number): boolean {
  return ifMatch
    .split(',')
    .map((tag) => tag.trim())
    .some((tag) => tag === '*' || tag === etagOf(revision));
}
