import { inject } from '@angular/core';
import { patchState, signalStore, withMethods, withState } from '@ngrx/signals';
import { firstValueFrom } from 'rxjs';
import type { AnswerOf } from './contract';
import { ContractClient } from './contract-client';

export type Question = AnswerOf<'get', '/questions'>[number];
export type Answer = Exclude<Question['answer'], ''>;

interface QuestionsState {
  questions: readonly Question[];
  failure: string;
  isBusy: boolean;
}
const initial: QuestionsState = { questions: [], failure: '', isBusy: false };
const MOST = 50;

/** What is asked of authors about their texts: of one person, one document or one profile. */
export const QuestionsStore = signalStore(
  withState(initial),
  withMethods((store, client = inject(ContractClient)) => {
    let asked = 0;
    return {
      async load(of: { person?: string; document?: string; profile?: string }, isOpen?: boolean): Promise<void> {
        const number = ++asked;
        const open = isOpen === undefined ? undefined : isOpen ? ('true' as const) : ('false' as const);
        try {
          const { body } = await firstValueFrom(client.get('/questions', { ...of, open, limit: MOST }, {}));
          if (number === asked) patchState(store, { questions: body, failure: '' });
        } catch (error) {
          if (number === asked) patchState(store, { failure: `What authors are asked cannot be read. ${(error as Error).message}` });
        }
      },
      /** @returns whether it is answered */
      async answer({ id }: Question, answer: Answer, reply: string): Promise<boolean> {
        if (store.isBusy()) return false;
        patchState(store, { isBusy: true, failure: '' });
        try {
          const { body } = await firstValueFrom(client.post('/questions/{number}/answer', { answer, reply }, null, { number: String(id) }));
          patchState(store, { isBusy: false, questions: store.questions().map((one) => (one.id === id ? body : one)) });
          return true;
        } catch (error) {
          patchState(store, { isBusy: false, failure: `Not answered. ${(error as Error).message}` });
          return false;
        }
      },
    };
  }),
);

/** What somebody answered, in words. */
export const ANSWERS: Readonly<Record<Question['answer'], string>> = {
  '': 'no answer yet',
  changed: 'wrote it anew',
  fine: 'it may come out so',
  stays: 'it must stay as it is',
};
