import { provideHttpClient, withInterceptors } from '@angular/common/http';
import { type ApplicationConfig, provideBrowserGlobalErrorListeners, provideZonelessChangeDetection } from '@angular/core';
import { provideRouter, withComponentInputBinding } from '@angular/router';
import { provideEffects } from '@ngrx/effects';
import { provideStore } from '@ngrx/store';
import { routes } from './app.routes';
import { LIKENESS_WORKER } from './state/likeness-runner';
import { asActingPerson } from './state/acting';
import { libraryFeature, loadLibrary, readEditions, readShared } from './state/library';
import { PROOF_WORKER } from './state/proof-runner';
import { SITE_WORKER } from './state/site-worker';
import { SPELLING_WORKER } from './state/spelling';

export const appConfig: ApplicationConfig = {
  providers: [
    provideBrowserGlobalErrorListeners(),
    provideZonelessChangeDetection(),
    provideRouter(routes, withComponentInputBinding()),
    provideHttpClient(withInterceptors([asActingPerson])),
    provideStore({ [libraryFeature.name]: libraryFeature.reducer }),
    provideEffects({ loadLibrary, readEditions, readShared }),
    { provide: PROOF_WORKER, useValue: () => new Worker(new URL('./proof.worker', import.meta.url), { type: 'module' }) },
    { provide: LIKENESS_WORKER, useValue: () => new Worker(new URL('./likeness.worker', import.meta.url), { type: 'module' }) },
    { provide: SITE_WORKER, useValue: () => new Worker(new URL('./site.worker', import.meta.url), { type: 'module' }) },
    { provide: SPELLING_WORKER, useValue: () => new Worker(new URL('./spelling.worker', import.meta.url), { type: 'module' }) },
  ],
};
