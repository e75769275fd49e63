import { compileRules, styledPages, type CompiledRules, type StyledPage } from '@typikon/core';
import { createSelector } from '@ngrx/store';
import { workshopFeature } from './workshop';

/** The rules of the draft, compiled in the page, for what works with them at every press; what only shows them has their summary. */
export const selectRules = createSelector(
  workshopFeature.selectResolved,
  workshopFeature.selectOptions,
  (resolved, options): CompiledRules | null => (resolved === null ? null : compileRules(resolved, options)),
);

/** The pages on which content of the profile stands, with what stands around it there. */
export const selectPages = createSelector(workshopFeature.selectPublishedOn, (publishedOn): StyledPage[] => styledPages(publishedOn));
