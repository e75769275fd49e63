/// <reference lib="webworker" />
import { checkSite, comparePasses, compareRules, compileRules, resolveProfile, type ComparedSide } from '@typikon/core';
import type { ProfilesRequest, SiteAnswer, SiteRequest } from './state/site-messages';

/** Profiles are compiled once for each state of all of them. */
let kept: { key: string; profiles: ReadonlyMap<string, ComparedSide> } | null = null;

addEventListener('message', ({ data }: MessageEvent<SiteRequest>) => {
  const { number, house } = data;
  const key = JSON.stringify([data.profiles, house]);
  if (kept?.key !== key) kept = { key, profiles: compiled(data) };
  const { profiles } = kept;
  if (data.kind === 'check') {
    const pages = new Set(data.pages);
    const findings = checkSite({ site: data.site, profiles, pages, ...(house === null ? {} : { house }) });
    postMessage({ number, findings } satisfies SiteAnswer);
    return;
  }
  const [from, to] = [profiles.get(data.from), profiles.get(data.to)];
  const lines = from === undefined || to === undefined ? [] : [...compareRules(from, to, house ?? undefined), ...comparePasses(from, to)];
  postMessage({ number, lines } satisfies SiteAnswer);
});

function compiled({ profiles, house }: ProfilesRequest): ReadonlyMap<string, ComparedSide> {
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
