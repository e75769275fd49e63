import type { Census, HouseLimits, JsonObject, LedgerEntry, Measures, PageKind } from '@typikon/core';

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

/** Everything the screens need from the server before they can show anything. */
export interface Library {
  profiles: StoredProfile[];
  specimens: Specimen[];
  pageKinds: PageKindWithCss[];
  documents: DocumentSummary[];
  house: HouseLimits;
  siteOrigin: string;
}

/** What the worker is asked: one piece of markup through one profile. */
export interface ProofRequest {
  profileId: string;
  /** The documents of the profile and its parents, drafts included. */
  documents: Record<string, JsonObject>;
  house: HouseLimits | null;
  html: string;
}

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
