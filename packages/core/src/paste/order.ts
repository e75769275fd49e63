import { PASS_IDS, type PassId } from '../profile/paste-schema';
import type { ResolvedProfile } from '../profile/resolve';

/** The passes of a profile in the order in which they work. */
export function passOrder({ profile }: ResolvedProfile): PassId[] {
  const { order } = profile.paste;
  return [...new Set([...order, ...PASS_IDS])];
}
