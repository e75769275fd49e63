/** What of a document readers do not see, in a few words; empty where they see all of it. */
export function notSeen(document: { revision: number; publicRevision: number | null; askedRevision: number | null }): string {
  const { revision, publicRevision, askedRevision } = document;
  if (askedRevision !== null) return 'waits for approval';
  if (publicRevision === revision) return '';
  return publicRevision === null ? 'not public' : 'last version not public';
}
