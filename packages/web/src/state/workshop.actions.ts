import type { Finding, JsonObject, Problem, ResolvedProfile, RulesSummary } from '@typikon/core';
import { createActionGroup, emptyProps, props } from '@ngrx/store';
import type { Backup } from './draft-backup';
import type { StoredProfile } from './types';

export type Chapter = 'toolbar' | 'markup' | 'paste' | 'styles' | 'surface' | 'help' | 'findings';

/** What happens while a profile is worked on. */
export const WorkshopActions = createActionGroup({
  source: 'Workshop',
  events: {
    Opened: props<{ profile: StoredProfile; backup: Backup | null }>(),
    Left: emptyProps(),
    /** `label` says what was done, for the undo button. */
    'Draft Edited': props<{ document: JsonObject; label: string }>(),
    'Undo Pressed': emptyProps(),
    'Redo Pressed': emptyProps(),
    'Save Pressed': emptyProps(),
    Saved: props<{ profile: StoredProfile }>(),
    'Save Failed': props<{ message: string; problems: readonly Problem[] }>(),
    'Conflict Found': props<{ current: StoredProfile }>(),
    /** Keep what is in this window and save it over theirs. */
    'Own Version Kept': emptyProps(),
    /** Take what the other person saved; what was here stays one undo away. */
    'Their Version Taken': emptyProps(),
    'Backup Restored': emptyProps(),
    'Backup Discarded': emptyProps(),
    'Chapter Chosen': props<{ chapter: Chapter }>(),
    /** A rule was chosen, in the sheet or from the ledger. */
    'Element Chosen': props<{ element: string | null }>(),
    /** For whose content the rules are tried; empty for anybody whom the house limits bind. */
    'Role Chosen': props<{ role: string }>(),
    /** The checks ran over a draft. */
    'Draft Tested': props<{ draft: JsonObject; findings: readonly Finding[] }>(),
    /** A setting was looked for, by the name that its line has. */
    'Setting Sought': props<{ setting: string }>(),
    /** What the rules come to that a resolved draft has. */
    'Rules Summed Up': props<{ summary: RulesSummary; resolved: ResolvedProfile }>(),
    'Changes Abandoned': emptyProps(),
  },
});
