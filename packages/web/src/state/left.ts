import { inject } from '@angular/core';
import { patchState, signalStore, withMethods, withState } from '@ngrx/signals';
import { firstValueFrom } from 'rxjs';
import type { AnswerOf } from './contract';
import { ContractClient } from './contract-client';

export type LeftText = AnswerOf<'get', '/profiles/{id}/left'>[number];

interface LeftState {
  texts: readonly LeftText[];
  failure: string;
  isBusy: boolean;
}
const initial: LeftState = { texts: [], failure: '', isBusy: false };

/** Texts of a profile that releases left as they were. */
export const LeftStore = signalStore(
  withState(initial),
  withMethods((store, client = inject(ContractClient)) => {
    async function load(id: string): Promise<void> {
      try {
        const { body } = await firstValueFrom(client.get('/profiles/{id}/left', {}, { id }));
        patchState(store, { texts: body, failure: '', isBusy: false });
      } catch (error) {
        patchState(store, { failure: `What was left as it is cannot be read. ${(error as Error).message}`, isBusy: false });
      }
    }
    return {
      load,
      /** Lets a text follow the last edition again. @returns whether it does */
      async follow(id: string, { document, field }: LeftText): Promise<boolean> {
        if (store.isBusy()) return false;
        patchState(store, { isBusy: true });
        try {
          await firstValueFrom(client.post('/profiles/{id}/follow', { texts: [{ document, field }] }, null, { id }));
        } catch (error) {
          patchState(store, { failure: `It does not follow. ${(error as Error).message}`, isBusy: false });
          return false;
        }
        await load(id);
        return true;
      },
    };
  }),
);
