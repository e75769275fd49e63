import {
  checkProfile,
  classesIn,
  compileRules,
  resolveProfile,
  type Finding,
  type HouseLimits,
  type JsonObject,
  type StyledPage,
} from '@typikon/core';
import type { StoredCensus } from './types';

/** What stands around a profile; it changes seldom, and the worker keeps it from one question to the next. */
export interface ProfileSurroundings {
  house: HouseLimits | null;
  /** The kinds of page on which content of the profile is published. */
  pages: readonly StyledPage[];
  /** What the stored documents hold; null while that is not known. */
  census: StoredCensus | null;
}

/** What the checks find in a profile with its parents; nothing where one of them has mistakes, which are told elsewhere. */
export function findingsOf(
  profileId: string,
  documents: Readonly<Record<string, JsonObject>>,
  { house, pages, census }: ProfileSurroundings,
): Finding[] {
  const resolution = resolveProfile(profileId, (id) => documents[id]);
  if (!resolution.ok) return [];
  const limits = house === null ? {} : { house };
  return checkProfile({
    resolved: resolution.resolved,
    rules: compileRules(resolution.resolved, limits),
    ...limits,
    ...(pages.length === 0
      ? {}
      : { pages, stylesheetClasses: new Set(pages.flatMap(({ sheets }) => sheets.flatMap(({ css }) => [...classesIn(css)]))) }),
    ...(census === null || census.documents === 0
      ? {}
      : { documents: census.most, storedClasses: census.classesByProfile[profileId] ?? {} }),
  });
}
