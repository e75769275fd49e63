import { PERSON_HEADER } from '@typikon/api';
import type { ReachInBrief, Site } from '@typikon/core';
import type { Context } from 'hono';
import { actingPerson } from '../auth/acting';
import { problem } from '../problem';
import type { Part } from './parts';
import type { LookedAtText, Looking, NotLooked } from './reach';
import type { Refusal } from './release';
import type { LookedAt } from './service';
import type { ScheduledRelease } from './scheduled';
import type { LookedAtShared } from './shared-service';

/** What looking at some texts came to, as it is answered. */
export const toldLooking = ({ texts, candidates, sure, undecided, looked, touched }: Extract<Looking, { is: 'looked' }>) => ({
  texts,
  candidates,
  sure,
  undecided: [...undecided],
  looked,
  touched: touched.map(({ reach, ...text }) => ({ ...text, reach: asJson(reach) })),
});

/** A release that waits for its time, or did, as it is answered. */
export const toldScheduled = ({ body, at, askedAt, ...release }: ScheduledRelease) => ({
  ...release,
  note: body.note,
  at: at.toISOString(),
  askedAt: askedAt.toISOString(),
});

/** Both results of one text, as they are answered; the same where nothing happens to it. */
export function toldBoth({ reach, pageKind, value }: LookedAtText) {
  if (reach === null) return { before: value, after: value, pageKind, wordsLost: [], wordsGained: [], entries: [] };
  const { before, after, wordsLost, wordsGained, entries } = reach;
  return { before, after, pageKind, wordsLost, wordsGained, entries: entries.map((entry) => ({ ...entry })) };
}

const asJson = ({ taken, kept, ...reach }: ReachInBrief) => ({ ...reach, taken: taken.map(ofGroup), kept: kept.map(ofGroup) });

const ofGroup = ({ origin, ...group }: ReachInBrief['taken'][number]) => ({ ...group, ...(origin === undefined ? {} : { origin }) });

/** Profiles that are released with another, each once. */
export const besides = (together: readonly { id: string; revision: number }[], id = ''): LookedAt[] =>
  together
    .filter((other, at) => other.id !== id && together.findIndex((one) => one.id === other.id) === at)
    .map((other) => ({ id: other.id, isOf: (revision) => revision === other.revision }));

/** What the whole site has once and is released with something, each once, with the state of its draft that was looked at. */
export const sharedBesides = (shared: readonly { part: Part; revision: number }[]): LookedAtShared[] =>
  shared
    .filter((other, at) => shared.findIndex((one) => one.part === other.part) === at)
    .map((other) => ({ part: other.part, isOf: (revision) => revision === other.revision }));

/** Who releases, by id; null where they may not release one of the parts. */
export function whoReleases(site: Site, context: Context, parts: readonly Part[]): string | null {
  const acting = actingPerson(site, context.req.header(PERSON_HEADER));
  return parts.includes('site') && acting?.rights.has('administer') === false ? null : (acting?.id ?? '');
}

export const notAllowed = (context: Context) =>
  problem(context, 403, 'Nobody releases what there is to write, and who writes it, without the right to administer the site.');

const STATUS = { missing: 404, forbidden: 403, same: 409, outdated: 412, mistaken: 422 } as const;

export function refused(context: Context, { is, detail }: Refusal) {
  return problem(context, STATUS[is], detail);
}

export function notLooked(context: Context, { is, detail }: NotLooked) {
  return problem(context, STATUS[is], detail);
}
