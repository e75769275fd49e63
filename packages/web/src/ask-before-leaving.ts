import { inject, Injector } from '@angular/core';
import type { CanDeactivateFn } from '@angular/router';
import type { Unsaved } from './ui/leaving';

/** For the route of a view with work that may not be saved. The dialog comes when it is needed. */
export const askBeforeLeaving: CanDeactivateFn<Unsaved> = (view) => mayLeave(view);

/** Asks about work that may not be saved. In an injection context. */
export async function mayLeave(work: Unsaved): Promise<boolean> {
  const injector = inject(Injector);
  if (work.unsaved() === null) return true;
  const { Leaving } = await import('./ui/leaving');
  return injector.get(Leaving).mayLeave(work);
}
