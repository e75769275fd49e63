import { computed, inject } from '@angular/core';
import { patchState, signalStore, withComputed, withMethods, withState } from '@ngrx/signals';
import { firstValueFrom } from 'rxjs';
import type { AnswerOf } from '../../state/contract';
import { ContractClient } from '../../state/contract-client';

type Found = AnswerOf<'get', '/documents'>['documents'][number];
type Opened = AnswerOf<'get', '/documents/{id}'>;

/** So many documents are offered. */
const MOST_OFFERED = 20;

interface ProbeState {
  offered: readonly Found[];
  opened: Opened | null;
  failure: string;
}

const initial: ProbeState = { offered: [], opened: null, failure: '' };

/** The stored document of which it is asked why it is written as it is: found by its words, and opened. */
export const ProbeDocument = signalStore(
  withState(initial),
  withComputed(({ opened }) => ({
    /** The profiles with which its texts were last saved, by the keys of their fields. */
    savedWith: computed(() => new Map(opened()?.fields.flatMap(({ key, profile }) => (profile === null ? [] : [[key, profile] as const])))),
  })),
  withMethods((store, client = inject(ContractClient)) => {
    let asked = 0;
    return {
      async find(words: string): Promise<void> {
        const number = ++asked;
        try {
          const { body } = await firstValueFrom(client.get('/documents', { words, limit: MOST_OFFERED }, {}));
          if (number === asked) patchState(store, { offered: body.documents });
        } catch (error) {
          if (number === asked) patchState(store, { failure: (error as Error).message });
        }
      },
      /** @param id empty for none */
      async open(id: string): Promise<void> {
        const number = ++asked;
        if (id === '') return patchState(store, initial);
        try {
          const { body } = await firstValueFrom(client.get('/documents/{id}', {}, { id }));
          if (number === asked) patchState(store, { opened: body, failure: '' });
        } catch (error) {
          if (number === asked) patchState(store, { opened: null, failure: (error as Error).message });
        }
      },
    };
  }),
);
