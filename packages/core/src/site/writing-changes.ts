import { Assignments } from './assign';
import type { Site } from './schema';

/** With what somebody writes in a field: what the editor starts with, and all that may be chosen; null and none where nobody may. */
export interface WrittenWith {
  profile: string | null;
  choices: readonly string[];
}

/** A field in which some roles write with something else than before. */
export interface WritingChange {
  type: string;
  field: string;
  /** As people know the two. */
  typeLabel: string;
  fieldTitle: string;
  /** The ids of the roles, in their order. */
  roles: string[];
  before: WrittenWith;
  after: WrittenWith;
}

const NOTHING: WrittenWith = { profile: null, choices: [] };

/**
 * In which fields which roles write with something else once a site changes, each role taken by itself. Fields and roles that only one
 * of the two has count as nobody's in the other.
 *
 * @param from the site as it holds
 * @param to the site as it would
 */
export function changesOfWriting(from: Site, to: Site): WritingChange[] {
  const sides = [from, to].map((site) => ({ site, assignments: new Assignments(site) }));
  const changes: WritingChange[] = [];
  const roles = [...new Set([...to.roles, ...from.roles].map(({ id }) => id))];
  for (const { type, field, typeLabel, fieldTitle } of fieldsOf(to, from)) {
    const own: WritingChange[] = [];
    for (const role of roles) {
      const [before, after] = sides.map(({ site, assignments }): WrittenWith => {
        const isThere =
          site.roles.some(({ id }) => id === role) &&
          site.types.some(({ id, fields }) => id === type && fields.some(({ key }) => key === field));
        if (!isThere) return NOTHING;
        const { profile, choices } = assignments.why({ roles: [role], type, field });
        return { profile, choices };
      }) as [WrittenWith, WrittenWith];
      if (isSame(before, after)) continue;
      const known = own.find((change) => isSame(change.before, before) && isSame(change.after, after));
      if (known === undefined) own.push({ type, field, typeLabel, fieldTitle, roles: [role], before, after });
      else known.roles.push(role);
    }
    changes.push(...own);
  }
  return changes;
}

/** How many texts stand in a field with a profile. */
interface Stored {
  type: string;
  field: string;
  profileId: string;
  count: number;
}

/** Texts whose profile nobody may choose where they stand: they keep it until somebody moves them. */
export function leftBehind<Counted extends Stored>(site: Site, counts: readonly Counted[]): Counted[] {
  const assignments = new Assignments(site);
  const offered = new Map<string, Set<string>>();
  return counts.filter(({ type, field, profileId, count }) => {
    const key = JSON.stringify([type, field]);
    let profiles = offered.get(key);
    if (profiles === undefined) {
      profiles = new Set(site.roles.flatMap(({ id }) => [...assignments.why({ roles: [id], type, field }).choices]));
      offered.set(key, profiles);
    }
    return count > 0 && !profiles.has(profileId);
  });
}

const isSame = (one: WrittenWith, other: WrittenWith): boolean =>
  one.profile === other.profile && one.choices.length === other.choices.length && one.choices.every((id, at) => id === other.choices[at]);

/** Every field that one of two sites has, once, as the first of them calls it. */
function* fieldsOf(...sites: readonly Site[]): Iterable<{ type: string; field: string; typeLabel: string; fieldTitle: string }> {
  const seen = new Set<string>();
  for (const { types } of sites)
    for (const { id: type, label: typeLabel, fields } of types)
      for (const { key: field, title: fieldTitle } of fields) {
        const name = JSON.stringify([type, field]);
        if (seen.has(name)) continue;
        seen.add(name);
        yield { type, field, typeLabel, fieldTitle };
      }
}
