import type { PassId } from '../profile/paste-schema';
import type { ResolvedProfile } from '../profile/resolve';
import type { ClipboardPayload } from './payload';
import { runPaste, type PasteOptions } from './run';

/** A pass whose work makes no difference to what comes out, and the step that makes it so. */
export interface Overtaken {
  pass: PassId;
  /** The first later pass after which all is the same without it, or the markup rules. */
  by: PassId | 'markup';
  /** undone: the later step takes back what the pass did. anyway: it would have done the same. */
  how: 'undone' | 'anyway';
}

/**
 * Tells which passes work on a paste in vain: each is left out once, and what comes out is compared.
 *
 * @returns the passes that changed something and might as well not have; in their order
 */
export function overtakenPasses(payload: ClipboardPayload, resolved: ResolvedProfile, options: PasteOptions = {}): Overtaken[] {
  const full = runPaste(payload, resolved, { ...options, trace: 'html' });
  return full.trace.flatMap(({ pass, ran, changes }, index): Overtaken[] => {
    if (!ran || changes === 0) return [];
    const other = runPaste(payload, withoutPass(resolved, pass), { ...options, trace: 'html' });
    if (other.html !== full.html) return [];
    for (let step = index + 1; step < full.trace.length; step++) {
      const [one, two] = [full.trace[step]!, other.trace[step]!];
      if (one.html === two.html) return [{ pass, by: one.pass, how: one.changes > two.changes ? 'undone' : 'anyway' }];
    }
    return [{ pass, by: 'markup', how: full.rulesTrace.changes > other.rulesTrace.changes ? 'undone' : 'anyway' }];
  });
}

function withoutPass(resolved: ResolvedProfile, pass: PassId): ResolvedProfile {
  const { paste } = resolved.profile;
  const passes = { ...paste.passes, [pass]: { ...paste.passes[pass], on: false } };
  return { ...resolved, profile: { ...resolved.profile, paste: { ...paste, passes } } };
}
