import type { StoredProfile } from './types';

/** What a profile is called: its name as it is written, or its id where it has none. */
export function nameOf({ id, document }: Pick<StoredProfile, 'id' | 'document'>): string {
  const { name } = document;
  return typeof name === 'string' && name !== '' ? name : id;
}
