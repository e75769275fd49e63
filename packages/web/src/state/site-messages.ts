import type { ComparisonLine, Finding, HouseLimits, JsonObject, Move, PageKind, Site, SiteFinding, StoredTexts } from '@typikon/core';
import type { ProfileSurroundings } from './styled-pages';

/** All profiles as they are stored, and the limits above them. */
export interface ProfilesRequest {
  profiles: { id: string; document: JsonObject }[];
  house: HouseLimits | null;
}

/** What the worker is asked: to test a site, to test a profile (around it is what was sent last where nothing is sent), to compare two profiles, or what a move of a text to another profile would take. */
export type SiteRequest = { number: number } & (
  | ({ kind: 'check'; site: Site; pages: string[]; pageKinds: PageKind[]; texts: StoredTexts[] } & ProfilesRequest)
  | { kind: 'check-profile'; profileId: string; documents: Record<string, JsonObject>; surroundings: ProfileSurroundings | null }
  | ({ kind: 'compare'; from: string; to: string } & ProfilesRequest)
  | ({ kind: 'move'; html: string; from: string; to: string; role: string } & ProfilesRequest)
);

export type SiteAnswer = { number: number } & (
  { findings: SiteFinding[] } | { profileFindings: Finding[] } | { lines: ComparisonLine[] } | { move: Move | null }
);
