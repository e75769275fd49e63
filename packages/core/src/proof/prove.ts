import { cloneFragment } from '../html/clone';
import { parseFragment, type ParsedFragment } from '../html/parse';
import type { FragmentNode } from '../html/node';
import type { LedgerEntry } from '../ledger/entry';
import { measure, type Measures } from '../ledger/measures';
import { cleanParsed } from '../markup/clean';
import { compileRules } from '../markup/compile';
import type { ClipboardPayload } from '../paste/payload';
import { pastedMarkup, runPaste, type Pasted, type PasteOptions } from '../paste/run';
import { detectSource, type DetectedSource } from '../paste/source';
import type { ResolvedProfile } from '../profile/resolve';
import { judge, type Expectation, type SpecimenDocument, type Verdict } from './specimen';

/** One content taken through one profile: what comes out, what was done to it and by which rule, and figures of both. */
export interface Proof {
  /** The markup that all places in the ledger count in. */
  input: string;
  html: string;
  root: FragmentNode;
  ledger: LedgerEntry[];
  measures: Measures;
  /** What kind of source it is taken for. */
  source: DetectedSource;
  /** What the passes did; null where the content stands in a document already, which goes through the markup rules alone. */
  paste: Pasted | null;
}

/**
 * What becomes of markup that is stored: the markup rules alone are applied.
 *
 * @param content the markup, or its tree where it is parsed already; that is not changed
 * @param resolved the profile
 * @param options the house limits and the role; `rules` where they are compiled already
 * @returns never throws
 */
export function proveStored(content: string | ParsedFragment, resolved: ResolvedProfile, options: PasteOptions = {}): Proof {
  const fragment = typeof content === 'string' ? parseFragment(content) : cloneFragment(content);
  const { html, root, ledger } = cleanParsed(fragment, options.rules ?? compileRules(resolved, options));
  const { input } = fragment;
  return {
    input,
    html,
    root,
    ledger,
    measures: measure(input, html, root, ledger),
    source: { source: 'web-page', evidence: [] },
    paste: null,
  };
}

/**
 * What becomes of a payload that is pasted: its markup goes through the passes and through the markup rules.
 *
 * @param payload what was on the clipboard; never trusted
 * @returns never throws
 */
export function provePaste(payload: ClipboardPayload, resolved: ResolvedProfile, options: PasteOptions = {}): Proof {
  const paste = runPaste(payload, resolved, options);
  const { input, html, root, ledger, source } = paste;
  return { input, html, root, ledger, measures: measure(input, html, root, ledger), source, paste };
}

/** What of a specimen a proof needs. */
export interface Provable {
  arrives: SpecimenDocument['arrives'];
  payload: ClipboardPayload;
  expectations: readonly Expectation[];
}

/** A specimen's proof, and which of its expectations are met. */
export interface SpecimenProof extends Proof {
  verdicts: Verdict[];
}

/** What becomes of a specimen, in the way in which it arrives, and whether that is what is expected. */
export function proveSpecimen(
  { arrives, payload, expectations }: Provable,
  resolved: ResolvedProfile,
  options: PasteOptions = {},
): SpecimenProof {
  const proof =
    arrives === 'paste'
      ? provePaste(payload, resolved, options)
      : { ...proveStored(markupOfSpecimen({ payload }, resolved), resolved, options), source: detectSource(payload) };
  return { ...proof, verdicts: verdictsOf(expectations, proof) };
}

/** Which expectations a proof meets. */
export function verdictsOf(expectations: readonly Expectation[], proof: Proof): Verdict[] {
  const { html, root, ledger, source, paste, measures } = proof;
  return judge(expectations, { html, root, ledger, source, picturesToUpload: paste?.picturesToUpload ?? 0 }, lettersKept(measures));
}

/** The markup that a specimen brings, as the profile reads it: what is looked at to tell whether a dictionary is needed. */
export function markupOfSpecimen({ payload }: Pick<Provable, 'payload'>, resolved: ResolvedProfile): string {
  return pastedMarkup(payload, resolved, detectSource(payload).source);
}

/** Percent of the letters that no reader misses. */
export function lettersKept({ lettersBefore, lettersMissed }: Measures): number {
  return lettersBefore === 0 ? 100 : Math.max(0, (100 * (lettersBefore - lettersMissed)) / lettersBefore);
}
