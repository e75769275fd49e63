import { compileRules, readHouseLimits, resolveProfile, type CompiledRules, type HouseLimits, type JsonObject } from '@typikon/core';
import type { Transaction } from 'sequelize';
import { ProfileModel } from './db/models';
import { editionAt, lastEdition, resolveChain, stateOfEditions, type Chain } from './editions/repository';
import { draftOf } from './editions/parts';
import { lastShared, stateOfShared } from './editions/shared';

const NOTHING: JsonObject = { format: 'typikon-profile/1', name: 'Nothing' };

/** So many compiled rules are kept. */
const MOST_KEPT = 30;
const known = new Map<string, CompiledRules>();

/** A text of more tags than this is not cleaned at once. */
const MOST_TAGS = 200_000;

/** What is said of markup that has too many tags; null where it has not. */
export function tooManyTags(html: string): string | null {
  let tags = 0;
  for (let at = html.indexOf('<'); at !== -1; at = html.indexOf('<', at + 1)) tags++;
  return tags <= MOST_TAGS
    ? null
    : `The markup has about ${tags.toLocaleString('en')} tags; ${MOST_TAGS.toLocaleString('en')} can be cleaned at once. Nothing was saved.`;
}

/** All drafts and the house limits as they are stored, in one text that changes with any of them. */
export async function stateOfDrafts(): Promise<string> {
  const profiles = await ProfileModel.findAll({ attributes: ['id', 'revision', 'updatedAt'], order: [['id', 'ASC']], raw: true });
  const house = await draftOf('house-limits');
  return JSON.stringify([profiles.map(({ id, revision, updatedAt }) => [id, revision, updatedAt]), house?.revision ?? 0]);
}

/** The state of the house limits: another number whenever they are released. */
export const stateOfHouse = (): Promise<number> => stateOfShared('house-limits');

/** The house limits that hold; undefined where none were released. */
export async function houseLimits(transaction?: Transaction): Promise<HouseLimits | undefined> {
  return limitsIn((await lastShared('house-limits', transaction))?.document);
}

/** The house limits as they are worked on; undefined where they have mistakes. */
export async function houseDraft(): Promise<HouseLimits | undefined> {
  return limitsIn((await draftOf('house-limits'))?.document);
}

/** House limits as a document says them; undefined where it has mistakes. */
export function limitsIn(document: JsonObject | undefined): HouseLimits | undefined {
  const read = document === undefined ? undefined : readHouseLimits(document);
  return read?.ok === true ? read.house : undefined;
}

/**
 * The rules that authors write by: those of a profile's last edition under the house limits. With drafts that are being tried, those
 * of the drafts, also of the house limits. A profile that does not resolve lets nothing but text through.
 *
 * @param role for whose content; empty for anybody whom the house limits bind
 * @param kept an earlier edition that holds for a text which a release left as it was; null for the last
 */
export async function rulesOf(
  id: string,
  role: string,
  drafts: Record<string, JsonObject> = {},
  kept: number | null = null,
): Promise<CompiledRules> {
  if (Object.keys(drafts).length > 0) {
    const stored = new Map((await ProfileModel.findAll()).map((profile) => [profile.id, profile.document]));
    return compile(
      resolveProfile(id, (other) => (Object.hasOwn(drafts, other) ? drafts[other] : stored.get(other))),
      role,
      await houseDraft(),
    );
  }
  const key = JSON.stringify([id, role, kept, await stateOfEditions(), await stateOfHouse()]);
  let rules = known.get(key);
  if (rules === undefined) {
    const edition = (kept === null ? null : await editionAt(id, kept)) ?? (await lastEdition(id));
    rules = rulesOfChain(edition?.chain ?? [], role, await houseLimits());
    if (known.size >= MOST_KEPT) known.clear();
    known.set(key, rules);
  }
  return rules;
}

/** The rules of a profile as a chain of documents says it, under house limits. */
export function rulesOfChain(chain: Chain, role: string, house: HouseLimits | undefined): CompiledRules {
  return compile(resolveChain(chain), role, house);
}

function compile(resolution: ReturnType<typeof resolveProfile>, role: string, house: HouseLimits | undefined): CompiledRules {
  const fallback = resolveProfile('nothing', () => NOTHING);
  if (!fallback.ok) throw new Error('The empty profile does not resolve.');
  return compileRules(resolution.ok ? resolution.resolved : fallback.resolved, house && { house, ...(role === '' ? {} : { role }) });
}
