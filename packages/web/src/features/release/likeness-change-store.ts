import { inject } from '@angular/core';
import { patchState, signalStore, withHooks, withMethods, withState } from '@ngrx/signals';
import { DESK, settingsFor, type LikenessInput, type Profile } from '@typikon/core';
import { isSameJson, type JsonObject } from '@typikon/core/light';
import { firstValueFrom } from 'rxjs';
import { ContractClient } from '../../state/contract-client';
import { LikenessRunner } from '../../state/likeness-runner';
import type { CountedLikeness } from '../../state/likeness-tasks';
import type { Pages } from '../../state/pages';

/** A profile on a kind of page, with what it is edited in and shown on. */
export interface LikenessPair {
  profile: string;
  pageKind: string;
  /** How many texts there are. */
  texts: number;
  before: { surface: Profile['surface']; pages: Pages };
  after: { surface: Profile['surface']; pages: Pages };
}

/** What becomes of the likeness of a pair. */
export interface LikenessChange {
  key: string;
  profile: string;
  pageKind: string;
  name: string;
  /** The share of elements that look the same, from 0 to 1. */
  before: number;
  after: number;
  /** How many texts were compared, and whether that is all there are. */
  texts: number;
  isAll: boolean;
}

interface LikenessChangeState {
  /** Null while it is worked out. */
  changes: readonly LikenessChange[] | null;
  failure: string;
}

/** So many texts of a pair are compared: each by two, before and after. */
const MOST_COMPARED = 200;

/** How alike what authors see and the page are before and after a release. */
export const LikenessChangeStore = signalStore(
  withState<LikenessChangeState>({ changes: null, failure: '' }),
  withMethods((store, client = inject(ContractClient), runner = inject(LikenessRunner)) => {
    /** Counts what was asked for; only the last is worth going on with. */
    let asked = 0;

    async function compare(pairs: readonly LikenessPair[], names: ReadonlyMap<string, string>, number: number): Promise<void> {
      const changes: LikenessChange[] = [];
      for (const { profile, pageKind, texts, before, after } of pairs) {
        const [then, now] = [inputOf(before, pageKind), inputOf(after, pageKind)];
        if (then === null || now === null || isSameJson(asJson(then), asJson(now))) continue;
        const inputs = { before: then, after: now };
        const sums = { before: nothing(), after: nothing() };
        let next: string | null = '';
        let read = 0;
        while (next !== null && read < MOST_COMPARED) {
          const query = { profile, pageKind, limit: 100, ...(next === '' ? {} : { after: next }) };
          const answer: { body: { html: string }[]; next: string | null } = await firstValueFrom(client.get('/texts/published', query, {}));
          const html = answer.body.map((text) => text.html);
          for (const side of ['before', 'after'] as const) {
            const of = JSON.stringify([number, profile, pageKind, side]);
            const counted = await runner.ask<CountedLikeness>({ kind: 'count', of, input: inputs[side], texts: html });
            sums[side].elements += counted.elements;
            sums[side].alike += counted.alike;
          }
          if (number !== asked) return;
          read += html.length;
          next = html.length === 0 ? null : answer.next;
        }
        if (read === 0) continue;
        const share = ({ elements, alike }: CountedLikeness): number => (elements === 0 ? 1 : alike / elements);
        changes.push({
          key: `${profile} ${pageKind}`,
          profile,
          pageKind,
          name: `${names.get(profile) ?? profile} on ${after.pages.pageKinds.find(({ id }) => id === pageKind)?.name ?? pageKind}`,
          before: share(sums.before),
          after: share(sums.after),
          texts: read,
          isAll: read >= texts,
        });
      }
      if (number === asked) patchState(store, { changes });
    }

    return {
      /** @param names of the profiles, by id */
      begin(pairs: readonly LikenessPair[], names: ReadonlyMap<string, string>): void {
        const number = ++asked;
        patchState(store, { changes: null, failure: '' });
        compare(pairs, names, number).catch((error: unknown) => {
          if (number === asked) patchState(store, { failure: (error as Error).message });
        });
      },
      giveUp(): void {
        asked++;
      },
    };
  }),
  withHooks({ onDestroy: ({ giveUp }) => giveUp() }),
);

const asJson = (value: LikenessInput): JsonObject => value as unknown as JsonObject;
const nothing = (): CountedLikeness => ({ elements: 0, alike: 0, compared: 0 });

/** What a profile's texts are compared in on a kind of page; null where that is not there. */
function inputOf({ surface, pages }: LikenessPair['before'], id: string): LikenessInput | null {
  const page = pages.pageKinds.find((kind) => kind.id === id);
  if (page === undefined) return null;
  const surfaceKind = pages.pageKinds.find((kind) => kind.id === surface.pageKind) ?? page;
  return settingsFor(surface, surfaceKind, page, (name) => pages.stylesheets.find((sheet) => sheet.id === name), DESK);
}
