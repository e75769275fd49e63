import type { HouseLimits, PublishedOn } from '@typikon/core';
import type { StoredCensus } from './types';

/** What stands around a profile; it changes seldom, and the worker keeps it from one question to the next. */
export interface ProfileSurroundings {
  house: HouseLimits | null;
  /** The kinds of page on which content of the profile is published. */
  publishedOn: readonly PublishedOn[];
  /** What the stored documents hold; null while that is not known. */
  census: StoredCensus | null;
}
