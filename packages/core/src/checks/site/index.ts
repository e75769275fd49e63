import { prepare, type SiteCheck, type SiteFinding, type SiteSurroundings } from './check';
import { fieldOfNobody } from './field-of-nobody';
import { fieldWithoutHelp } from './field-without-help';
import { helpLinkNowhere } from './help-link-nowhere';
import { helpTooLong } from './help-too-long';
import { profileGone } from './profile-gone';
import { repeatedTitle } from './repeated-title';
import { rolesThatEat } from './roles-that-eat';
import { statementNeverReached } from './statement-never-reached';

/** Every test of a site, in the order in which its findings are listed. */
export const SITE_CHECKS: readonly SiteCheck[] = [
  fieldOfNobody,
  statementNeverReached,
  profileGone,
  rolesThatEat,
  repeatedTitle,
  fieldWithoutHelp,
  helpTooLong,
  helpLinkNowhere,
];

/** Tests a site: what is there to write, by whom, with what, and whether anybody explains it. */
export function checkSite(surroundings: SiteSurroundings): SiteFinding[] {
  const prepared = prepare(surroundings);
  return SITE_CHECKS.flatMap((check) => [...check.run(prepared)]);
}

export type { SiteCheck, SiteFinding, SiteSurroundings };
