import type { Census, CensusOfAll, HouseLimits, JsonObject, LedgerEntry, Measures, PageKind } from '@typikon/core';

/** A profile as the server keeps it. */
export interface StoredProfile {
  id: string;
  document: JsonObject;
  /** The entity tag of the draft. */
  revision: number;
  createdAt: string;
  updatedAt: string;
}

export interface Specimen {
  id: string;
  name: string;
  kind: string;
  notes: string;
  profileId: string;
  html: string;
}

export interface PageKindWithCss extends PageKind {
  css: { id: string; css: string }[];
}

export interface DocumentSummary {
  id: string;
  title: string;
  contentType: string;
  profileId: string;
  pageKindId: string;
}

export interface Role {
  id: string;
  name: string;
}

/** When a rule was last changed. */
export interface RuleChange {
  revision: number;
  savedAt: string;
  before: unknown;
  after: unknown;
  isFirst: boolean;
}

/** Everything the screens need from the server before they can show anything. */
export interface Library {
  profiles: StoredProfile[];
  specimens: Specimen[];
  pageKinds: PageKindWithCss[];
  documents: DocumentSummary[];
  /** The house limits as they are written. */
  house: HouseLimits;
  /** Their entity tag. */
  houseRevision: number;
  roles: Role[];
  /** What all stored documents hold together. */
  census: CensusOfAll;
  siteOrigin: string;
}

/** What the worker is asked: one piece of markup through one profile. */
export interface ProofRequest {
  profileId: string;
  /** The documents of the profile and its parents, drafts included. */
  documents: Record<string, JsonObject>;
  house: HouseLimits | null;
  /** For whose content; empty for anybody whom the house limits bind. */
  role: string;
  html: string;
}

/** What the worker can be asked to do. */
export type WorkerTask =
  | { kind: 'prove'; request: ProofRequest }
  | { kind: 'list-lessons'; request: ProofRequest }
  | { kind: 'learn'; request: ProofRequest; chosen: readonly string[] };

/** One specimen run through one profile. */
export interface Proof {
  input: string;
  html: string;
  ledger: LedgerEntry[];
  measures: Measures;
  /** What the input holds. */
  census: Census;
  /** How long the computation took, in milliseconds. */
  ms: number;
}
