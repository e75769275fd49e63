import type { LedgerEntry } from '../ledger/entry';
import { isElementAsSuch } from '../ledger/subject';
import { mergePatch, type JsonObject } from '../profile/merge-patch';
import { PROFILE_FORMAT, type HouseLimits } from '../profile/schema';
import { fromPointer } from '../profile/pointer';
import { readHouseLimits, type ResolvedProfile } from '../profile/resolve';
import { clean } from './clean';
import { compileRules } from './compile';
import { patchToKeep, smallestChange, type Keeping } from './keep';

/** What lets through what the house limits took: a change of theirs, and one of the profile where it would take it too. */
export interface WayThrough {
  /** What will be let through, in words. */
  label: string;
  /** A merge patch (RFC 7396) for the house limits. */
  house: JsonObject;
  /** The change of the profile; null where it lets it through already. */
  profile: Keeping | null;
}

/**
 * Works out the smallest changes that let through what the house limits took.
 *
 * @param entries entries of the layer `house-limits` that one rule made for one reason
 * @param resolved the profile that was used
 * @param input the markup that was cleaned: the changes are tried on it
 * @param house the limits that took it
 * @param role lets it through for this role alone, by an exception; null for everybody
 * @returns null where no change of the house limits can
 */
export function wayThrough(
  entries: readonly LedgerEntry[],
  resolved: ResolvedProfile,
  input: string,
  house: HouseLimits,
  role: string | null,
): WayThrough | null {
  const [first] = entries;
  if (first === undefined || first.layer !== 'house-limits') return null;
  const change = role === null ? forEverybody(entries, first, house) : forRole(first, house, role);
  if (change === null) return null;
  const read = readHouseLimits(mergePatch(JSON.parse(JSON.stringify(house)) as JsonObject, change.patch));
  if (!read.ok) return null;
  const options = { house: read.house, ...(role === null ? {} : { role }) };
  const still = takenStill(entries, clean(input, compileRules(resolved, options)).ledger);
  if (still.length === 0) return { label: change.label, house: change.patch, profile: null };
  const profile = patchToKeep(still, resolved, input, options);
  return profile === null ? null : { label: change.label, house: change.patch, profile };
}

/** The rules of the house limits are read as a profile's, whose smallest change is known. */
function forEverybody(entries: readonly LedgerEntry[], first: LedgerEntry, house: HouseLimits): Keeping | null {
  const markup = house.markup;
  const asProfile = {
    id: 'house-limits',
    profile: { format: PROFILE_FORMAT, name: house.name, markup },
    chain: [],
  } as unknown as ResolvedProfile;
  return smallestChange(entries, first, asProfile);
}

function forRole(first: LedgerEntry, house: HouseLimits, role: string): Keeping | null {
  const { element, attribute = '' } = first.subject;
  // Limits of the whole text are no rule of the element that went beyond them.
  const isOfElement = isElementAsSuch(first.subject) && fromPointer(first.rule)[1] !== 'limits';
  const pointer = isOfElement
    ? `/elements/${element}`
    : attribute !== '' && element !== ''
      ? `/elements/${element}/attributes/${attribute}`
      : first.rule.replace(/^\/markup/, '');
  const before = house.trustedRoles[role]?.except ?? [];
  if (before.includes(pointer)) return null;
  return {
    label: isOfElement ? `<${element}>` : attribute === '' ? pointer : `${attribute} on <${element}>`,
    patch: { trustedRoles: { [role]: { except: [...before, pointer] } } },
  };
}

/** The entries of another ledger that take the same things. */
function takenStill(entries: readonly LedgerEntry[], ledger: readonly LedgerEntry[]): LedgerEntry[] {
  const places = new Set(entries.map(({ start, end }) => `${start} ${end}`));
  return ledger.filter(({ start, end, action }) => places.has(`${start} ${end}`) && (action === 'removed' || action === 'unwrapped'));
}
