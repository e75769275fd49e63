import { aheadOf } from '../../state/editions';
import { nameOf } from '../../state/profile-name';
import type { Target } from '../../state/releases';
import type { Edition, Part, StoredProfile } from '../../state/types';
import type { SharedPart } from './shared-parts';

/** Another draft that says something else than what was released. */
export interface OtherDraft {
  key: string;
  name: string;
  /** Where it is shown what a release of it alone would do. */
  link: string;
  target: Target;
  /** The state of it that is looked at. */
  revision: number;
}

/** What there is to release beside something. */
export function othersAhead(
  meant: Target,
  profiles: readonly StoredProfile[],
  editions: ReadonlyMap<string, Edition>,
  parts: Readonly<Record<Part, SharedPart>>,
): OtherDraft[] {
  const shared = (Object.keys(parts) as Part[])
    .filter((part) => !(meant.kind === 'shared' && meant.part === part) && parts[part].isAhead())
    .map((part): OtherDraft => ({
      key: part,
      name: parts[part].title,
      link: parts[part].releaseLink,
      target: { kind: 'shared', part },
      revision: parts[part].revision(),
    }));
  const ahead = profiles
    .filter((profile) => !(meant.kind === 'profile' && meant.id === profile.id) && aheadOf(profile, editions) === 'draft')
    .map((profile): OtherDraft => ({
      key: `profile ${profile.id}`,
      name: nameOf(profile),
      link: `/profiles/${profile.id}/release`,
      target: { kind: 'profile', id: profile.id },
      revision: profile.revision,
    }));
  return [...shared, ...ahead];
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
