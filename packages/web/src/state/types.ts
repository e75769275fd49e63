import type { AnswerOf } from './contract';
import type {
  Census,
  CensusOfAll,
  ClipboardPayload,
  Expectation,
  FromNowOn,
  HouseLimits,
  JsonObject,
  LedgerEntry,
  Measures,
  Overtaken,
  PageKind,
  PassId,
  PassTrace,
  PasteSource,
  Stylesheet,
  Thing,
  Verdict,
} from '@typikon/core';

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
  /** Whether it comes by paste, or stands in a document already. */
  arrives: 'paste' | 'stored';
  payload: ClipboardPayload;
  expectations: Expectation[];
  /** The entity tag. */
  revision: number;
}

/** How the markup on the bench comes in: through the paste passes and the markup rules, or through the rules alone. */
export type Arrival =
  | { way: 'stored' }
  | {
      way: 'paste';
      /** What was on the clipboard beside the markup. */
      beside: Readonly<Record<string, string>>;
      /** What kind of source it is taken for. */
      source: PasteSource;
      /** The pass before and after which the markup is wanted. */
      pass: PassId | null;
      /** Whether all is wanted that the paste chapter shows. */
      isDetailed: boolean;
    };

export interface StoredStylesheet extends Stylesheet {
  /** The entity tag. */
  revision: number;
}

export interface StoredPageKind extends PageKind {
  /** The entity tag. */
  revision: number;
}

/** The stylesheets of the site and its kinds of page. */
export interface StyleFiles {
  /** Counts the changes of them. */
  revision: number;
  stylesheets: StoredStylesheet[];
  pageKinds: StoredPageKind[];
}

/** What is stored together: all of it or nothing. What is new has no revision. */
export interface StyleChanges {
  note: string;
  stylesheets?: (Stylesheet & { revision: number | null })[];
  pageKinds?: (PageKind & { revision: number | null })[];
  removed?: { stylesheets?: { id: string; revision: number }[]; pageKinds?: { id: string; revision: number }[] };
}

export interface StylesheetVersion {
  revision: number;
  savedAt: string;
  note: string;
  letters: number;
}

/** How alike the editor and the page were at a time. */
export interface LikenessFigure {
  profileId: string;
  pageKindId: string;
  elements: number;
  alike: number;
  causes: number;
  takenAt: string;
}

/** A stored document with its markup as it is published. */
/** A rich text as it is published. */
export interface PublishedText {
  id: string;
  title: string;
  profileId: string;
  pageKindId: string;
  html: string;
}

/** How many texts stand in a field of a type with a profile. */
export type TextCount = AnswerOf<'get', '/texts/counts'>[number];

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

/** What of a profile was released last: authors write with it. */
export interface Edition {
  profile: string;
  /** Counts the editions of the profile from 1. */
  number: number;
  releasedAt: string;
  /** Its own document and those that it extends, from the nearest on. */
  chain: readonly { id: string; document: JsonObject }[];
}

/** What was released last of something that the whole site has once: it holds. */
export type SharedEdition = Omit<AnswerOf<'get', '/shared'>[number], 'document'> & { document: JsonObject };
export type Part = SharedEdition['part'];

/** Everything the screens need from the server before they can show anything. */
export interface Library {
  profiles: StoredProfile[];
  /** The last edition of each profile. */
  editions: Edition[];
  specimens: Specimen[];
  /** Stylesheets and page kinds as they are worked on, and how often they were changed. */
  stylesheets: StoredStylesheet[];
  pageKinds: StoredPageKind[];
  pagesRevision: number;
  texts: TextCount[];
  /** What was released last of what the whole site has once. */
  shared: SharedEdition[];
  /** The draft of the house limits as it is written. */
  house: HouseLimits;
  /** Its entity tag. */
  houseRevision: number;
  roles: Role[];
  siteOrigin: string;
}

/** What all stored documents hold together. */
export type StoredCensus = CensusOfAll & { classesByProfile: Record<string, Record<string, number>> };

/** What the worker is asked: one piece of markup through one profile. */
export interface ProofRequest {
  profileId: string;
  /** The documents of the profile and its parents, drafts included. */
  documents: Record<string, JsonObject>;
  house: HouseLimits | null;
  /** For whose content; empty for anybody whom the house limits bind. */
  role: string;
  html: string;
  arrival: Arrival;
  expectations: readonly Expectation[];
}

/** What the rules of a profile come to. */
export interface RulesRequest extends Omit<ProofRequest, 'html' | 'arrival' | 'expectations'> {
  /** Elements of which to tell beside those of HTML. */
  names: readonly string[];
}

/** Specimens that are run through a profile one after another. */
export interface MatrixRequest extends Omit<ProofRequest, 'html' | 'arrival' | 'expectations'> {
  specimens: readonly Specimen[];
  /** Whether passes that work in vain are left out, which takes far less time. */
  isQuick: boolean;
}

/** What became of one specimen. */
export interface MatrixRow {
  specimenId: string;
  /** Percent of the letters. */
  kept: number;
  changed: number;
  lost: number;
  expectationsMet: number;
  expectations: number;
  /** Changes that each pass made. */
  passes: Partial<Record<PassId, number>>;
  overtaken: Overtaken[];
  html: string;
}

/** What the worker can be asked to do. */
export type WorkerTask =
  | { kind: 'rules'; request: RulesRequest }
  | { kind: 'read'; payload: ClipboardPayload; isMarkdown: boolean }
  | { kind: 'inventory'; markups: readonly string[] }
  | { kind: 'drop'; request: RulesRequest; thing: Thing }
  | { kind: 'keeping'; request: ProofRequest; entries: readonly LedgerEntry[] }
  | { kind: 'prove'; request: ProofRequest }
  | { kind: 'overtaken'; request: ProofRequest }
  | { kind: 'would'; request: ProofRequest }
  | { kind: 'keep'; request: ProofRequest; thing: Pick<Thing, 'kind' | 'name'> }
  | { kind: 'matrix'; request: MatrixRequest }
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
  /** What the passes did; null where the markup did not come by paste. */
  paste: ProvedPaste | null;
  verdicts: Verdict[];
}

export interface ProvedPaste {
  source: PasteSource;
  trace: PassTrace[];
  rules: { changes: number; bytesBefore: number; bytesAfter: number };
  pictures: number;
  picturesToUpload: number;
  /** The markup before and after the chosen pass. */
  view: { pass: PassId; before: string; after: string } | null;
}

/** A way to keep a thing from now on, or null where no rule of the profile does it. */
export type Kept = FromNowOn | null;

/** What the worker with the dictionary is asked. */
export type SpellingTask =
  | { kind: 'words'; words: readonly string[] }
  | { kind: 'wrong'; words: readonly string[] }
  | { kind: 'suggest'; word: string }
  | { kind: 'add'; word: string };
export interface SpellingQuestion {
  id: number;
  task: SpellingTask;
}
export type SpellingAnswer = { id: number; words: readonly string[] } | { id: number; failure: string };
