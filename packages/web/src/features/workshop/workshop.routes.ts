import { inject } from '@angular/core';
import type { CanDeactivateFn, Routes } from '@angular/router';
import { provideEffects } from '@ngrx/effects';
import { provideState } from '@ngrx/store';
import { benchFeature, chooseFirstSpecimen, computeProof } from '../../state/bench';
import { keepBackup, saveDraft, workshopFeature } from '../../state/workshop';
import { LeaveGuard } from './leave-guard';
import { Workshop } from './workshop';

const askBeforeLeaving: CanDeactivateFn<Workshop> = () => inject(LeaveGuard).mayLeave();

/** The workshop brings the state of drafts and of the bench along: no other view has it. */
export const workshopRoutes: Routes = [
  {
    path: '',
    component: Workshop,
    canDeactivate: [askBeforeLeaving],
    title: 'Workshop · Typikon',
    providers: [
      provideState(workshopFeature),
      provideState(benchFeature),
      provideEffects({ saveDraft, keepBackup, computeProof, chooseFirstSpecimen }),
    ],
  },
];
