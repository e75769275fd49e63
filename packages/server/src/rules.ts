import { compileRules, readHouseLimits, resolveProfile, type CompiledRules, type HouseLimits, type JsonObject } from '@typikon/core';
import { ProfileModel, SettingModel } from './db/models';

const NOTHING: JsonObject = { format: 'typikon-profile/1', name: 'Nothing' };

async function houseLimits(): Promise<HouseLimits | undefined> {
  const setting = await SettingModel.findByPk('house-limits');
  const read = setting === null ? undefined : readHouseLimits(setting.value);
  return read?.ok === true ? read.house : undefined;
}

/**
 * The rules of a profile as it is stored, or with drafts that are being tried, under the house limits. A profile that does
 * not resolve lets nothing but text through.
 *
 * @param role for whose content; empty for anybody whom the house limits bind
 */
export async function rulesOf(id: string, role: string, drafts: Record<string, JsonObject> = {}): Promise<CompiledRules> {
  const stored = new Map((await ProfileModel.findAll()).map((profile) => [profile.id, profile.document]));
  const resolution = resolveProfile(id, (other) => (Object.hasOwn(drafts, other) ? drafts[other] : stored.get(other)));
  const fallback = resolveProfile('nothing', () => NOTHING);
  if (!fallback.ok) throw new Error('The empty profile does not resolve.');
  const house = await houseLimits();
  return compileRules(resolution.ok ? resolution.resolved : fallback.resolved, house && { house, ...(role === '' ? {} : { role }) });
}
