import { inject } from '@angular/core';
import { patchState, signalStore, withMethods, withState } from '@ngrx/signals';
import { firstValueFrom } from 'rxjs';
import type { AnswerOf } from '../../state/contract';
import { ContractClient } from '../../state/contract-client';

type Page = AnswerOf<'get', '/documents'>['documents'][number];
type Opened = AnswerOf<'get', '/documents/{id}'>;

interface Question {
  words: string;
  type: string;
}

interface PagesState {
  status: 'loading' | 'ready' | 'failed';
  message: string;
  pages: readonly Page[];
  /** How many fit in all. */
  count: number;
  /** The last page that is listed, where there are more behind it. */
  next: string | null;
  opened: Opened | null;
  /** Why none is open. */
  failure: string;
}

const initial: PagesState = { status: 'loading', message: '', pages: [], count: 0, next: null, opened: null, failure: '' };

/** The pages of the site by their titles, as far as they are listed; and the one that is open. */
export const PagesStore = signalStore(
  withState(initial),
  withMethods((store, client = inject(ContractClient)) => {
    let question: Question = { words: '', type: '' };
    /** Counts the questions; what answers an earlier one comes too late. */
    let asked = 0;
    let wanted = '';

    async function list(after: string | null): Promise<void> {
      const number = ++asked;
      try {
        const query = { ...question, sort: 'title', ...(after === null ? {} : { after }) } as const;
        const { body, next } = await firstValueFrom(client.get('/documents', query, {}));
        if (number !== asked) return;
        const pages = after === null ? body.documents : [...store.pages(), ...body.documents];
        patchState(store, { status: 'ready', message: '', pages, count: body.count, next });
      } catch (error) {
        if (number === asked) patchState(store, { status: 'failed', message: (error as Error).message });
      }
    }

    return {
      find(words: string, type: string): Promise<void> {
        question = { words, type };
        return list(null);
      },
      more(): Promise<void> {
        return list(store.next());
      },
      async open(id: string): Promise<void> {
        wanted = id;
        try {
          const { body } = await firstValueFrom(client.get('/documents/{id}', {}, { id }));
          if (wanted === id) patchState(store, { opened: body, failure: '' });
        } catch (error) {
          if (wanted === id) patchState(store, { opened: null, failure: (error as Error).message });
        }
      },
    };
  }),
);
