import { inject } from '@angular/core';
import { patchState, signalStore, withMethods, withState } from '@ngrx/signals';
import { firstValueFrom } from 'rxjs';
import type { AnswerOf } from '../../state/contract';
import { ContractClient } from '../../state/contract-client';

export type Publishing = AnswerOf<'get', '/documents/{id}/publishing'>;
export type PublishingStep = Publishing['steps'][number]['step'];
export type Preview = AnswerOf<'post', '/documents/{id}/previews'>;

interface PublishingState {
  publishing: Publishing | null;
  /** An address that was made to look at a version. */
  preview: (Preview & { revision: number }) | null;
  isBusy: boolean;
  failure: string;
}
const initial: PublishingState = { publishing: null, preview: null, isBusy: false, failure: '' };

/** Which version of a document readers see, and what whoever acts can do about it. */
export const PublishingStore = signalStore(
  withState(initial),
  withMethods((store, client = inject(ContractClient)) => {
    let asked = 0;
    return {
      async load(id: string): Promise<void> {
        const number = ++asked;
        if (store.publishing() !== null) patchState(store, { preview: null });
        try {
          const { body } = await firstValueFrom(client.get('/documents/{id}/publishing', {}, { id }));
          if (number === asked) patchState(store, { publishing: body, failure: '' });
        } catch (error) {
          if (number === asked) patchState(store, { failure: `Nobody knows which version readers see. ${(error as Error).message}` });
        }
      },
      /** @returns whether it is done */
      async move(id: string, step: PublishingStep, revision: number, note: string): Promise<boolean> {
        if (store.isBusy()) return false;
        patchState(store, { isBusy: true, failure: '' });
        try {
          const { body } = await firstValueFrom(client.post('/documents/{id}/publishing', { step, revision, note }, null, { id }));
          patchState(store, { isBusy: false, publishing: body });
          return true;
        } catch (error) {
          patchState(store, { isBusy: false, failure: (error as Error).message });
          return false;
        }
      },
      async show(id: string, revision: number): Promise<void> {
        patchState(store, { isBusy: true, failure: '' });
        try {
          const { body } = await firstValueFrom(client.post('/documents/{id}/previews', { revision }, null, { id }));
          patchState(store, { isBusy: false, preview: { ...body, revision } });
        } catch (error) {
          patchState(store, { isBusy: false, failure: (error as Error).message });
        }
      },
    };
  }),
);
