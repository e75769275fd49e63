import type { CompiledRules } from '../markup/compile';
import type { JsonObject } from '../profile/merge-patch';
import type { ResolvedProfile } from '../profile/resolve';

/** One result of a check: what is wrong, where, and a fix where one is safe. */
export interface Finding {
  check: string;
  severity: 'error' | 'warning' | 'note';
  /** What it means for the author's content, in a sentence. */
  sentence: string;
  /** JSON Pointer into the resolved profile. */
  pointer: string;
  fix?: {
    label: string;
    /** A merge patch (RFC 7396) for the profile's own document. */
    patch: JsonObject;
  };
}

export interface CheckContext {
  resolved: ResolvedProfile;
  rules: CompiledRules;
}

/** A test of a profile against itself and its surroundings. */
export interface Check {
  id: string;
  /** What it looks for, in a sentence. */
  purpose: string;
  run(context: CheckContext): Finding[];
}
