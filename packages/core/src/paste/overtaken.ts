import type { PassId } from '../profile/paste-schema';
import type { ResolvedProfile } from '../profile/resolve';
import type { ClipboardPayload } from './payload';
import { runPaste, type Pasted, type PasteOptions } from './run';

/** A pass whose work makes no difference to what comes out, and the step that makes it so. */
export interface Overtaken {
  pass: PassId;
  /** The later pass without which it would make a difference, or the markup rules. */
  by: PassId | 'markup';
  /** undone: the later step takes back what the pass did. anyway: it would have done the same. */
  how: 'undone' | 'anyway';
}

/**
 * Tells which passes work on a paste in vain: each is left out once, and what comes out is compared. For those that make no
 * difference, the later step is sought without which they would.
 *
 * @returns the passes that changed something and might as well not have; in their order
 */
export function overtakenPasses(payload: ClipboardPayload, resolved: ResolvedProfile, options: PasteOptions = {}): Overtaken[] {
  const run = (...left: PassId[]): Pasted => runPaste(payload, left.reduce(withoutPass, resolved), { ...options, trace: 'counts' });
  const whole = run();
  const working = whole.trace.filter(({ ran, changes }) => ran && changes > 0).map(({ pass }) => pass);
  return working.flatMap((pass, index): Overtaken[] => {
    const other = run(pass);
    if (other.html !== whole.html) return [];
    for (const later of working.slice(index + 1)) {
      if (run(later).html === run(pass, later).html) continue;
      return [{ pass, by: later, how: changesOf(whole, later) > changesOf(other, later) ? 'undone' : 'anyway' }];
    }
    return [{ pass, by: 'markup', how: whole.rulesTrace.changes > other.rulesTrace.changes ? 'undone' : 'anyway' }];
  });
}

function changesOf({ trace }: Pasted, pass: PassId): number {
  return trace.find((step) => step.pass === pass)?.changes ?? 0;
}

function withoutPass(resolved: ResolvedProfile, pass: PassId): ResolvedProfile {
  const { paste } = resolved.profile;
  const passes = { ...paste.passes, [pass]: { ...paste.passes[pass], on: false } };
  return { ...resolved, profile: { ...resolved.profile, paste: { ...paste, passes } } };
}
