import { isSameJson, type JsonObject } from '@typikon/core/light';
import type { Edition, StoredProfile } from './types';

/** The documents that a profile's rules follow from: its own and those that it extends, from the nearest on. */
export type Chain = readonly { id: string; document: JsonObject }[];

/** Why a draft is not what authors write with: it says something else itself, or what it extends was released since. */
export type Ahead = 'draft' | 'parent';

/**
 * What would be released of a profile: its draft, on top of what it extends as that was released last, or as its own draft says
 * where that is released with it.
 *
 * @param editions the last edition of each profile
 * @param together drafts that are released with it, by id
 */
export function chainToRelease(
  { id, document }: Pick<StoredProfile, 'id' | 'document'>,
  editions: ReadonlyMap<string, Edition>,
  together: ReadonlyMap<string, JsonObject> = new Map(),
): Chain {
  const chain = [{ id, document }];
  for (;;) {
    const parent = chain.at(-1)!.document['extends'];
    if (typeof parent !== 'string' || chain.some((link) => link.id === parent)) return chain;
    const draft = together.get(parent);
    if (draft === undefined) return [...chain, ...(editions.get(parent)?.chain ?? [])];
    chain.push({ id: parent, document: draft });
  }
}

/** Whether and why the draft of a profile is ahead of its last edition; null where authors write with what it says. */
export function aheadOf(profile: Pick<StoredProfile, 'id' | 'document'>, editions: ReadonlyMap<string, Edition>): Ahead | null {
  const last = editions.get(profile.id);
  if (last === undefined) return null;
  const chain = chainToRelease(profile, editions);
  if (!isSameJson(last.chain[0]!.document, chain[0]!.document)) return 'draft';
  const isSame =
    last.chain.length === chain.length &&
    last.chain.every(({ id, document }, at) => id === chain[at]!.id && isSameJson(document, chain[at]!.document));
  return isSame ? null : 'parent';
}
