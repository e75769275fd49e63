import type { ComparisonLine, HouseLimits, JsonObject, Site, SiteFinding } from '@typikon/core';

/** All profiles as they are stored, and the limits above them. */
export interface ProfilesRequest {
  profiles: { id: string; document: JsonObject }[];
  house: HouseLimits | null;
}

/** What the worker is asked: to test a site, or to compare two profiles. */
export type SiteRequest = { number: number } & (
  ({ kind: 'check'; site: Site; pages: string[] } & ProfilesRequest) | ({ kind: 'compare'; from: string; to: string } & ProfilesRequest)
);

export type SiteAnswer = { number: number } & ({ findings: SiteFinding[] } | { lines: ComparisonLine[] });
