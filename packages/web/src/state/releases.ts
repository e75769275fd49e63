import type { JsonObject } from '@typikon/core/light';
import { map, type Observable } from 'rxjs';
import type { AnswerOf } from './contract';
import type { Answer, ContractClient } from './contract-client';
import type { Part } from './types';

/** What is released: a profile, or something that the whole site has once. */
export type Target = { kind: 'profile'; id: string } | { kind: 'shared'; part: Part };

/** A release as it is kept, without what was released. */
export type ToldEdition = Omit<AnswerOf<'get', '/profiles/{id}/editions'>[number], 'profile' | 'inputs'>;

/** What is released together with something, by the states of the drafts that were looked at. */
export interface ReleaseBody {
  note: string;
  accepted: readonly { what: string; why: string }[];
  reach: ToldEdition['reach'];
  together: readonly { id: string; revision: number }[];
  shared: readonly { part: Part; revision: number }[];
  leave: readonly { document: string; field: string }[];
}

/** Every edition, the last first. */
export const editionsOf = (client: ContractClient, target: Target): Observable<readonly ToldEdition[]> =>
  target.kind === 'profile'
    ? client.get('/profiles/{id}/editions', {}, { id: target.id }).pipe(map(({ body }) => body))
    : client.get('/shared/{part}/editions', {}, { part: target.part }).pipe(map(({ body }) => body));

/** Releases a draft. @param revision of the draft that was looked at */
export function release(client: ContractClient, target: Target, body: ReleaseBody, revision: number): Observable<Answer<unknown>> {
  if (target.kind === 'profile') return client.post('/profiles/{id}/editions', body, revision, { id: target.id });
  const { leave: _leave, ...rest } = body;
  return client.post('/shared/{part}/editions', rest, revision, { part: target.part });
}

/** A release that waits for its time, or did. */
export type ScheduledRelease = AnswerOf<'get', '/profiles/{id}/scheduled'>[number];

/** Has a draft released at a time to come. @param revision of the draft that was looked at */
export function plan(client: ContractClient, target: Target, body: ReleaseBody, at: Date, revision: number): Observable<Answer<unknown>> {
  const planned = { ...body, at: at.toISOString() };
  if (target.kind === 'profile') return client.post('/profiles/{id}/scheduled', planned, revision, { id: target.id });
  const { leave: _leave, ...rest } = planned;
  return client.post('/shared/{part}/scheduled', rest, revision, { part: target.part });
}

/** Releases that wait for their time, and the last ones that did, the latest first. */
export const plannedOf = (client: ContractClient, target: Target): Observable<readonly ScheduledRelease[]> =>
  target.kind === 'profile'
    ? client.get('/profiles/{id}/scheduled', {}, { id: target.id }).pipe(map(({ body }) => body))
    : client.get('/shared/{part}/scheduled', {}, { part: target.part }).pipe(map(({ body }) => body));

/** Releases an earlier edition again. @param last the number of the last edition */
export function takeBack(client: ContractClient, target: Target, number: number, last: number, note: string): Observable<Answer<unknown>> {
  return target.kind === 'profile'
    ? client.post('/profiles/{id}/editions/{number}/again', { note }, last, { id: target.id, number: String(number) })
    : client.post('/shared/{part}/editions/{number}/again', { note }, last, { part: target.part, number: String(number) });
}

/** What an edition says itself, without what it extends. */
export function documentOf(client: ContractClient, target: Target, number: number): Observable<JsonObject> {
  return target.kind === 'profile'
    ? client
        .get('/profiles/{id}/editions/{number}', {}, { id: target.id, number: String(number) })
        .pipe(map(({ body }) => body.chain[0]!.document as JsonObject))
    : client
        .get('/shared/{part}/editions/{number}', {}, { part: target.part, number: String(number) })
        .pipe(map(({ body }) => body.document as JsonObject));
}
