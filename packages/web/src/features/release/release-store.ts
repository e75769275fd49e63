import { computed, inject } from '@angular/core';
import { patchState, signalStore, withComputed, withHooks, withMethods, withState } from '@ngrx/signals';
import type { ComparisonLine, Finding } from '@typikon/core';
import { ReachSum, resolveProfile, type ResolvedProfile } from '@typikon/core/settings';
import { Store } from '@ngrx/store';
import { firstValueFrom, type Subscription } from 'rxjs';
import type { AnswerOf } from '../../state/contract';
import { ContractClient } from '../../state/contract-client';
import type { Chain } from '../../state/editions';
import { selectHouse } from '../../state/house';
import { libraryFeature } from '../../state/library';
import { ProofRunner, underProfile } from '../../state/proof-runner';
import { lookAtTexts, type ReachSoFar, type TouchedText } from '../../state/reach';
import { SiteWorker } from '../../state/site-worker';
import { sheetsOf } from '../../state/style-files';
import type { MatrixRow, Specimen } from '../../state/types';

export type ToldEdition = AnswerOf<'get', '/profiles/{id}/editions'>[number];
export type BothResults = AnswerOf<'post', '/profiles/{id}/reach/{document}/{field}'>;

/** What of a specimen's expectations is met, by the edition and by the draft. */
export interface Proved {
  specimen: Specimen;
  before: MatrixRow;
  after: MatrixRow;
}

/** What the checks find in the draft and found in the edition. */
export interface ComparedFindings {
  fresh: Finding[];
  settled: Finding[];
  old: number;
}

interface ReleaseState {
  editions: readonly ToldEdition[] | null;
  editionsFailure: string;
  /** Null while they are computed. */
  lines: readonly ComparisonLine[] | null;
  findings: ComparedFindings | null;
  /** Null while they run. */
  proved: readonly Proved[] | null;
  proofFailure: string;
  /** Null before anything is known. */
  reachSoFar: ReachSoFar | null;
  reachFailure: string;
  /** How long it took to look at all of them, in milliseconds. */
  lookedMs: number;
  /** The text that is shown by both. */
  shown: { text: TouchedText; results: BothResults } | null;
  shownFailure: string;
}

const initial: ReleaseState = {
  editions: null,
  editionsFailure: '',
  lines: null,
  findings: null,
  proved: null,
  proofFailure: '',
  reachSoFar: null,
  reachFailure: '',
  lookedMs: 0,
  shown: null,
  shownFailure: '',
};

/** What releasing a draft would do: to the rules, to the specimens, to what the checks find, and to every stored text. */
export const ReleaseStore = signalStore(
  withState(initial),
  withComputed(({ reachSoFar }) => ({
    /** How many texts there are. */
    texts: computed(() => reachSoFar()?.texts ?? 0),
    /** How many of them hold what changed, and are looked at. */
    candidates: computed(() => reachSoFar()?.candidates ?? 0),
    undecided: computed(() => reachSoFar()?.undecided ?? []),
    looked: computed(() => reachSoFar()?.looked ?? 0),
    isLooked: computed(() => reachSoFar()?.isDone ?? false),
    touched: computed(() => reachSoFar()?.touched ?? []),
    reach: computed(() => {
      const sum = new ReachSum();
      for (const { reach } of reachSoFar()?.touched ?? []) sum.add(reach);
      return sum.sum();
    }),
  })),
  withMethods((store) => {
    const client = inject(ContractClient);
    const worker = inject(SiteWorker);
    const runner = inject(ProofRunner);
    const ngrx = inject(Store);
    const house = ngrx.selectSignal(selectHouse);
    const specimens = ngrx.selectSignal(libraryFeature.selectSpecimens);
    const library = ngrx.selectSignal(libraryFeature.selectLibrary);
    const census = ngrx.selectSignal(libraryFeature.selectCensus);
    /** Counts what was asked for; only the last is worth going on with. */
    let asked = 0;
    let shows = 0;
    let running: Subscription[] = [];

    async function compare(before: Chain, after: Chain, edition: number, number: number): Promise<void> {
      const lines = await worker.compare({
        from: 'a0',
        to: 'b0',
        profiles: [...apart(before, 'a', `edition ${edition}`), ...apart(after, 'b', 'the draft')],
        house: house(),
      });
      if (number === asked) patchState(store, { lines });
    }

    async function check(before: Chain, after: Chain, number: number): Promise<void> {
      const id = after[0]!.id;
      const [then, now] = await Promise.all(
        [before, after].map((chain) =>
          worker.checkProfile(id, Object.fromEntries(chain.map((link) => [link.id, link.document])), around(id, chain)),
        ),
      );
      if (number !== asked) return;
      const key = ({ check: name, pointer, sentence }: Finding): string => JSON.stringify([name, pointer, sentence]);
      const [known, found] = [new Set(then?.map(key)), new Set(now?.map(key))];
      const fresh = now?.filter((finding) => !known.has(key(finding))) ?? [];
      patchState(store, {
        findings: { fresh, settled: then?.filter((finding) => !found.has(key(finding))) ?? [], old: found.size - fresh.length },
      });
    }

    /** What stands around a profile, for its checks. */
    function around(id: string, chain: Chain) {
      const { pageKinds = [], stylesheets = [], texts = [] } = library() ?? {};
      const surface = resolved(chain)?.profile.surface.pageKind;
      const used = new Set([...texts.filter(({ profileId }) => profileId === id).map(({ pageKindId }) => pageKindId), surface]);
      const publishedOn = pageKinds.filter((kind) => used.has(kind.id)).map((kind) => ({ kind, sheets: sheetsOf(kind, stylesheets) }));
      return { house: house(), publishedOn, census: census() };
    }

    function prove(before: Chain, after: Chain, number: number): void {
      const own = specimens().filter(({ profileId, expectations }) => profileId === after[0]!.id && expectations.length > 0);
      if (own.length === 0) {
        patchState(store, { proved: [] });
        return;
      }
      const rows: Record<'before' | 'after', Map<string, MatrixRow>> = { before: new Map(), after: new Map() };
      for (const [side, chain] of [
        ['before', before],
        ['after', after],
      ] as const) {
        const profile = resolved(chain);
        if (profile === null) continue;
        running.push(
          runner.matrix({ ...underProfile(profile, house(), ''), specimens: own, isQuick: true }).subscribe({
            next: (row) => void rows[side].set(row.specimenId, row),
            error: ({ message }: Error) => {
              if (number === asked) patchState(store, { proofFailure: message });
            },
            complete: () => {
              if (number !== asked || rows.before.size + rows.after.size < own.length * 2) return;
              patchState(store, {
                proved: own.map((specimen) => ({ specimen, before: rows.before.get(specimen.id)!, after: rows.after.get(specimen.id)! })),
              });
            },
          }),
        );
      }
    }

    function look(id: string, number: number): void {
      const begin = performance.now();
      patchState(store, { reachSoFar: null, reachFailure: '', shown: null, shownFailure: '' });
      running.push(
        lookAtTexts(client, id).subscribe({
          next: (reachSoFar) => {
            if (number === asked) patchState(store, { reachSoFar, lookedMs: performance.now() - begin });
          },
          error: ({ message }: Error) => {
            if (number === asked) patchState(store, { reachFailure: message });
          },
        }),
      );
    }

    async function readEditions(id: string): Promise<void> {
      try {
        patchState(store, {
          editions: (await firstValueFrom(client.get('/profiles/{id}/editions', {}, { id }))).body,
          editionsFailure: '',
        });
      } catch (error) {
        patchState(store, { editionsFailure: (error as Error).message });
      }
    }

    function giveUp(): void {
      asked++;
      shows++;
      for (const one of running) one.unsubscribe();
      running = [];
    }

    return {
      readEditions,
      giveUp,
      /**
       * Works out what a release would do.
       *
       * @param edition the number of the last edition
       */
      begin(id: string, edition: number, before: Chain, after: Chain): void {
        giveUp();
        const number = asked;
        patchState(store, { ...initial, editions: store.editions() });
        void readEditions(id);
        void compare(before, after, edition, number);
        void check(before, after, number);
        prove(before, after, number);
        look(id, number);
      },
      /** Looks at the stored texts again, where that failed. */
      lookAgain(id: string): void {
        look(id, asked);
      },
      /** Shows a text by both. */
      async show(id: string, text: TouchedText): Promise<void> {
        const number = ++shows;
        try {
          const { document, field } = text;
          const { body } = await firstValueFrom(client.post('/profiles/{id}/reach/{document}/{field}', {}, null, { id, document, field }));
          if (number === shows) patchState(store, { shown: { text, results: body }, shownFailure: '' });
        } catch (error) {
          if (number === shows) patchState(store, { shown: null, shownFailure: (error as Error).message });
        }
      },
    };
  }),
  withHooks({ onDestroy: ({ giveUp }) => giveUp() }),
);

/** A profile with all that it inherits, as a chain says it; null where it has mistakes. */
export function resolved(chain: Chain): ResolvedProfile | null {
  const resolution = resolveProfile(chain[0]?.id ?? '', (id) => chain.find((link) => link.id === id)?.document);
  return resolution.ok ? resolution.resolved : null;
}

/** A chain whose documents have ids of their own, so that it can stand beside another of the same profiles. */
function apart(chain: Chain, letter: string, name: string): { id: string; document: Chain[number]['document'] }[] {
  return chain.map(({ document }, at) => ({
    id: `${letter}${at}`,
    document: {
      ...document,
      ...(at === 0 ? { name } : {}),
      ...(typeof document['extends'] === 'string' && at + 1 < chain.length ? { extends: `${letter}${at + 1}` } : {}),
    },
  }));
}
