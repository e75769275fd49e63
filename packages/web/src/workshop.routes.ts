import { inject, provideEnvironmentInitializer } from '@angular/core';
import type { CanDeactivateFn, Routes } from '@angular/router';
import { provideEffects } from '@ngrx/effects';
import { provideState } from '@ngrx/store';
import { mayLeave } from './ask-before-leaving';
import { benchFeature, chooseFirstSpecimen, computeProof, readPayload } from './state/bench';
import { findInDraft } from './state/find-in-draft';
import { countStored } from './state/library';
import { ProofRunner } from './state/proof-runner';
import { sumUpRules } from './state/rules-summary';
import { SiteWorker } from './state/site-worker';
import { keepBackup, saveDraft, workshopFeature } from './state/workshop';
import { Bench } from './features/bench/bench';
import { UnsavedDraft } from './features/workshop/unsaved-draft';
import { WORKSHOP_PARTS, type WorkshopParts } from './features/workshop/parts';
import { Workshop } from './features/workshop/workshop';

const askBeforeLeaving: CanDeactivateFn<Workshop> = () => mayLeave(inject(UnsavedDraft));

const parts: WorkshopParts = {
  bench: Bench,
  chapters: {
    toolbar: () => import('./features/toolbar/toolbar-chapter').then((m) => m.ToolbarChapter),
    markup: () => import('./features/workshop/markup-chapter').then((m) => m.MarkupChapter),
    paste: () => import('./features/paste/paste-chapter').then((m) => m.PasteChapter),
    styles: () => import('./features/styles/styles-chapter').then((m) => m.StylesChapter),
    surface: () => import('./features/surface/surface-chapter').then((m) => m.SurfaceChapter),
    help: () => import('./features/help/help-chapter').then((m) => m.HelpChapter),
    findings: () => import('./features/workshop/findings-chapter').then((m) => m.FindingsChapter),
  },
};

/** What the workshop shows first is fetched and started while the library is still on its way. */
function getReady(): void {
  inject(ProofRunner).begin();
  inject(SiteWorker).begin();
  // A chapter that does not come is told of, and asked for again, where it would stand.
  parts.chapters.markup().catch(() => undefined);
}

/** The workshop brings the state of drafts and of the bench along: no other view has it. */
export const workshopRoutes: Routes = [
  {
    path: '',
    component: Workshop,
    canDeactivate: [askBeforeLeaving],
    title: 'Workshop · Typikon',
    providers: [
      { provide: WORKSHOP_PARTS, useValue: parts },
      provideEnvironmentInitializer(getReady),
      provideState(workshopFeature),
      provideState(benchFeature),
      provideEffects({ countStored, findInDraft, saveDraft, keepBackup, sumUpRules, readPayload, computeProof, chooseFirstSpecimen }),
    ],
  },
];
