import { aboveHouse } from './above-house';
import { anyStyle } from './any-style';
import { attributeWithoutElement } from './attribute-without-element';
import { buttonWithoutMarkup } from './button-without-markup';
import type { Check, CheckContext, Finding } from './check';
import { classWithoutStyle } from './class-without-style';
import { classWithoutStylesheet } from './class-without-stylesheet';
import { emptyPurpose } from './empty-purpose';
import { escapingSandbox } from './escaping-sandbox';
import { frameWithoutHost } from './frame-without-host';
import { groupWithoutButtons } from './group-without-buttons';
import { idWithoutPrefix } from './id-without-prefix';
import { impossibleMarkup } from './impossible-markup';
import { levelOneHeading } from './level-one-heading';
import { lostDemand } from './lost-demand';
import { lostRenaming } from './lost-renaming';
import { menuWithoutEntries } from './menu-without-entries';
import { pictureWithoutAlternative } from './picture-without-alternative';
import { repeatedSetting } from './repeated-setting';
import { schemeRunsCode } from './scheme-runs-code';
import { shortcutWithoutMarkup } from './shortcut-without-markup';
import { styleContrast } from './style-contrast';
import { styleRefused } from './style-refused';
import { styleWithoutMarkup } from './style-without-markup';
import { styleWithoutRule } from './style-without-rule';
import { stylesLookAlike } from './styles-look-alike';
import { targetWithoutRel } from './target-without-rel';
import { tightLimit } from './tight-limit';
import { underlineAllowed } from './underline-allowed';
import { weakContrast } from './weak-contrast';
import { widePattern } from './wide-pattern';

/** Every check, in the order in which findings of one severity are listed. */
export const CHECKS: readonly Check[] = [
  buttonWithoutMarkup,
  shortcutWithoutMarkup,
  menuWithoutEntries,
  styleRefused,
  styleWithoutMarkup,
  styleWithoutRule,
  schemeRunsCode,
  frameWithoutHost,
  escapingSandbox,
  anyStyle,
  widePattern,
  lostRenaming,
  lostDemand,
  aboveHouse,
  attributeWithoutElement,
  impossibleMarkup,
  idWithoutPrefix,
  targetWithoutRel,
  levelOneHeading,
  pictureWithoutAlternative,
  classWithoutStylesheet,
  classWithoutStyle,
  stylesLookAlike,
  styleContrast,
  weakContrast,
  tightLimit,
  underlineAllowed,
  repeatedSetting,
  groupWithoutButtons,
  emptyPurpose,
];

const RANK: Readonly<Record<Finding['severity'], number>> = { error: 0, warning: 1, note: 2 };

/** Runs every check on a profile; the gravest findings come first. */
export function checkProfile(context: CheckContext): Finding[] {
  return CHECKS.flatMap((check) => check.run(context)).sort((a, b) => RANK[a.severity] - RANK[b.severity]);
}
