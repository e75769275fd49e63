import { compileRules, readHouseLimits, resolveProfile, type CompiledRules, type HouseLimits, type JsonObject } from '@typikon/core';
import { ProfileModel, SettingModel } from './db/models';
import { editionAt, lastEdition, resolveChain, stateOfEditions, type Chain } from './editions/repository';

const NOTHING: JsonObject = { format: 'typikon-profile/1', name: 'Nothing' };
const HOUSE = 'house-limits';

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
  return JSON.stringify([profiles.map(({ id, revision, updatedAt }) => [id, revision, updatedAt]), await stateOfHouse()]);
}

/** The state of the house limits: another number whenever they are changed. */
export async function stateOfHouse(): Promise<number> {
  return (await SettingModel.findByPk(HOUSE, { attributes: ['revision'], raw: true }))?.revision ?? 0;
}

/** The house limits as they are stored; undefined where they have mistakes. */
export async function houseLimits(): Promise<HouseLimits | undefined> {
  const setting = await SettingModel.findByPk(HOUSE);
  const read = setting === null ? undefined : readHouseLimits(setting.value);
  return read?.ok === true ? read.house : undefined;
}

/**
 * The rules that authors write by: those of a profile's last edition under the house limits. With drafts that are being tried, those
 * of the drafts. A profile that does not resolve lets nothing but text through.
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
    );
  }
  const key = JSON.stringify([id, role, kept, await stateOfEditions(), await stateOfHouse()]);
  let rules = known.get(key);
  if (rules === undefined) {
    const edition = (kept === null ? null : await editionAt(id, kept)) ?? (await lastEdition(id));
    rules = await rulesOfChain(edition?.chain ?? [], role);
    if (known.size >= MOST_KEPT) known.clear();
    known.set(key, rules);
  }
  return rules;
}

/** The rules of a profile as a chain of documents says it, under the house limits. */
export function rulesOfChain(chain: Chain, role: string): Promise<CompiledRules> {
  return compile(resolveChain(chain), role);
}

async function compile(resolution: ReturnType<typeof resolveProfile>, role: string): Promise<CompiledRules> {
  const fallback = resolveProfile('nothing', () => NOTHING);
  if (!fallback.ok) throw new Error('The empty profile does not resolve.');
  const house = await houseLimits();
  return compileRules(resolution.ok ? resolution.resolved : fallback.resolved, house && { house, ...(role === '' ? {} : { role }) });
}
