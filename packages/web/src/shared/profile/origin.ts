import { originOf, toPointer, type ResolvedProfile } from '@typikon/core/settings';

/** Who set a setting, as the chapters say it: here, a parent by its name, or nobody. */
export function settingOrigin(
  { id, chain }: ResolvedProfile,
  keys: readonly string[],
  names: ReadonlyMap<string, string>,
): { setBy: string; isHere: boolean } {
  const origin = originOf(chain, toPointer(keys));
  const isHere = origin === id;
  return { isHere, setBy: origin === undefined ? 'default' : isHere ? 'here' : (names.get(origin) ?? origin) };
}
