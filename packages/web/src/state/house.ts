import { readHouseLimits, type HouseLimits } from '@typikon/core/settings';
import { createSelector } from '@ngrx/store';
import { libraryFeature } from './library';

/** The house limits with every default filled in; null where there are none. */
export const selectHouse = createSelector(libraryFeature.selectHouseDocument, (house): HouseLimits | null => {
  const read = house === null ? null : readHouseLimits(house);
  return read?.ok === true ? read.house : null;
});
