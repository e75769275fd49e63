import type { JsonObject, ReachInBrief } from '@typikon/core/settings';
import { EMPTY, expand, map, scan, type Observable } from 'rxjs';
import type { AnswerOf } from './contract';
import type { ContractClient } from './contract-client';

type Answer = AnswerOf<'post', '/profiles/{id}/reach'>;

/** A stored text that would come out differently. */
export type TouchedText = Omit<Answer['touched'][number], 'reach'> & { reach: ReachInBrief };

/** What a change of rules does to the stored texts, as far as they were looked at. */
export interface ReachSoFar {
  /** How many texts there are. */
  texts: number;
  /** How many of them hold what the change asks for; the others come out the same, to the letter. */
  candidates: number;
  /** Why all of them have to be looked at; empty where what they hold decides it. */
  undecided: readonly string[];
  looked: number;
  touched: readonly TouchedText[];
  /** Whether all that could be touched was looked at. */
  isDone: boolean;
}

/**
 * Looks at the stored texts that releasing a draft could touch, answer by answer, and tells each time how far it is.
 * Unsubscribing ends it.
 *
 * @param document the draft; the one that is stored where it is not given
 */
export function lookAtTexts(client: ContractClient, id: string, document?: JsonObject): Observable<ReachSoFar> {
  const ask = (after?: string) =>
    client.post('/profiles/{id}/reach', document === undefined ? {} : { document }, null, { id }, after === undefined ? {} : { after });
  return ask().pipe(
    expand(({ next }) => (next === null ? EMPTY : ask(next))),
    map(({ body, next }) => ({ ...body, touched: body.touched as unknown as TouchedText[], isDone: next === null })),
    scan((before, now) => ({ ...now, looked: before.looked + now.looked, touched: [...before.touched, ...now.touched] }), NOTHING_YET),
  );
}

const NOTHING_YET: ReachSoFar = { texts: 0, candidates: 0, undecided: [], looked: 0, touched: [], isDone: false };
