import { inject } from '@angular/core';
import { patchState, signalStore, withMethods, withState } from '@ngrx/signals';
import type { JsonObject } from '@typikon/core/settings';
import { firstValueFrom } from 'rxjs';
import type { AnswerOf, QueryOf } from '../../state/contract';
import { ContractClient } from '../../state/contract-client';

export type Fit = AnswerOf<'get', '/fit'>;
export type FitStep = Fit['steps'][number];
/** Which texts are meant. */
export type Whose = QueryOf<'get', '/fit'>;

interface FitState {
  fit: Fit | null;
  /** Whose texts it was counted over. */
  whose: Whose | null;
  isBusy: boolean;
  failure: string;
}
const initial: FitState = { fit: null, whose: null, isBusy: false, failure: '' };

/** The least rules that keep stored texts whole. */
export const FitStore = signalStore(
  withState(initial),
  withMethods((store, client = inject(ContractClient)) => {
    let asked = 0;
    return {
      async look(whose: Whose): Promise<void> {
        const number = ++asked;
        patchState(store, { isBusy: true, failure: '' });
        try {
          const { body } = await firstValueFrom(client.get('/fit', whose, {}));
          if (number === asked) patchState(store, { fit: body, whose, isBusy: false });
        } catch (error) {
          if (number === asked) patchState(store, { fit: null, isBusy: false, failure: (error as Error).message });
        }
      },
      /** The profile document of a step. */
      async profileAt(step: number, name: string): Promise<JsonObject> {
        const query = { ...store.whose(), step: String(step), name };
        return (await firstValueFrom(client.get('/fit/profile', query, {}))).body.document as JsonObject;
      },
    };
  }),
);
