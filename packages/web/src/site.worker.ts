import '@typikon/core/without-eval';
/// <reference lib="webworker" />
import {
  checkSite,
  comparePasses,
  compareRules,
  compiledSides,
  compileRules,
  moveText,
  resolveProfile,
  type ComparedSide,
} from '@typikon/core';
import { findingsOf } from './state/profile-findings';
import type { ProfilesRequest, SiteAnswer, SiteRequest } from './state/site-messages';
import type { ProfileSurroundings } from './state/styled-pages';

/** Profiles are compiled once for each state of all of them. */
let kept: { key: string; profiles: ReadonlyMap<string, ComparedSide> } | null = null;

/** What stands around the profile that is tested. */
let around: ProfileSurroundings | null = null;

addEventListener('message', ({ data }: MessageEvent<SiteRequest>) => {
  const { number } = data;
  if (data.kind === 'check-profile') {
    around = data.surroundings ?? around;
    const profileFindings = around === null ? [] : findingsOf(data.profileId, data.documents, around);
    postMessage({ number, profileFindings } satisfies SiteAnswer);
    return;
  }
  const { house } = data;
  if (data.kind === 'move') {
    const [from, to] = [rulesFor(data.from, data), rulesFor(data.to, data)];
    postMessage({ number, move: to === null ? null : moveText(data.html, from ?? to, to) } satisfies SiteAnswer);
    return;
  }
  const key = JSON.stringify([data.profiles, house]);
  if (kept?.key !== key) kept = { key, profiles: compiledSides(new Map(data.profiles.map(({ id, document }) => [id, document])), house) };
  const { profiles } = kept;
  if (data.kind === 'check') {
    const pages = new Set(data.pages);
    const pageKinds = new Map(data.pageKinds.map((kind) => [kind.id, kind]));
    const { site, texts } = data;
    const findings = checkSite({ site, profiles, pages, pageKinds, texts, ...(house === null ? {} : { house }) });
    postMessage({ number, findings } satisfies SiteAnswer);
    return;
  }
  const [from, to] = [profiles.get(data.from), profiles.get(data.to)];
  const lines = from === undefined || to === undefined ? [] : [...compareRules(from, to, house ?? undefined), ...comparePasses(from, to)];
  postMessage({ number, lines } satisfies SiteAnswer);
});

/** The rules of a profile for somebody's content; null where it has mistakes or is gone. */
function rulesFor(id: string, { profiles, house, role }: ProfilesRequest & { role: string }) {
  const documents = new Map(profiles.map((profile) => [profile.id, profile.document]));
  const resolution = documents.has(id) ? resolveProfile(id, (other) => documents.get(other)) : null;
  if (resolution?.ok !== true) return null;
  return compileRules(resolution.resolved, house === null ? {} : { house, ...(role === '' ? {} : { role }) });
}
