import { aheadOf } from '../../state/editions';
import { nameOf } from '../../state/profile-name';
import type { Target } from '../../state/releases';
import type { Edition, Part, StoredProfile } from '../../state/types';

/** Another draft that says something else than what was released. */
export interface OtherDraft {
  key: string;
  name: string;
  target: Target;
  /** The state of it that is looked at. */
  revision: number;
}

/** What there is to release beside something. */
export function othersAhead(
  meant: Target,
  profiles: readonly StoredProfile[],
  editions: ReadonlyMap<string, Edition>,
  house: { isAhead: boolean; revision: number },
): OtherDraft[] {
  const ahead = profiles
    .filter((profile) => !(meant.kind === 'profile' && meant.id === profile.id) && aheadOf(profile, editions) === 'draft')
    .map((profile): OtherDraft => ({
      key: `profile ${profile.id}`,
      name: nameOf(profile),
      target: { kind: 'profile', id: profile.id },
      revision: profile.revision,
    }));
  if (!house.isAhead || meant.kind === 'shared') return ahead;
  const limits: OtherDraft = {
    key: 'house-limits',
    name: 'House limits',
    target: { kind: 'shared', part: 'house-limits' },
    revision: house.revision,
  };
  return [limits, ...ahead];
}

/** Those of them that are chosen, as a release names them. */
export function chosenOf(others: readonly OtherDraft[], chosen: ReadonlySet<string>) {
  const together: { id: string; revision: number }[] = [];
  const shared: { part: Part; revision: number }[] = [];
  for (const { key, target, revision } of others) {
    if (!chosen.has(key)) continue;
    if (target.kind === 'profile') together.push({ id: target.id, revision });
    else shared.push({ part: target.part, revision });
  }
  return { together, shared };
}
