import type { PageKind, Stylesheet } from '@typikon/core';
import { isSameJson, type JsonObject } from '@typikon/core/light';
import { createSelector } from '@ngrx/store';
import { libraryFeature } from './library';
import type { Library, SharedEdition, StoredPageKind, StoredStylesheet } from './types';

/** Page kinds and stylesheets, as an edition of them says it. */
export interface Pages {
  pageKinds: readonly PageKind[];
  stylesheets: readonly Stylesheet[];
}

/** What is needed to show markup as a page does. */
export type Shown = Pages & Pick<Library, 'siteOrigin'>;

export function pagesIn(edition: SharedEdition | null): Pages {
  const { pageKinds = [], stylesheets = [] } = (edition?.document ?? {}) as unknown as Partial<Pages>;
  return { pageKinds, stylesheets };
}

/** Page kinds and stylesheets as they were released last: what readers and authors see. */
export const selectReleasedPages = createSelector(libraryFeature.selectPagesEdition, pagesIn);

/** Page kinds and stylesheets as they are worked on, as an edition would say it. */
export const selectPagesDraft = createSelector(
  libraryFeature.selectPageKinds,
  libraryFeature.selectStylesheets,
  (pageKinds, stylesheets): Pages => ({ pageKinds: pageKinds.map(withoutRevision), stylesheets: stylesheets.map(withoutRevision) }),
);

export const asDocument = (pages: Pages): JsonObject => pages as unknown as JsonObject;

/** Whether page kinds or stylesheets were changed since they were released. */
export const selectArePagesAhead = createSelector(
  selectReleasedPages,
  selectPagesDraft,
  (released, draft) => !isSameJson(asDocument(released), asDocument(draft)),
);

/** What the server has, with page kinds and stylesheets as readers see them. */
export const selectAsReaders = createSelector(libraryFeature.selectLibrary, selectReleasedPages, (library, pages): Library | null =>
  library === null
    ? null
    : {
        ...library,
        pageKinds: pages.pageKinds.map((kind): StoredPageKind => ({ ...kind, revision: 0 })),
        stylesheets: pages.stylesheets.map((sheet): StoredStylesheet => ({ ...sheet, revision: 0 })),
      },
);

function withoutRevision<Row extends { revision: number }>({ revision: _revision, ...row }: Row): Omit<Row, 'revision'> {
  return row;
}
