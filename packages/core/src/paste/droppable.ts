import type { Thing } from './inventory';

/** Whether some pass can take such a thing away. */
export function canDropFromNowOn({ kind, name }: Pick<Thing, 'kind' | 'name'>): boolean {
  return kind !== 'link' || name !== '';
}
