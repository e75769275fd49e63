/** A picture of the asset library. */
export interface LibraryPicture {
  /** What `src` is to be. */
  address: string;
  /** What it is called, such as the name of the file it came from. */
  title: string;
  alt: string;
  folder: string;
  widthPx: number;
  heightPx: number;
}

/** What is to happen where the library has a picture of the same name. */
export type SameName = 'ask' | 'keep-both' | 'replace' | 'use-existing';

/** The asset library as the editor sees it. Every call rejects with an error whose message a person can act on. */
export interface PictureLibrary {
  list(query: string, folder: string): Promise<readonly LibraryPicture[]>;
  folders(): Promise<readonly string[]>;
  store(
    file: File,
    options: { alt: string; folder: string; widestPx: number; sameName: SameName },
  ): Promise<{ picture: LibraryPicture } | { existing: LibraryPicture }>;
}

/** The pages of the site, to link to. */
export interface SitePages {
  find(query: string): Promise<readonly { title: string; address: string; kind: string }[]>;
}

/** A dictionary that answers from elsewhere, such as a worker. */
export interface Spelling {
  /** Those of the words that no dictionary has. */
  wrong(words: readonly string[]): Promise<readonly string[]>;
  suggest(word: string): Promise<readonly string[]>;
  /** Takes a word into the site's dictionary; absent where authors may not. */
  add?(word: string): Promise<void>;
}

/** Where text is kept that was not stored yet. */
export interface LocalDrafts {
  read(): { html: string; at: string } | null;
  write(html: string): void;
  remove(): void;
  /** Told when the author takes it back, before it stands in the text. */
  takenBack?(): void;
}

/** What stands around the editor; whatever is missing is not offered. */
export interface EditorServices {
  pictures?: PictureLibrary;
  pages?: SitePages;
  spelling?: Spelling;
  drafts?: LocalDrafts;
}
