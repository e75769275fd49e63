/** A document as it is stored. */
export interface StoredDocument {
  id: string;
  title: string;
  type: string;
  pageKind: string;
  createdAt: Date;
  changedAt: Date;
  changedBy: string;
  revision: number;
  /** The version that readers see; null for none. */
  publicRevision: number | null;
  /** The version that waits for somebody's approval; null for none. */
  askedRevision: number | null;
  fields: StoredField[];
}

/** What stands in one field. */
export interface StoredField {
  key: string;
  value: string;
  profile: string | null;
  role: string;
  revision: number;
  /** What the rules took of it while it was written, by what it is called. */
  taken?: readonly string[];
  /** The edition of the profile by which it was last saved; null where it is not known. */
  edition?: number | null;
  /** The edition by which it is shown until it is edited, because a release left it as it was; null for the last. */
  keptEdition?: number | null;
}
