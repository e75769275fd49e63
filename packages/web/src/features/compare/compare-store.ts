import { computed, inject } from '@angular/core';
import { patchState, signalStore, withComputed, withHooks, withMethods, withState } from '@ngrx/signals';
import type { ComparisonLine, JsonObject } from '@typikon/core';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import type { AnswerOf } from '../../state/contract';
import { ContractClient } from '../../state/contract-client';
import { selectHouse } from '../../state/house';
import { libraryFeature } from '../../state/library';
import { SiteWorker } from '../../state/site-worker';

/** A profile as it holds, or as it was once saved. */
export interface Compared {
  id: string;
  /** Null for the state that holds. */
  revision: number | null;
}

export type Revision = AnswerOf<'get', '/profiles/{id}/revisions'>[number];

interface CompareState {
  pair: { from: Compared; to: Compared } | null;
  /** Earlier states of the profiles that were asked for, the latest first. */
  revisions: Readonly<Record<string, readonly Revision[] | undefined>>;
  /** Null while they are computed. */
  lines: readonly ComparisonLine[] | null;
  /** Why there are no lines; empty where there are. */
  failure: string;
  /** In how many documents each line's thing was found so far, by line. */
  found: ReadonlyMap<string, number>;
  counted: number;
  documents: number;
  /** Why it was not counted on. */
  countFailure: string;
}

const initial: CompareState = {
  pair: null,
  revisions: {},
  lines: null,
  failure: '',
  found: new Map(),
  counted: 0,
  documents: 0,
  countFailure: '',
};

/** Names a line: what it is about, and which side keeps it. */
export const lineKey = ({ subject, kept }: { subject: object; kept: string }): string => JSON.stringify([subject, kept]);

/** Two profiles, or two states of one, compared; and what of it stands in stored documents, counted page by page. */
export const CompareStore = signalStore(
  withState(initial),
  withComputed(({ counted, documents, countFailure }) => ({
    isCounting: computed(() => countFailure() === '' && (documents() === 0 || counted() < documents())),
  })),
  withMethods(
    (
      store,
      client = inject(ContractClient),
      worker = inject(SiteWorker),
      profiles = inject(Store).selectSignal(libraryFeature.selectProfiles),
      house = inject(Store).selectSignal(selectHouse),
    ) => {
      /** Counts the comparisons that were asked for; only the last is worth going on with. */
      let asked = 0;

      async function documentOf({ id, revision }: Compared): Promise<JsonObject | null> {
        if (revision === null) return profiles().find((profile) => profile.id === id)?.document ?? null;
        const { body } = await firstValueFrom(client.get('/profiles/{id}/revisions/{revision}', {}, { id, revision: String(revision) }));
        const document = body.document as JsonObject;
        const { name } = document;
        return { ...document, name: `${typeof name === 'string' ? name : id} as of revision ${revision}` };
      }

      async function loadRevisions(id: string): Promise<void> {
        if (store.revisions()[id] !== undefined) return;
        patchState(store, { revisions: { ...store.revisions(), [id]: [] } });
        try {
          const { body } = await firstValueFrom(client.get('/profiles/{id}/revisions', {}, { id }));
          patchState(store, { revisions: { ...store.revisions(), [id]: body } });
        } catch {
          // Without them the states that hold can still be compared.
          patchState(store, { revisions: { ...store.revisions(), [id]: undefined } });
        }
      }

      /** Counts documents page by page, as long as nothing else is asked for. */
      async function count({ from, to }: { from: Compared; to: Compared }, number: number): Promise<void> {
        const of = (revision: number | null): number | undefined => revision ?? undefined;
        const query = { from: from.id, to: to.id, fromRevision: of(from.revision), toRevision: of(to.revision) };
        for (let after: string | null | undefined; after !== null;) {
          const { body, next } = await firstValueFrom(client.get('/comparison', { ...query, after }, {}));
          if (number !== asked) return;
          const found = new Map(store.found());
          for (const line of body.lines) found.set(lineKey(line), (found.get(lineKey(line)) ?? 0) + (line.documents ?? 0));
          // Documents that were made meanwhile are counted as well.
          const counted = store.counted() + body.counted;
          patchState(store, { found, counted, documents: next === null ? counted : Math.max(body.documents, counted + 1) });
          after = next;
        }
      }

      return {
        async compare(from: Compared, to: Compared): Promise<void> {
          const number = ++asked;
          patchState(store, { ...initial, pair: { from, to }, revisions: store.revisions() });
          void loadRevisions(from.id);
          void loadRevisions(to.id);
          try {
            const [one, other] = await Promise.all([documentOf(from), documentOf(to)]);
            if (number !== asked) return;
            if (one === null || other === null) throw new Error(`There is no profile “${one === null ? from.id : to.id}”.`);
            // Each side is asked for by a name of its own, so that two states of one profile are two.
            const [fromId, toId] = [nameOf(from), nameOf(to)];
            const stored = profiles().map(({ id, document }) => ({ id, document }));
            const states = [
              { id: fromId, document: one },
              { id: toId, document: other },
            ].filter(({ id }) => !stored.some((profile) => profile.id === id));
            const lines = await worker.compare({ from: fromId, to: toId, profiles: [...stored, ...states], house: house() });
            if (number !== asked) return;
            patchState(store, { lines });
          } catch (error) {
            if (number === asked) patchState(store, { failure: (error as Error).message });
            return;
          }
          try {
            await count({ from, to }, number);
          } catch (error) {
            if (number === asked) patchState(store, { countFailure: (error as Error).message });
          }
        },
        /** What is still under way is given up. */
        giveUp(): void {
          asked++;
        },
      };
    },
  ),
  withHooks({ onDestroy: ({ giveUp }) => giveUp() }),
);

const nameOf = ({ id, revision }: Compared): string => (revision === null ? id : `${id}~${revision}`);
