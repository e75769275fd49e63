import { effect, inject, Injectable, signal } from '@angular/core';
import { pagesOfHelp, type SiteFinding, type StoredTexts } from '@typikon/core';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { ContractClient } from './contract-client';
import { KnownPages } from './known-pages';
import { selectHouse } from './house';
import { libraryFeature } from './library';
import { SiteStore } from './site';
import { SiteWorker } from './site-worker';
import type { TextCount } from './types';

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
    const house = store.selectSignal(selectHouse);
    const texts = store.selectSignal(libraryFeature.selectTexts);
    const pageKinds = store.selectSignal(libraryFeature.selectPageKinds);
    const client = inject(ContractClient);
    const there = new KnownPages(async (ids) => {
      const { body } = await firstValueFrom(client.get('/documents', { ids: ids.join(','), limit: ids.length }, {}));
      return body.documents.map(({ id }) => id);
    });
    effect((onCleanup) => {
      const draft = site.draft();
      const by = { profiles: profiles().map(({ id, document }) => ({ id, document })), house: house() };
      const about = { pageKinds: pageKinds(), texts: counted(texts()) };
      if (draft === null) return;
      let isWanted = true;
      const timer = setTimeout(() => {
        void there
          .among(pagesOfHelp(draft))
          .then((pages) => worker.check(draft, { ...about, ...by, pages }))
          .then((findings) => {
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
function counted(texts: readonly TextCount[]): StoredTexts[] {
  const counts = new Map<string, StoredTexts & { taken: Record<string, number> }>();
  for (const { type, field, profileId: profile, count, taken } of texts) {
    const key = `${type} ${field} ${profile}`;
    const known = counts.get(key) ?? { type, field, profile, count: 0, taken: {} };
    counts.set(key, known);
    known.count += count;
    for (const [name, times] of Object.entries(taken)) known.taken[name] = (known.taken[name] ?? 0) + times;
  }
  return [...counts.values()];
}
