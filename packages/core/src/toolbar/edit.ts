import { setInProfile } from '../profile/edit';
import type { Json, JsonObject } from '../profile/merge-patch';
import { mergeChain, type ProfileSource } from '../profile/resolve';
import { toolbarSchema, type Toolbar } from '../profile/toolbar-schema';
import { changesToArrange, type ArrangedGroup } from './arrange';
import type { ButtonId } from '../profile/button-ids';

/** The toolbar that a profile would have if its own document said nothing of it; null for a profile without a parent. */
export function inheritedToolbar(chain: readonly ProfileSource[]): Toolbar | null {
  if (chain.length < 2) return null;
  return toolbarSchema.parse(mergeChain(chain.slice(1))['toolbar'] ?? {});
}

/**
 * Changes a profile's own document so that its toolbar has certain groups with certain buttons. A profile that extends
 * another says only what is different: single buttons that were added, moved or taken away, so that it goes on following
 * its parent in all else.
 *
 * @param chain the profile and its parents, as `resolveProfile` returns them
 * @param wanted the groups in order
 * @returns the new document of the profile itself
 */
export function setToolbar(chain: readonly ProfileSource[], wanted: readonly ArrangedGroup[]): JsonObject {
  const [own, ...parents] = chain;
  if (own === undefined) throw new Error('A profile chain has at least the profile itself.');
  const inherited = inheritedToolbar(chain);
  const inOwn = (document: JsonObject, keys: readonly string[], value: Json | undefined): JsonObject =>
    setInProfile([{ id: own.id, document }, ...parents], keys, value);
  const order = wanted.map(({ id }) => id);
  const known = inherited?.groups ?? {};
  const ofParents = new Set(Object.values(known).flatMap(({ buttons }) => buttons));
  const lists = Object.fromEntries(
    wanted.map(({ id, buttons }): [string, { label: string; buttons: ButtonId[] }] => [
      id,
      { label: '', buttons: known[id]?.buttons ?? buttons.filter((button) => !ofParents.has(button)) },
    ]),
  );
  const changes = changesToArrange({ order, groups: lists }, new Map(wanted.map(({ id, buttons }) => [id, buttons])));

  let document = inOwn(own.document, ['toolbar', 'order'], order);
  for (const { id, label, newRow, inMore } of wanted) {
    const old = known[id];
    document = inOwn(document, ['toolbar', 'groups', id, 'label'], label);
    document = inOwn(document, ['toolbar', 'groups', id, 'buttons'], lists[id]!.buttons);
    if (newRow || old?.newRow !== undefined) document = inOwn(document, ['toolbar', 'groups', id, 'newRow'], newRow);
    else document = inOwn(document, ['toolbar', 'groups', id, 'newRow'], undefined);
    if (inMore || old?.inMore !== undefined) document = inOwn(document, ['toolbar', 'groups', id, 'inMore'], inMore);
    else document = inOwn(document, ['toolbar', 'groups', id, 'inMore'], undefined);
  }
  // Groups of its own that are shown no more go; those of parents only leave the order.
  for (const id of Object.keys((own.document['toolbar'] as JsonObject | undefined)?.['groups'] ?? {}))
    if (!order.includes(id) && known[id] === undefined) document = inOwn(document, ['toolbar', 'groups', id], undefined);
  const isNothing = Object.keys(changes).length === 0 && Object.keys(inherited?.changes ?? {}).length === 0;
  return inOwn(document, ['toolbar', 'changes'], isNothing ? undefined : changes);
}
