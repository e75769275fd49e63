import { inject } from '@angular/core';
import { patchState, signalStore, withHooks, withMethods, withState } from '@ngrx/signals';
import type { ComparisonLine, Finding } from '@typikon/core';
import { resolveProfile, type HouseLimits, type JsonObject, type ResolvedProfile } from '@typikon/core/settings';
import { Store } from '@ngrx/store';
import { firstValueFrom, type Subscription } from 'rxjs';
import { ContractClient } from '../../state/contract-client';
import type { Chain } from '../../state/editions';
import { libraryFeature } from '../../state/library';
import { ProofRunner, underProfile } from '../../state/proof-runner';
import { editionsOf, type Target, type ToldEdition } from '../../state/releases';
import { SiteWorker } from '../../state/site-worker';
import { sheetsOf } from '../../state/style-files';
import type { MatrixRow, Specimen } from '../../state/types';

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

/** A profile as authors write with it, and as it would be. */
export interface Sides {
  before: Chain;
  after: Chain;
  /** The house limits above it. */
  houses: Record<'before' | 'after', HouseLimits | null>;
}

/** What is released, as far as it is proved. */
export interface Releasing {
  target: Target;
  /** Rules as they are and as they would be, told one against the other. */
  rules: { before: Chain; after: Chain; house: HouseLimits | null };
  /** The number of the last edition. */
  edition: number;
  /** Every profile whose rules may change. */
  profiles: readonly Sides[];
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
}

const initial: ReleaseState = {
  editions: null,
  editionsFailure: '',
  lines: null,
  findings: null,
  proved: null,
  proofFailure: '',
};

/** What releasing a draft would do: to the rules, to the specimens, and to what the checks find. */
export const ReleaseStore = signalStore(
  withState(initial),
  withMethods((store) => {
    const client = inject(ContractClient);
    const worker = inject(SiteWorker);
    const runner = inject(ProofRunner);
    const ngrx = inject(Store);
    const specimens = ngrx.selectSignal(libraryFeature.selectSpecimens);
    const library = ngrx.selectSignal(libraryFeature.selectLibrary);
    const census = ngrx.selectSignal(libraryFeature.selectCensus);
    /** Counts what was asked for; only the last is worth going on with. */
    let asked = 0;
    let running: Subscription[] = [];

    async function compare({ rules: { before, after, house }, edition }: Releasing, number: number): Promise<void> {
      const lines = await worker.compare({
        from: 'a0',
        to: 'b0',
        profiles: [...apart(before, 'a', `edition ${edition}`), ...apart(after, 'b', 'the draft')],
        house,
      });
      if (number === asked) patchState(store, { lines });
    }

    async function check({ profiles }: Releasing, number: number): Promise<void> {
      const all: ComparedFindings = { fresh: [], settled: [], old: 0 };
      for (const { before, after, houses } of profiles) {
        const id = after[0]!.id;
        const then = await worker.checkProfile(id, documentsOf(before), around(id, before, houses.before));
        const now = await worker.checkProfile(id, documentsOf(after), around(id, after, houses.after));
        if (number !== asked) return;
        const key = ({ check: name, pointer, sentence }: Finding): string => JSON.stringify([name, pointer, sentence]);
        const [known, found] = [new Set(then?.map(key)), new Set(now?.map(key))];
        const told = (finding: Finding): Finding =>
          profiles.length === 1 ? finding : { ...finding, sentence: `${resolved(after)?.profile.name ?? id}: ${finding.sentence}` };
        const fresh = now?.filter((finding) => !known.has(key(finding))) ?? [];
        all.fresh.push(...fresh.map(told));
        all.settled.push(...(then?.filter((finding) => !found.has(key(finding))) ?? []).map(told));
        all.old += found.size - fresh.length;
      }
      patchState(store, { findings: all });
    }

    /** What stands around a profile, for its checks. */
    function around(id: string, chain: Chain, house: HouseLimits | null) {
      const { pageKinds = [], stylesheets = [], texts = [] } = library() ?? {};
      const surface = resolved(chain)?.profile.surface.pageKind;
      const used = new Set([...texts.filter(({ profileId }) => profileId === id).map(({ pageKindId }) => pageKindId), surface]);
      const publishedOn = pageKinds.filter((kind) => used.has(kind.id)).map((kind) => ({ kind, sheets: sheetsOf(kind, stylesheets) }));
      return { house, publishedOn, census: census() };
    }

    /** Runs the specimens of each profile that say what must come out of them, by both. */
    function prove({ profiles }: Releasing, number: number): void {
      const rows: Record<'before' | 'after', Map<string, MatrixRow>> = { before: new Map(), after: new Map() };
      const own = specimens().filter(
        ({ profileId, expectations }) => expectations.length > 0 && profiles.some(({ after }) => after[0]!.id === profileId),
      );
      let left = 1;
      const isOver = (): void => {
        if (--left > 0 || number !== asked || rows.before.size + rows.after.size < own.length * 2) return;
        patchState(store, {
          proved: own.map((specimen) => ({ specimen, before: rows.before.get(specimen.id)!, after: rows.after.get(specimen.id)! })),
        });
      };
      for (const { before, after, houses } of profiles)
        for (const [side, chain] of [
          ['before', before],
          ['after', after],
        ] as const) {
          const profile = resolved(chain);
          const its = own.filter(({ profileId }) => profileId === after[0]!.id);
          if (profile === null || its.length === 0) continue;
          left++;
          running.push(
            runner.matrix({ ...underProfile(profile, houses[side], ''), specimens: its, isQuick: true }).subscribe({
              next: (row) => void rows[side].set(row.specimenId, row),
              error: ({ message }: Error) => {
                if (number === asked) patchState(store, { proofFailure: message });
              },
              complete: isOver,
            }),
          );
        }
      isOver();
    }

    async function readEditions(target: Target): Promise<void> {
      try {
        patchState(store, {
          editions: await firstValueFrom(editionsOf(client, target)),
          editionsFailure: '',
        });
      } catch (error) {
        patchState(store, { editionsFailure: (error as Error).message });
      }
    }

    function giveUp(): void {
      asked++;
      for (const one of running) one.unsubscribe();
      running = [];
    }

    return {
      readEditions,
      giveUp,
      /** Works out what a release would do. */
      begin(releasing: Releasing): void {
        giveUp();
        const number = asked;
        patchState(store, { ...initial, editions: store.editions() });
        void readEditions(releasing.target);
        void compare(releasing, number);
        void check(releasing, number);
        prove(releasing, number);
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

const documentsOf = (chain: Chain): Record<string, JsonObject> => Object.fromEntries(chain.map((link) => [link.id, link.document]));

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
