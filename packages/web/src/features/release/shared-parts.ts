import { computed, inject, type Signal } from '@angular/core';
import type { JsonObject } from '@typikon/core/settings';
import { Store } from '@ngrx/store';
import { Api } from '../../state/api';
import { selectIsHouseAhead } from '../../state/house';
import { LibraryActions, libraryFeature } from '../../state/library';
import { asDocument, selectArePagesAhead, selectPagesDraft } from '../../state/pages';
import type { Part, SharedEdition } from '../../state/types';

/** What is said and known of something that the whole site has once. */
export interface SharedPart {
  /** As a heading, and within a sentence. */
  title: string;
  name: string;
  /** What its last edition does. */
  holds: string;
  path: { text: string; link: string }[];
  /** What is worked on; null before it is known. */
  draft: Signal<JsonObject | null>;
  /** The state of the draft. */
  revision: Signal<number>;
  last: Signal<SharedEdition | null>;
  isAhead: Signal<boolean>;
  /** Reads the draft anew. */
  read: () => void;
}

/** Everything that the whole site has once. To be called where things are injected. */
export function sharedParts(): Readonly<Record<Part, SharedPart>> {
  const [store, api] = [inject(Store), inject(Api)];
  const pages = store.selectSignal(selectPagesDraft);
  const nothing = { error: () => undefined };
  return {
    'house-limits': {
      title: 'House limits',
      name: 'the house limits',
      holds: 'the last holds for every profile',
      path: [
        { text: 'Profiles', link: '/profiles' },
        { text: 'House limits', link: '/house-limits' },
      ],
      draft: store.selectSignal(libraryFeature.selectHouseDocument),
      revision: store.selectSignal(libraryFeature.selectHouseRevision),
      last: store.selectSignal(libraryFeature.selectHouseEdition),
      isAhead: store.selectSignal(selectIsHouseAhead),
      read: () => api.houseLimits().subscribe({ next: (current) => store.dispatch(LibraryActions.houseChanged(current)), ...nothing }),
    },
    pages: {
      title: 'Page kinds and stylesheets',
      name: 'page kinds and stylesheets',
      holds: 'readers see the last',
      path: [{ text: 'Styles', link: '/styles' }],
      draft: computed(() => asDocument(pages())),
      revision: store.selectSignal(libraryFeature.selectPagesRevision),
      last: store.selectSignal(libraryFeature.selectPagesEdition),
      isAhead: store.selectSignal(selectArePagesAhead),
      read: () =>
        api.styleFiles().subscribe({ next: (styleFiles) => store.dispatch(LibraryActions.styleFilesChanged({ styleFiles })), ...nothing }),
    },
  };
}
