/** So many are asked about at once. */
const MOST_AT_ONCE = 200;
const DOCUMENT = /^\/documents\/([a-z0-9-]{1,64})$/;

/** Which pages of the site are there. A page that was found is not looked for again; one that was not may have been made since. */
export class KnownPages {
  private readonly found = new Set(['/']);

  /** @param find says which of some ids are those of documents */
  constructor(private readonly find: (ids: readonly string[]) => Promise<readonly string[]>) {}

  /** Those of some paths at which there is a page. Where nobody can be asked, all of them, so that nothing is blamed. */
  async among(paths: readonly string[]): Promise<string[]> {
    const ids = paths.flatMap((path) => (this.found.has(path) ? [] : (DOCUMENT.exec(path)?.[1] ?? [])));
    try {
      for (let at = 0; at < ids.length; at += MOST_AT_ONCE)
        for (const id of await this.find(ids.slice(at, at + MOST_AT_ONCE))) this.found.add(`/documents/${id}`);
    } catch {
      return [...paths];
    }
    return paths.filter((path) => this.found.has(path));
  }
}
