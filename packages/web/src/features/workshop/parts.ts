import { InjectionToken, type Type } from '@angular/core';
import type { Chapter } from '../../state/workshop.actions';

/** What stands in the workshop, each a feature of its own: a chapter comes when it is first opened. */
export interface WorkshopParts {
  chapters: Readonly<Record<Chapter, () => Promise<Type<unknown>>>>;
  bench: Type<unknown>;
}

export const WORKSHOP_PARTS = new InjectionToken<WorkshopParts>('parts of the workshop');
