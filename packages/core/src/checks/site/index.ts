import { prepare, type SiteCheck, type SiteFinding, type SiteSurroundings, type StoredTexts } from './check';
import { blocksAmongWords } from './blocks-among-words';
import { fieldOfNobody } from './field-of-nobody';
import { fieldOnNoPage } from './field-on-no-page';
import { fieldWithoutHelp } from './field-without-help';
import { helpLinkNowhere } from './help-link-nowhere';
import { helpOfWhatIsNotThere } from './help-of-what-is-not-there';
import { helpPictureWithoutAlternative } from './help-picture-without-alternative';
import { helpSilentAboutLimit } from './help-silent-about-limit';
import { helpTooLong } from './help-too-long';
import { profileBeyondHouse } from './profile-beyond-house';
import { profileGone } from './profile-gone';
import { repeatedTitle } from './repeated-title';
import { rolesThatEat } from './roles-that-eat';
import { slotWithoutField } from './slot-without-field';
import { statementNeverReached } from './statement-never-reached';
import { textOfAnotherProfile } from './text-of-another-profile';

/** Every test of a site, in the order in which its findings are listed. */
export const SITE_CHECKS: readonly SiteCheck[] = [
  fieldOfNobody,
  statementNeverReached,
  profileGone,
  profileBeyondHouse,
  rolesThatEat,
  fieldOnNoPage,
  blocksAmongWords,
  slotWithoutField,
  textOfAnotherProfile,
  repeatedTitle,
  fieldWithoutHelp,
  helpTooLong,
  helpLinkNowhere,
  helpOfWhatIsNotThere,
  helpSilentAboutLimit,
  helpPictureWithoutAlternative,
];

/** Tests a site: what is there to write, by whom, with what, and whether anybody explains it. */
export function checkSite(surroundings: SiteSurroundings): SiteFinding[] {
  const prepared = prepare(surroundings);
  return SITE_CHECKS.flatMap((check) => [...check.run(prepared)]);
}

export type { SiteCheck, SiteFinding, SiteSurroundings, StoredTexts };
