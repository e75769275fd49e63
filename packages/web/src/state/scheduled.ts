import { inject } from '@angular/core';
import { patchState, signalStore, withMethods, withState } from '@ngrx/signals';
import { firstValueFrom } from 'rxjs';
import { ContractClient } from './contract-client';
import { plannedOf, type ScheduledRelease, type Target } from './releases';

interface ScheduledState {
  /** The last one that was planned; null for none. */
  last: ScheduledRelease | null;
  failure: string;
  isBusy: boolean;
}
const initial: ScheduledState = { last: null, failure: '', isBusy: false };

/** The release of one thing that waits for its time, or did last. */
export const ScheduledStore = signalStore(
  withState(initial),
  withMethods((store, client = inject(ContractClient)) => ({
    async load(target: Target): Promise<void> {
      try {
        const [last = null] = await firstValueFrom(plannedOf(client, target));
        patchState(store, { last, failure: '' });
      } catch (error) {
        patchState(store, { failure: `What is planned cannot be read. ${(error as Error).message}` });
      }
    },
    async callOff({ id }: ScheduledRelease): Promise<void> {
      if (store.isBusy()) return;
      patchState(store, { isBusy: true, failure: '' });
      try {
        const { body } = await firstValueFrom(client.post('/scheduled/{number}/off', {}, null, { number: String(id) }));
        patchState(store, { last: body, isBusy: false });
      } catch (error) {
        patchState(store, { failure: `It is not called off. ${(error as Error).message}`, isBusy: false });
      }
    },
  })),
);
