import type { Sheet } from '../css/stylesheet';
import type { StyledPage } from '../likeness/styled';
import { classesIn } from '../markup/style-classes';
import type { HouseLimits } from '../profile/schema';
import type { PageKind } from '../render/page';
import { textFrame } from '../render/template';
import type { DocumentNeeds, Surroundings } from './check';

/** A kind of page on which content of a profile stands, with its stylesheets in their order. */
export interface PublishedOn {
  kind: PageKind;
  sheets: Sheet[];
}

/** What is stored: how much, and with which classes the content of one profile. */
export interface StoredContent {
  documents: number;
  most: DocumentNeeds;
  /** How many elements of the profile's own content have each class. */
  classes: Readonly<Record<string, number>>;
}

/** Pages with what stands around the text on them. */
export function styledPages(publishedOn: readonly PublishedOn[]): StyledPage[] {
  return publishedOn.map(({ kind, sheets }) => ({ name: kind.name, wrapper: textFrame(kind).wrapper, sheets }));
}

/**
 * What stands around a profile, as the checks read it.
 *
 * @param house the house limits; null for none
 * @param publishedOn the kinds of page on which content of the profile is published
 * @param stored what is stored; null where that is not known
 */
export function surroundingsOf(house: HouseLimits | null, publishedOn: readonly PublishedOn[], stored: StoredContent | null): Surroundings {
  const pages = styledPages(publishedOn);
  return {
    ...(house === null ? {} : { house }),
    ...(pages.length === 0
      ? {}
      : { pages, stylesheetClasses: new Set(pages.flatMap(({ sheets }) => sheets.flatMap(({ css }) => [...classesIn(css)]))) }),
    ...(stored === null || stored.documents === 0 ? {} : { documents: stored.most, storedClasses: stored.classes }),
  };
}

/** The kinds of page on which content of a profile stands: those of its stored texts, and the one that its surface looks like. */
export function kindsShowing<Kind extends PageKind>(
  all: readonly Kind[],
  used: ReadonlySet<string>,
  surface: string | null | undefined,
): Kind[] {
  return all.filter(({ id }) => used.has(id) || id === surface);
}
