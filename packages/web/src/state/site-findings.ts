import { effect, inject, Injectable, signal } from '@angular/core';
import type { SiteFinding, StoredTexts } from '@typikon/core';
import { Store } from '@ngrx/store';
import { libraryFeature } from './library';
import { SiteStore } from './site';
import { SiteWorker } from './site-worker';
import type { TextSummary } from './types';

/** What is typed in a row is tested once. */
const PAUSE_MS = 250;

/** What the checks find in the site as it is worked on. They run in a worker; a newer site makes an older answer worthless. */
@Injectable({ providedIn: 'root' })
export class SiteFindings {
  private readonly found = signal<readonly SiteFinding[]>([]);
  readonly all = this.found.asReadonly();

  constructor() {
    const site = inject(SiteStore);
    const store = inject(Store);
    const worker = inject(SiteWorker);
    const profiles = store.selectSignal(libraryFeature.selectProfiles);
    const house = store.selectSignal(libraryFeature.selectHouse);
    const documents = store.selectSignal(libraryFeature.selectPages);
    const texts = store.selectSignal(libraryFeature.selectTexts);
    const pageKinds = store.selectSignal(libraryFeature.selectPageKinds);
    effect((onCleanup) => {
      const draft = site.draft();
      const by = { profiles: profiles().map(({ id, document }) => ({ id, document })), house: house() };
      const about = {
        pages: ['/', ...documents().map(({ id }) => `/documents/${id}`)],
        pageKinds: pageKinds(),
        texts: counted(texts()),
      };
      if (draft === null) return;
      let isWanted = true;
      const timer = setTimeout(() => {
        void worker.check(draft, { ...about, ...by }).then((findings) => {
          if (isWanted) this.found.set(findings);
        });
      }, PAUSE_MS);
      onCleanup(() => {
        isWanted = false;
        clearTimeout(timer);
      });
    });
  }
}

/** How many texts are stored in each field with each profile, and of how many the rules took something. */
function counted(texts: readonly TextSummary[]): StoredTexts[] {
  const counts = new Map<string, StoredTexts & { taken: Record<string, number> }>();
  for (const { type, field, profileId: profile, taken } of texts) {
    const key = `${type} ${field} ${profile}`;
    const known = counts.get(key) ?? { type, field, profile, count: 0, taken: {} };
    counts.set(key, known);
    known.count++;
    for (const name of taken) known.taken[name] = (known.taken[name] ?? 0) + 1;
  }
  return [...counts.values()];
}
