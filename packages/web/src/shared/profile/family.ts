import { nameOf } from '../../state/profile-name';
import type { StoredProfile } from '../../state/types';

/** Profiles with each one's children below it, and how far down it stands. A missing parent or a circle hides none. */
export function inFamilyOrder(profiles: readonly StoredProfile[]): { profile: StoredProfile; depth: number }[] {
  const ids = new Set(profiles.map(({ id }) => id));
  const placed = new Set<string>();
  const rows: { profile: StoredProfile; depth: number }[] = [];
  const place = (profile: StoredProfile, depth: number): void => {
    if (placed.has(profile.id)) return;
    placed.add(profile.id);
    rows.push({ profile, depth });
    profiles
      .filter(({ document }) => document['extends'] === profile.id)
      .sort((a, b) => nameOf(a).localeCompare(nameOf(b)))
      .forEach((child) => place(child, depth + 1));
  };
  const roots = profiles.filter(({ document }) => typeof document['extends'] !== 'string' || !ids.has(document['extends']));
  for (const root of [...roots].sort((a, b) => nameOf(a).localeCompare(nameOf(b)))) place(root, 0);
  for (const profile of profiles) place(profile, 0);
  return rows;
}

/** The ids of all profiles that extend one, directly or through others. */
export function descendantsOf(id: string, profiles: readonly StoredProfile[]): ReadonlySet<string> {
  const found = new Set<string>();
  const rest = [id];
  for (let parent = rest.pop(); parent !== undefined; parent = rest.pop())
    for (const { id: child, document } of profiles)
      if (document['extends'] === parent && !found.has(child)) {
        found.add(child);
        rest.push(child);
      }
  return found;
}
