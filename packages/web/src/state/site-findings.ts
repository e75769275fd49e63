import { effect, inject, Injectable, InjectionToken, signal } from '@angular/core';
import type { SiteFinding } from '@typikon/core';
import { Store } from '@ngrx/store';
import { libraryFeature } from './library';
import { SiteStore } from './site';
import type { SiteAnswer, SiteRequest } from './site-messages';

export const SITE_WORKER = new InjectionToken<() => Worker>('Makes the worker that tests the site');

/** What the checks find in the site as it is worked on. They run in a worker; a newer site makes an older answer worthless. */
@Injectable({ providedIn: 'root' })
export class SiteFindings {
  private readonly found = signal<readonly SiteFinding[]>([]);
  readonly all = this.found.asReadonly();
  readonly isRunning = signal(false);

  constructor() {
    const site = inject(SiteStore);
    const store = inject(Store);
    const profiles = store.selectSignal(libraryFeature.selectProfiles);
    const house = store.selectSignal(libraryFeature.selectHouse);
    const make = inject(SITE_WORKER);
    let worker: Worker | null = null;
    let number = 0;
    effect((onCleanup) => {
      const draft = site.draft();
      const documents = profiles().map(({ id, document }) => ({ id, document }));
      const limits = house();
      if (draft === null) return;
      // What is typed in a row is tested once.
      const timer = setTimeout(() => {
        if (worker === null) {
          worker = make();
          worker.onmessage = ({ data }: MessageEvent<SiteAnswer>) => {
            if (data.number !== number) return;
            this.isRunning.set(false);
            this.found.set(data.findings);
          };
        }
        this.isRunning.set(true);
        worker.postMessage({ number: ++number, site: draft, profiles: documents, house: limits } satisfies SiteRequest);
      }, PAUSE_MS);
      onCleanup(() => clearTimeout(timer));
    });
  }
}

const PAUSE_MS = 250;
