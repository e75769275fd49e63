import { buttonWithoutMarkup } from './button-without-markup';
import type { Check, CheckContext, Finding } from './check';

/** Every check, in the order in which findings are listed. */
export const CHECKS: readonly Check[] = [buttonWithoutMarkup];

/** Runs every check on a profile. */
export function checkProfile(context: CheckContext): Finding[] {
  return CHECKS.flatMap((check) => check.run(context));
}
