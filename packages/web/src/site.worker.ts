/// <reference lib="webworker" />
import { checkSite, compileRules, resolveProfile, type ComparedSide } from '@typikon/core';
import type { SiteAnswer, SiteRequest } from './state/site-messages';

/** Profiles are compiled once for each state of all of them. */
let kept: { key: string; profiles: ReadonlyMap<string, ComparedSide> } | null = null;

addEventListener('message', ({ data }: MessageEvent<SiteRequest>) => {
  const { number, site, house } = data;
  const key = JSON.stringify([data.profiles, house]);
  if (kept?.key !== key) kept = { key, profiles: compiled(data) };
  const findings = checkSite({ site, profiles: kept.profiles, ...(house === null ? {} : { house }) });
  postMessage({ number, findings } satisfies SiteAnswer);
});

function compiled({ profiles, house }: SiteRequest): ReadonlyMap<string, ComparedSide> {
  const documents = new Map(profiles.map(({ id, document }) => [id, document]));
  const sides = new Map<string, ComparedSide>();
  for (const id of documents.keys()) {
    const resolution = resolveProfile(id, (other) => documents.get(other));
    if (!resolution.ok) continue;
    const { profile } = resolution.resolved;
    sides.set(id, { profile, rules: compileRules(resolution.resolved, house === null ? {} : { house }), name: profile.name });
  }
  return sides;
}
