import { compileRules } from '../../markup/compile';
import type { Json } from '../../profile/merge-patch';
import { resolveProfile } from '../../profile/resolve';
import type { HouseLimits } from '../../profile/schema';
import type { ComparedSide } from './side';

/**
 * Profiles with their rules, by their ids; those with mistakes are left out.
 *
 * @param documents every profile's document, by its id: those that others extend are among them
 * @param house the limits above them; null for none
 */
export function compiledSides(documents: ReadonlyMap<string, Json>, house: HouseLimits | null): Map<string, ComparedSide> {
  const sides = new Map<string, ComparedSide>();
  for (const id of documents.keys()) {
    const resolution = resolveProfile(id, (other) => documents.get(other));
    if (!resolution.ok) continue;
    const { profile } = resolution.resolved;
    sides.set(id, { profile, rules: compileRules(resolution.resolved, house === null ? {} : { house }), name: profile.name });
  }
  return sides;
}
