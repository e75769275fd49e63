import { inject, Injector } from '@angular/core';
import type { CanDeactivateFn } from '@angular/router';
import type { Unsaved } from './ui/leaving';

/** For the route of a view with work that may not be saved. The dialog comes when it is needed. */
export const askBeforeLeaving: CanDeactivateFn<Unsaved> = async (view) => {
  const injector = inject(Injector);
  if (view.unsaved() === null) return true;
  const { Leaving } = await import('./ui/leaving');
  return injector.get(Leaving).mayLeave(view);
};
