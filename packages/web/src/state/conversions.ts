import { inject } from '@angular/core';
import { patchState, signalStore, withHooks, withMethods, withState } from '@ngrx/signals';
import type { Conversion } from '@typikon/core';
import { firstValueFrom } from 'rxjs';
import type { AnswerOf } from './contract';
import { ContractClient } from './contract-client';

export type ToldConversion = AnswerOf<'get', '/conversions/{number}'>;
export type Tried = AnswerOf<'post', '/profiles/{id}/conversions/try'>[number];
export interface NamedText {
  document: string;
  field: string;
}

interface ConversionsState {
  /** The last one of the profile; null where there was none. */
  latest: ToldConversion | null;
  failure: string;
  isBusy: boolean;
  /** Counts the conversions that have come to an end since. */
  ended: number;
}

const initial: ConversionsState = { latest: null, failure: '', isBusy: false, ended: 0 };
const PAUSE_MS = 500;

export const goesOn = ({ state }: ToldConversion): boolean => state === 'running' || state === 'undoing';

/** The last conversion of a profile's texts, followed for as long as it goes on. */
export const ConversionsStore = signalStore(
  withState(initial),
  withMethods((store, client = inject(ContractClient)) => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    let profile = '';

    function show(latest: ToldConversion | null): void {
      const before = store.latest();
      const isOver = before !== null && latest !== null && before.id === latest.id && goesOn(before) && !goesOn(latest);
      patchState(store, { latest, failure: '', isBusy: false, ended: store.ended() + (isOver ? 1 : 0) });
      clearTimeout(timer);
      if (latest !== null && goesOn(latest)) timer = setTimeout(() => void follow(latest.id), PAUSE_MS);
    }

    async function follow(id: number): Promise<void> {
      const asked = profile;
      try {
        const { body } = await firstValueFrom(client.get('/conversions/{number}', {}, { number: String(id) }));
        if (asked === profile) show(body);
      } catch (error) {
        if (asked !== profile) return;
        patchState(store, { failure: `Nobody knows how far it is. ${(error as Error).message}` });
        timer = setTimeout(() => void follow(id), 4 * PAUSE_MS);
      }
    }

    return {
      async load(id: string): Promise<void> {
        profile = id;
        clearTimeout(timer);
        patchState(store, { ...initial, ended: store.ended() });
        try {
          const { body } = await firstValueFrom(client.get('/profiles/{id}/conversions', { limit: 1 }, { id }));
          if (profile === id) show(body[0] ?? null);
        } catch (error) {
          patchState(store, { failure: `What was converted cannot be read. ${(error as Error).message}` });
        }
      },
      show,
      async act(act: 'stop' | 'go-on' | 'undo'): Promise<void> {
        const latest = store.latest();
        if (latest === null || store.isBusy()) return;
        patchState(store, { isBusy: true });
        try {
          const { body } = await firstValueFrom(client.post('/conversions/{number}/{act}', {}, null, { number: String(latest.id), act }));
          show(body);
        } catch (error) {
          patchState(store, { isBusy: false, failure: (error as Error).message });
        }
      },
      stopFollowing: () => clearTimeout(timer),
    };
  }),
  withHooks({ onDestroy: ({ stopFollowing }) => stopFollowing() }),
);

/** What is asked for, in the words of the form; empty fields are not given. */
export type ConversionForm = Record<'do' | 'element' | 'class' | 'property' | 'value' | 'to' | 'toClass', string>;

/** The fields that each kind of replacement has. */
export const FIELDS: Readonly<Record<Conversion['do'], readonly (keyof ConversionForm)[]>> = {
  'rename-element': ['element', 'class', 'to'],
  'rename-class': ['element', 'class', 'to'],
  'style-to-class': ['element', 'property', 'value', 'to'],
  wrap: ['element', 'class', 'to', 'toClass'],
  unwrap: ['element', 'class'],
};
