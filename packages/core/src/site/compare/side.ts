import type { CompiledRules } from '../../markup/compiled';
import type { Profile } from '../../profile/schema';

/** A profile as it is compared. */
export interface ComparedSide {
  profile: Profile;
  /** Its rules, compiled under the same house limits as those of the other. */
  rules: CompiledRules;
  /** What it is called in sentences. */
  name: string;
}
