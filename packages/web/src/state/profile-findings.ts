import {
  checkProfile,
  classesIn,
  compileRules,
  resolveProfile,
  textFrame,
  type Finding,
  type JsonObject,
  type StyledPage,
} from '@typikon/core';
import type { ProfileSurroundings, PublishedOn } from './styled-pages';

/** Pages with what stands around the text on them. */
export function styledPages(publishedOn: readonly PublishedOn[]): StyledPage[] {
  return publishedOn.map(({ kind, sheets }) => ({ name: kind.name, wrapper: textFrame(kind).wrapper, sheets }));
}

/** What the checks find in a profile with its parents; nothing where one of them has mistakes, which are told elsewhere. */
export function findingsOf(
  profileId: string,
  documents: Readonly<Record<string, JsonObject>>,
  { house, publishedOn, census }: ProfileSurroundings,
): Finding[] {
  const pages = styledPages(publishedOn);
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
