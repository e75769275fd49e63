import { computed, inject, type Signal } from '@angular/core';
import type { Site } from '@typikon/core';
import type { JsonObject } from '@typikon/core/settings';
import { Store } from '@ngrx/store';
import { Api } from '../../state/api';
import { selectIsHouseAhead } from '../../state/house';
import { LibraryActions, libraryFeature } from '../../state/library';
import { asDocument, selectArePagesAhead, selectPagesDraft } from '../../state/pages';
import { SiteStore } from '../../state/site';
import type { Part, SharedEdition } from '../../state/types';

/** What is said and known of something that the whole site has once. */
export interface SharedPart {
  /** As a heading, and within a sentence. */
  title: string;
  name: string;
  /** What a release of it does from then on, as a sentence. */
  effect: string;
  /** What its last edition does. */
  holds: string;
  path: { text: string; link: string }[];
  releaseLink: string;
  /** What is worked on; null before it is known. */
  draft: Signal<JsonObject | null>;
  /** The state of the draft. */
  revision: Signal<number>;
  last: Signal<SharedEdition | null>;
  isAhead: Signal<boolean>;
  /** Reads the draft anew. */
  read: () => void;
}

/** What of the site has editions: roles and people hold at once. */
const writingOf = (site: Site | null): JsonObject | null =>
  site === null ? null : { types: site.types, assignments: site.assignments, fallback: site.fallback };

/** Everything that the whole site has once. To be called where things are injected. */
export function sharedParts(): Readonly<Record<Part, SharedPart>> {
  const [store, api] = [inject(Store), inject(Api)];
  const pages = store.selectSignal(selectPagesDraft);
  const site = inject(SiteStore);
  const nothing = { error: () => undefined };
  return {
    'house-limits': {
      title: 'House limits',
      name: 'the house limits',
      effect:
        'They hold for every profile from then on. What is stored stays as it is until somebody saves it again; the site shows it by them.',
      holds: 'the last holds for every profile',
      path: [
        { text: 'Profiles', link: '/profiles' },
        { text: 'House limits', link: '/house-limits' },
      ],
      releaseLink: '/house-limits/release',
      draft: store.selectSignal(libraryFeature.selectHouseDocument),
      revision: store.selectSignal(libraryFeature.selectHouseRevision),
      last: store.selectSignal(libraryFeature.selectHouseEdition),
      isAhead: store.selectSignal(selectIsHouseAhead),
      read: () => api.houseLimits().subscribe({ next: (current) => store.dispatch(LibraryActions.houseChanged(current)), ...nothing }),
    },
    pages: {
      title: 'Page kinds and stylesheets',
      name: 'page kinds and stylesheets',
      effect: 'Readers see pages by them from then on.',
      holds: 'readers see the last',
      path: [{ text: 'Styles', link: '/styles' }],
      releaseLink: '/styles/release',
      draft: computed(() => asDocument(pages())),
      revision: store.selectSignal(libraryFeature.selectPagesRevision),
      last: store.selectSignal(libraryFeature.selectPagesEdition),
      isAhead: store.selectSignal(selectArePagesAhead),
      read: () =>
        api.styleFiles().subscribe({ next: (styleFiles) => store.dispatch(LibraryActions.styleFilesChanged({ styleFiles })), ...nothing }),
    },
    site: {
      title: 'What is written, and with what',
      name: 'content types and who writes with what',
      effect: 'Authors find what there is to write, and with what, by it from then on.',
      holds: 'authors write by the last',
      path: [{ text: 'Who writes with what', link: '/writing' }],
      releaseLink: '/writing/release',
      draft: computed(() => writingOf(site.saved())),
      revision: site.revision,
      last: store.selectSignal(libraryFeature.selectSiteEdition),
      isAhead: site.isAhead,
      read: () => void site.load(true),
    },
  };
}
