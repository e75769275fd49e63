import { profilesAndContent } from './0001-profiles-and-content';
import { houseHistoryAndCensus } from './0002-house-history-and-census';
import { payloadsAndAssets } from './0003-payloads-and-assets';
import { libraryAndWriting } from './0004-library-and-writing';
import { styleFiles } from './0005-style-files';
import { jobsSizesAndKeys } from './0006-jobs-sizes-and-keys';
import { site } from './0007-site';
import { documentsOfFields } from './0008-documents-of-fields';
import { takenAndProfiles } from './0009-taken-and-profiles';
import { editions } from './0010-editions';
import { features } from './0011-features';
import { versions } from './0012-versions';
import { conversions } from './0013-conversions';
import { depthOfTexts } from './0014-depth-of-texts';
import { publishing } from './0015-publishing';
import { scheduledReleases } from './0016-scheduled-releases';
import { retention } from './0017-retention';
import { sharedEditions } from './0018-shared-editions';
import { plannedParts } from './0019-planned-parts';
import type { Migration } from './migration';

/** Every migration, oldest first. */
export const MIGRATIONS: readonly Migration[] = [
  profilesAndContent,
  houseHistoryAndCensus,
  payloadsAndAssets,
  libraryAndWriting,
  styleFiles,
  jobsSizesAndKeys,
  site,
  documentsOfFields,
  takenAndProfiles,
  editions,
  features,
  versions,
  conversions,
  depthOfTexts,
  publishing,
  scheduledReleases,
  retention,
  sharedEditions,
  plannedParts,
];
