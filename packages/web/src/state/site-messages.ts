import type { HouseLimits, JsonObject, Site, SiteFinding } from '@typikon/core';

/** What the worker is asked: to test a site with all profiles as they are stored. */
export interface SiteRequest {
  number: number;
  site: Site;
  profiles: { id: string; document: JsonObject }[];
  house: HouseLimits | null;
}
export interface SiteAnswer {
  number: number;
  findings: SiteFinding[];
}
