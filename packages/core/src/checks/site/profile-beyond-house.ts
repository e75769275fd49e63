import { compileRules } from '../../markup/compile';
import type { CompiledRules } from '../../markup/compiled';
import type { HouseLimits, Profile } from '../../profile/schema';
import type { SiteCheck } from './check';

/** So many things are named before the rest is counted. */
const MOST_NAMED = 4;

/** Somebody writes with a profile that allows what the house limits do not: it looks allowed, and goes all the same. */
export const profileBeyondHouse: SiteCheck = {
  id: 'profile-beyond-house',
  label: 'Profiles that the house limits do not allow',
  *run({ site, profiles, house }) {
    if (house === undefined) return;
    const known = new Map<string, readonly string[]>();
    // Roles without an exception are held to the same.
    const beyond = (id: string, profile: Profile, role: string): readonly string[] => {
      const trusted = Object.hasOwn(house.trustedRoles, role) ? role : '';
      const key = `${id} ${trusted}`;
      const things = known.get(key) ?? thingsBeyond(profile, house, trusted);
      known.set(key, things);
      return things;
    };
    for (const [at, { roles, profiles: named }] of site.assignments.entries())
      for (const id of named) {
        const side = profiles.get(id);
        if (side === undefined) continue;
        const held = site.roles
          .filter((role) => roles === '*' || roles.includes(role.id))
          .map(({ id: role, label }) => ({ label, things: beyond(id, side.profile, role) }))
          .filter(({ things }) => things.length > 0);
        const [first] = held;
        if (first === undefined) continue;
        yield {
          check: this.id,
          severity: 'amiss',
          sentence: `${side.name} allows ${namesOf(first.things)}, but the house limits do not for ${held.map(({ label }) => label).join(', ')}: it goes all the same.`,
          pointer: `/assignments/${at}`,
          statement: at,
        };
      }
  },
};

/** What a profile keeps and the house limits take from somebody with a role, by name; an empty role has no exceptions. */
function thingsBeyond(profile: Profile, house: HouseLimits, role: string): string[] {
  const resolved = { id: '', profile, chain: [] };
  const [free, held] = [compileRules(resolved), compileRules(resolved, { house, ...(role === '' ? {} : { role }) })];
  return Object.keys(profile.markup.elements).flatMap((element) => {
    if (!keeps(free, element)) return [];
    if (!keeps(held, element)) return [element];
    const left = held.element(element).attributes;
    return [...free.element(element).attributes.keys()]
      .filter((attribute) => !left.has(attribute))
      .map((attribute) => `${attribute} on ${element}`);
  });
}

const keeps = (rules: CompiledRules, element: string): boolean => rules.element(element).outcome === 'keep';

function namesOf(things: readonly string[]): string {
  const [shown, rest] = [things.slice(0, MOST_NAMED), things.length - MOST_NAMED];
  return rest > 0 ? `${shown.join(', ')} and ${rest} more` : shown.join(', ');
}
