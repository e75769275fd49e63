import { computed, inject } from '@angular/core';
import { patchState, signalStore, withComputed, withHooks, withMethods, withState } from '@ngrx/signals';
import { ReachSum } from '@typikon/core/settings';
import { firstValueFrom, type Subscription } from 'rxjs';
import { ContractClient } from '../../state/contract-client';
import {
  lookAtText,
  lookAtTexts,
  touchedOf,
  type BothResults,
  type ReachQuestion,
  type ReachSoFar,
  type TouchedText,
} from '../../state/reach';

interface ReachState {
  /** What was asked for last; null for nothing. */
  question: ReachQuestion | null;
  /** Null before anything is known. */
  soFar: ReachSoFar | null;
  failure: string;
  /** The text that is shown by both. */
  shown: { text: TouchedText; results: BothResults } | null;
  shownFailure: string;
}

const initial: ReachState = { question: null, soFar: null, failure: '', shown: null, shownFailure: '' };

/** What releasing drafts would do to every stored text. */
export const ReachStore = signalStore(
  withState(initial),
  withComputed(({ soFar }) => ({
    /** How many texts there are. */
    texts: computed(() => soFar()?.texts ?? 0),
    /** How many of them can come out differently, and are looked at. */
    candidates: computed(() => soFar()?.candidates ?? 0),
    /** How many come out differently, at least and at most. */
    bounds: computed(() => {
      const reach = soFar();
      return reach === null ? { least: 0, most: 0 } : touchedOf(reach);
    }),
    undecided: computed(() => soFar()?.undecided ?? []),
    looked: computed(() => soFar()?.looked ?? 0),
    isLooked: computed(() => soFar()?.isDone ?? false),
    touched: computed(() => soFar()?.touched ?? []),
    sum: computed(() => {
      const sum = new ReachSum();
      for (const { reach } of soFar()?.touched ?? []) sum.add(reach);
      return sum.sum();
    }),
  })),
  withMethods((store, client = inject(ContractClient)) => {
    let running: Subscription | null = null;
    let shows = 0;
    const giveUp = (): void => {
      shows++;
      running?.unsubscribe();
      running = null;
    };
    const begin = (question: ReachQuestion): void => {
      giveUp();
      patchState(store, { ...initial, question });
      running = lookAtTexts(client, question).subscribe({
        next: (soFar) => patchState(store, { soFar }),
        error: ({ message }: Error) => patchState(store, { failure: message }),
      });
    };
    return {
      giveUp,
      /** Looks at what releasing drafts would do, in the place of what was asked before. */
      begin,
      /** Looks again. */
      again(): void {
        const question = store.question();
        if (question !== null) begin(question);
      },
      /** Shows a text by both. */
      async show(text: TouchedText): Promise<void> {
        const [question, number] = [store.question(), ++shows];
        if (question === null) return;
        try {
          const results = await firstValueFrom(lookAtText(client, question, text));
          if (number === shows) patchState(store, { shown: { text, results }, shownFailure: '' });
        } catch (error) {
          if (number === shows) patchState(store, { shown: null, shownFailure: (error as Error).message });
        }
      },
    };
  }),
  withHooks({ onDestroy: ({ giveUp }) => giveUp() }),
);
