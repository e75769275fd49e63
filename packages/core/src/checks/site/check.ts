import { Assignments } from '../../site/assign';
import type { ComparedSide } from '../../site/compare/index';
import type { HouseLimits } from '../../profile/schema';
import type { PageKind } from '../../render/page';
import type { ContentType, Field, Site } from '../../site/schema';

/** Texts that stand in a field of a type, by the profile with which they were last saved. */
export interface StoredTexts {
  type: string;
  field: string;
  profile: string;
  count: number;
  /** In how many of them the rules took something when they were written, by what it is called (see `OFFERS`). */
  taken?: Readonly<Record<string, number>>;
}

/** What a test of a site has before it. */
export interface SiteSurroundings {
  site: Site;
  /** Every profile that there is, with its rules. */
  profiles: ReadonlyMap<string, ComparedSide>;
  /** The limits under which those rules were compiled. */
  house?: HouseLimits;
  /** Every kind of page; without them nobody looks where fields show. */
  pageKinds?: ReadonlyMap<string, PageKind>;
  /** How many texts are stored in a field with a profile; without them nobody looks at what is stored. */
  texts?: readonly StoredTexts[];
  /** Those pages of the site to which help links that are there, by path; without them links are not followed. */
  pages?: ReadonlySet<string>;
}

/** One result of a test of a site. */
export interface SiteFinding {
  check: string;
  /** amiss: authors or readers miss something. note: worth a look. */
  severity: 'amiss' | 'note';
  sentence: string;
  /** JSON Pointer into the site document. */
  pointer: string;
  /** What it is about, where it is one of these. */
  type?: string;
  field?: string;
  /** The place of a statement. */
  statement?: number;
}

/** One test of a site. */
export interface SiteCheck {
  id: string;
  /** What it looks for, in a few words. */
  label: string;
  run(surroundings: Prepared): Iterable<SiteFinding>;
}

/** A field of a content type, with where it stands in the document. */
export interface PlacedField {
  type: ContentType;
  field: Field;
  pointer: string;
}

/** What several checks need, made once. */
export interface Prepared extends SiteSurroundings {
  fields: readonly PlacedField[];
  assignments: Assignments;
}

export function prepare(surroundings: SiteSurroundings): Prepared {
  const { site } = surroundings;
  return {
    ...surroundings,
    assignments: new Assignments(site),
    fields: site.types.flatMap((type, at) =>
      type.fields.map((field, place): PlacedField => ({ type, field, pointer: `/types/${at}/fields/${place}` })),
    ),
  };
}
