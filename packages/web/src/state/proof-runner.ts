import { Injectable, InjectionToken, inject, signal, type OnDestroy } from '@angular/core';
import { Observable } from 'rxjs';
import type {
  ClipboardPayload,
  Expectation,
  FromNowOn,
  HouseLimits,
  JsonObject,
  Keeping,
  LedgerEntry,
  Lessons,
  Overtaken,
  PassId,
  ResolvedProfile,
  RulesSummary,
  Thing,
} from '@typikon/core';
import { WorkerClient } from './worker-client';
import type { Arrival, Kept, MatrixRequest, MatrixRow, Proof, ProofRequest, RulesRequest, WorkerTask } from './types';

/** Makes the worker. A token, so that tests can put something else in its place. */
export const PROOF_WORKER = new InjectionToken<() => Worker>('proof worker');

/** What a worker that runs many specimens posts. */
type MatrixAnswer = { id: number; result: unknown } | { id: number; failure: string } | { id: number; row: MatrixRow };

/** What the worker is asked about some markup under a draft: the documents of its chain, the limits above them, whose content it is. */
export function proofRequest(
  resolved: ResolvedProfile,
  house: HouseLimits | null,
  role: string,
  html: string,
  arrival: Arrival = { way: 'stored' },
  expectations: readonly Expectation[] = [],
): ProofRequest {
  return { ...underProfile(resolved, house, role), html, arrival, expectations };
}

/** The part of a request that says by which rules. */
export function underProfile({ id, chain }: ResolvedProfile, house: HouseLimits | null, role: string) {
  return { profileId: id, documents: Object.fromEntries(chain.map((link) => [link.id, link.document])), house, role };
}

/** How far a computation is, in steps. */
export interface Progress {
  done: number;
  steps: number;
}

/** Runs proofs in a worker. A newer request makes the older one's answer worthless, and stops it where it takes long. */
@Injectable({ providedIn: 'root' })
export class ProofRunner implements OnDestroy {
  private readonly makeWorker = inject(PROOF_WORKER);
  /** How far the proof is that is under way; null while there is nothing to tell. */
  readonly progress = signal<Progress | null>(null);
  private readonly client = new WorkerClient<WorkerTask, Progress>(this.makeWorker, (progress) => this.progress.set(progress));

  /** Gets the worker ready for the first proof. */
  begin(): void {
    this.client.begin();
  }

  /** Computes one proof. Errors with the sentence that the computation gave. Unsubscribing forgets the request. */
  prove(request: ProofRequest): Observable<Proof> {
    return this.ask<Proof>({ kind: 'prove', request });
  }

  /** Tells what the rules of a profile come to. */
  rules(request: RulesRequest): Observable<RulesSummary> {
    return this.ask<RulesSummary>({ kind: 'rules', request });
  }

  /** Makes markup of a payload that holds none. */
  read(payload: ClipboardPayload, isMarkdown: boolean): Observable<string> {
    return this.ask<string>({ kind: 'read', payload, isMarkdown });
  }

  /** Lists, for each piece of markup, what stands in it beside plain words in paragraphs. */
  inventories(...markups: string[]): Observable<Thing[][]> {
    return this.ask<Thing[][]>({ kind: 'inventory', markups });
  }

  /** Works out how a thing that a paste leaves goes from now on; null where no rule of the profile does it. */
  drop(request: RulesRequest, thing: Thing): Observable<FromNowOn | null> {
    return this.ask<FromNowOn | null>({ kind: 'drop', request, thing });
  }

  /** Works out how the things of some entries of the ledger are kept from now on; null where the profile cannot. */
  keeping(request: ProofRequest, entries: readonly LedgerEntry[]): Observable<Keeping | null> {
    return this.ask<Keeping | null>({ kind: 'keeping', request, entries });
  }

  /** Lists what a profile would take from a sample, with the smallest rule for each. */
  lessons(request: ProofRequest): Observable<Lessons> {
    return this.ask<Lessons>({ kind: 'list-lessons', request });
  }

  /** Works out the rules for the lessons that were chosen, as a merge patch for the profile's own document. */
  learn(request: ProofRequest, chosen: readonly string[]): Observable<JsonObject> {
    return this.ask<JsonObject>({ kind: 'learn', request, chosen });
  }

  /** Tells which passes work in vain on what is on the bench. */
  overtaken(request: ProofRequest): Observable<Overtaken[]> {
    return this.ask<Overtaken[]>({ kind: 'overtaken', request });
  }

  /** Tells how much each pass that is off would find on what is on the bench. */
  would(request: ProofRequest): Observable<Partial<Record<PassId, number>>> {
    return this.ask<Partial<Record<PassId, number>>>({ kind: 'would', request });
  }

  /** Works out how a thing that a paste loses is kept from now on. */
  keep(request: ProofRequest, thing: Pick<Thing, 'kind' | 'name'>): Observable<Kept> {
    return this.ask<Kept>({ kind: 'keep', request, thing });
  }

  /**
   * Runs specimens through a profile, in a worker of its own, one row after another. Unsubscribing stops it at once.
   */
  matrix(request: MatrixRequest): Observable<MatrixRow> {
    return new Observable((subscriber) => {
      const worker = this.makeWorker();
      worker.addEventListener('message', ({ data }: MessageEvent<MatrixAnswer>) => {
        if ('row' in data) subscriber.next(data.row);
        else if ('failure' in data) subscriber.error(new Error(data.failure));
        else if ('result' in data) subscriber.complete();
      });
      worker.addEventListener('error', (event) => subscriber.error(new Error(event.message || 'The computation failed.')));
      worker.postMessage({ id: 0, task: { kind: 'matrix', request } satisfies WorkerTask });
      return () => worker.terminate();
    });
  }

  private ask<Result>(task: WorkerTask): Observable<Result> {
    return this.client.ask<Result>(task);
  }

  ngOnDestroy(): void {
    this.client.end();
  }

  /** Stops what is under way; its answer never comes. */
  stop(): void {
    this.client.end();
  }
}
