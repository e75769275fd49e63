import { inject } from '@angular/core';
import { patchState, signalStore, withHooks, withMethods, withState } from '@ngrx/signals';
import { firstValueFrom, type Subscription } from 'rxjs';
import type { AnswerOf } from '../../state/contract';
import { ContractClient } from '../../state/contract-client';

export type Taken = AnswerOf<'get', '/taken'>[number];
export type LeftOut = AnswerOf<'get', '/documents/{id}/left-out'>[number];

/** What is looked for. */
export interface Wanted {
  words: string;
  document: string;
  /** How much it hurts at least: what readers miss, what authors may notice, or all. */
  severity: '' | 'loss' | 'change' | 'tidy';
}

interface WhereState {
  wanted: Wanted | null;
  isAsking: boolean;
  found: readonly Taken[];
  next: string | null;
  failure: string;
  /** The document that is looked at; null for all, or before it is read. */
  document: { id: string; title: string; type: string } | null;
  /** What its page leaves out now; null before that is known, or where no document is looked at. */
  left: readonly LeftOut[] | null;
}

const initial: WhereState = { wanted: null, isAsking: false, found: [], next: null, failure: '', document: null, left: null };
const PAGE = 50;

/** What was ever taken of texts: of one document or of all, found by words, the latest first. */
export const WhereStore = signalStore(
  withState(initial),
  withMethods((store, client = inject(ContractClient)) => {
    let asked: Subscription | null = null;
    const queryOf = ({ words, document, severity }: Wanted) => ({
      words,
      document,
      severity: severity === '' ? undefined : severity,
      limit: PAGE,
    });

    async function about(document: string): Promise<void> {
      if (document === (store.document()?.id ?? '') && store.left() !== null) return;
      patchState(store, { document: null, left: null });
      if (document === '') return;
      try {
        const [{ body }, { body: left }] = await Promise.all([
          firstValueFrom(client.get('/documents/{id}', {}, { id: document })),
          firstValueFrom(client.get('/documents/{id}/left-out', {}, { id: document })),
        ]);
        const { id, title, type } = body;
        if (store.wanted()?.document === document) patchState(store, { document: { id, title, type }, left });
      } catch (error) {
        patchState(store, { failure: (error as Error).message });
      }
    }

    return {
      look(wanted: Wanted): void {
        asked?.unsubscribe();
        patchState(store, { wanted, isAsking: true, failure: '' });
        asked = client.get('/taken', queryOf(wanted), {}).subscribe({
          next: ({ body, next }) => patchState(store, { found: body, next, isAsking: false }),
          error: ({ message }: Error) => patchState(store, { found: [], next: null, isAsking: false, failure: message }),
        });
        void about(wanted.document);
      },
      /** Finds what was taken before that. */
      more(): void {
        const [wanted, after] = [store.wanted(), store.next()];
        if (wanted === null || after === null || store.isAsking()) return;
        patchState(store, { isAsking: true, failure: '' });
        asked = client.get('/taken', { ...queryOf(wanted), after }, {}).subscribe({
          next: ({ body, next }) => patchState(store, { found: [...store.found(), ...body], next, isAsking: false }),
          error: ({ message }: Error) => patchState(store, { isAsking: false, failure: message }),
        });
      },
      stop: () => asked?.unsubscribe(),
    };
  }),
  withHooks({ onDestroy: ({ stop }) => stop() }),
);
