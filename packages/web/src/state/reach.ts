import type { JsonObject, ReachInBrief } from '@typikon/core/settings';
import { EMPTY, expand, map, scan, type Observable } from 'rxjs';
import type { AnswerOf } from './contract';
import type { ContractClient } from './contract-client';
import type { Target } from './releases';
import type { Part } from './types';

type Answer = AnswerOf<'post', '/profiles/{id}/reach'>;

/** A text as what was released leaves it, and as the drafts would. */
export type BothResults = AnswerOf<'post', '/profiles/{id}/reach/{document}/{field}'>;

interface TextName {
  document: string;
  field: string;
}

/** A stored text that would come out differently. */
export type TouchedText = Omit<Answer['touched'][number], 'reach'> & { reach: ReachInBrief };

/** What a change of rules does to the stored texts, as far as they were looked at. */
export interface ReachSoFar {
  /** How many texts there are. */
  texts: number;
  /** How many of them can come out differently; the others come out the same, to the letter. */
  candidates: number;
  /** How many of those are known to come out differently, before they are looked at. */
  sure: number;
  /** What of the change cannot be told by what texts hold; empty where all of it can. */
  undecided: readonly string[];
  looked: number;
  touched: readonly TouchedText[];
  /** Whether all that could be touched was looked at. */
  isDone: boolean;
}

/** How many texts come out differently, as far as it is known by now: at least, and at most. */
export function touchedOf({ candidates, sure, looked, touched, isDone }: ReachSoFar): { least: number; most: number } {
  const most = isDone ? touched.length : candidates - (looked - touched.length);
  return { least: Math.min(most, Math.max(sure, touched.length)), most };
}

/** Drafts of which it is asked what releasing them would do. */
export interface ReachQuestion {
  of: Target;
  /** The draft of a profile; the one that is stored where it is not given. */
  document?: JsonObject;
  /** Profiles whose drafts would be released with it. */
  together?: readonly string[];
  /** What the whole site has once whose drafts would be released with a profile. */
  shared?: readonly Part[];
}

/** What is sent for a question. */
const bodyOf = ({ of: _of, ...body }: ReachQuestion): object => body;

/**
 * Looks at the stored texts that releasing drafts could touch, answer by answer, and tells each time how far it is.
 * Unsubscribing ends it.
 */
export function lookAtTexts(client: ContractClient, question: ReachQuestion): Observable<ReachSoFar> {
  const { of } = question;
  const ask = (after?: string): Observable<{ body: Answer; next: string | null }> => {
    const query = after === undefined ? {} : { after };
    return of.kind === 'profile'
      ? client.post('/profiles/{id}/reach', bodyOf(question), null, { id: of.id }, query)
      : client.post('/shared/{part}/reach', bodyOf(question), null, { part: of.part }, query);
  };
  return ask().pipe(
    expand(({ next }) => (next === null ? EMPTY : ask(next))),
    map(({ body, next }) => ({ ...body, touched: body.touched as unknown as TouchedText[], isDone: next === null })),
    scan((before, now) => ({ ...now, looked: before.looked + now.looked, touched: [...before.touched, ...now.touched] }), NOTHING_YET),
  );
}

/** Both results of one text. */
export function lookAtText(client: ContractClient, question: ReachQuestion, { document, field }: TextName): Observable<BothResults> {
  const { of } = question;
  const answer =
    of.kind === 'profile'
      ? client.post('/profiles/{id}/reach/{document}/{field}', bodyOf(question), null, { id: of.id, document, field })
      : client.post('/shared/{part}/reach/{document}/{field}', bodyOf(question), null, { part: of.part, document, field });
  return answer.pipe(map(({ body }) => body));
}

const NOTHING_YET: ReachSoFar = { texts: 0, candidates: 0, sure: 0, undecided: [], looked: 0, touched: [], isDone: false };
