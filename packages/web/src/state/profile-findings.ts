import { checkProfile, compileRules, resolveProfile, surroundingsOf, type Finding, type JsonObject } from '@typikon/core';
import type { ProfileSurroundings } from './styled-pages';

/** What the checks find in a profile with its parents; nothing where one of them has mistakes, which are told elsewhere. */
export function findingsOf(
  profileId: string,
  documents: Readonly<Record<string, JsonObject>>,
  { house, publishedOn, census }: ProfileSurroundings,
): Finding[] {
  const resolution = resolveProfile(profileId, (id) => documents[id]);
  if (!resolution.ok) return [];
  const { resolved } = resolution;
  const stored = census === null ? null : { ...census, classes: census.classesByProfile[profileId] ?? {} };
  return checkProfile({
    resolved,
    rules: compileRules(resolved, house === null ? {} : { house }),
    ...surroundingsOf(house, publishedOn, stored),
  });
}
