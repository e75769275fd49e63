import { computed, inject } from '@angular/core';
import { patchState, signalStore, withComputed, withHooks, withMethods, withState } from '@ngrx/signals';
import type { PageKind, TextLook } from '@typikon/core';
import { DESK, LookSum, settingsFor, surfaceSchema } from '@typikon/core';
import { firstValueFrom } from 'rxjs';
import { isSameJson, type JsonObject } from '@typikon/core/light';
import { ContractClient } from '../../state/contract-client';
import { LikenessRunner } from '../../state/likeness-runner';
import type { ToldLook } from '../../state/likeness-tasks';
import type { Pages } from '../../state/pages';
import type { PublishedText } from '../../state/types';

/** A stored text that looks different. */
export interface LookingText {
  id: string;
  document: string;
  title: string;
  pageKind: string;
  differing: number;
  look: TextLook;
  /** Its markup; null for one of very many, which is not kept. */
  html: string | null;
}

interface LooksState {
  /** Page kinds of which texts may look different, by name. */
  kinds: readonly string[];
  /** How many texts show on them, and of how many it was looked at. */
  texts: number;
  looked: number;
  isLooked: boolean;
  differing: readonly LookingText[];
  /** Texts that could not be looked at, and why. */
  failures: readonly { title: string; failure: string }[];
  failure: string;
}

const initial: LooksState = { kinds: [], texts: 0, looked: 0, isLooked: false, differing: [], failures: [], failure: '' };

/** So many letters of markup are kept, so that texts can be shown by both. */
const MOST_KEPT = 20_000_000;
/** So many texts are asked for at once. */
const AT_ONCE = 100;

/** How every stored text would look on pages that change: what looks different, by declaration. */
export const LooksStore = signalStore(
  withState(initial),
  withComputed(({ differing }) => ({
    sum: computed(() => {
      const sum = new LookSum();
      for (const { look } of differing()) sum.add(look);
      return { groups: sum.sum(), texts: sum.differing, elements: sum.elements };
    }),
  })),
  withMethods((store, client = inject(ContractClient), runner = inject(LikenessRunner)) => {
    /** Counts what was asked for; only the last is worth going on with. */
    let asked = 0;
    let last: { before: Pages; after: Pages; counts: ReadonlyMap<string, number> } | null = null;

    async function look(before: Pages, after: Pages, counts: ReadonlyMap<string, number>, number: number): Promise<void> {
      const kinds = changedKinds(before, after);
      patchState(store, {
        ...initial,
        kinds: kinds.map(({ name }) => name),
        texts: kinds.reduce((sum, { id }) => sum + (counts.get(id) ?? 0), 0),
      });
      let kept = 0;
      for (const kind of kinds) {
        const of = JSON.stringify([number, kind.id]);
        const settings = { before: pageOf(before, kind.id), after: pageOf(after, kind.id) };
        if (settings.before === null || settings.after === null) continue;
        for (let next: string | null = ''; next !== null;) {
          const query: { pageKind: string; limit: number; after?: string } = { pageKind: kind.id, limit: AT_ONCE };
          if (next !== '') query.after = next;
          const answer: { body: PublishedText[]; next: string | null } = await firstValueFrom(client.get('/texts/published', query, {}));
          const texts = answer.body;
          const looks = await runner.ask<ToldLook[]>({
            kind: 'looks',
            of,
            before: settings.before,
            after: settings.after,
            texts: texts.map(({ html }) => html),
          });
          if (number !== asked) return;
          const [differing, failures] = [[...store.differing()], [...store.failures()]];
          for (const [at, told] of looks.entries()) {
            const { id, title, html } = texts[at]!;
            if ('failure' in told) failures.push({ title, failure: told.failure });
            else if (told.differing > 0) {
              const isKept = (kept += html.length) <= MOST_KEPT;
              const [document = ''] = id.split('/');
              differing.push({
                id,
                document,
                title,
                pageKind: kind.id,
                differing: told.differing,
                look: told,
                html: isKept ? html : null,
              });
            }
          }
          patchState(store, { differing, failures, looked: store.looked() + texts.length });
          next = answer.next;
        }
      }
      if (number === asked) patchState(store, { isLooked: true });
    }

    function begin(before: Pages, after: Pages, counts: ReadonlyMap<string, number>): void {
      const number = ++asked;
      last = { before, after, counts };
      look(before, after, counts, number).catch((error: unknown) => {
        if (number === asked) patchState(store, { failure: (error as Error).message });
      });
    }

    return {
      /**
       * Looks at every text that shows on a page that changes.
       *
       * @param counts how many texts show on each kind of page
       */
      begin,
      again(): void {
        if (last !== null) begin(last.before, last.after, last.counts);
      },
      giveUp(): void {
        asked++;
      },
    };
  }),
  withHooks({ onDestroy: ({ giveUp }) => giveUp() }),
);

/** What a text stands in on a kind of page; null where there is none. */
function pageOf({ pageKinds, stylesheets }: Pages, id: string) {
  const kind = pageKinds.find((one) => one.id === id);
  if (kind === undefined) return null;
  const surface = surfaceSchema.parse({ pageKind: id });
  return settingsFor(surface, kind, kind, (name) => stylesheets.find((sheet) => sheet.id === name), DESK).page;
}

/** Kinds of page on which content stands in something else than before. One that is new has no texts that readers saw. */
export function changedKinds(before: Pages, after: Pages): PageKind[] {
  return after.pageKinds.filter(({ id }) => {
    const [then, now] = [pageOf(before, id), pageOf(after, id)];
    return then !== null && now !== null && !isSameJson(then as unknown as JsonObject, now as unknown as JsonObject);
  });
}
