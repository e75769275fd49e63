import { effect, inject, Injectable, signal } from '@angular/core';
import type { SiteFinding } from '@typikon/core';
import { Store } from '@ngrx/store';
import { libraryFeature } from './library';
import { SiteStore } from './site';
import { SiteWorker } from './site-worker';

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
    effect((onCleanup) => {
      const draft = site.draft();
      const by = { profiles: profiles().map(({ id, document }) => ({ id, document })), house: house() };
      const pages = ['/', ...documents().map(({ id }) => `/documents/${id}`)];
      if (draft === null) return;
      let isWanted = true;
      const timer = setTimeout(() => {
        void worker.check(draft, pages, by).then((findings) => {
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
