import { isSameJson, readHouseLimits, type HouseLimits, type JsonObject } from '@typikon/core/settings';
import { createSelector } from '@ngrx/store';
import { libraryFeature } from './library';

const limitsIn = (document: JsonObject | null): HouseLimits | null => {
  const read = document === null ? null : readHouseLimits(document);
  return read?.ok === true ? read.house : null;
};

/** The draft of the house limits with every default filled in, by which drafts are tried; null where there are none. */
export const selectHouse = createSelector(libraryFeature.selectHouseDocument, limitsIn);

/** The house limits that hold, with every default filled in; null where none were released. */
export const selectReleasedHouse = createSelector(libraryFeature.selectHouseEdition, (edition) => limitsIn(edition?.document ?? null));

/** Whether the draft of the house limits says something else than what holds. */
export const selectIsHouseAhead = createSelector(
  libraryFeature.selectHouseEdition,
  libraryFeature.selectHouseDocument,
  (edition, draft) => draft !== null && !isSameJson(draft, edition?.document ?? null),
);
