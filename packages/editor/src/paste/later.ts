import type * as taking from '@typikon/core/pasting';

/** What takes in pastes; most texts are written without one, so that it comes by itself once the editor stands. */
export type Pasting = typeof taking;

let there: Pasting | null = null;

/** What takes in pastes, if it is there already. */
export function pastingIfThere(): Pasting | null {
  return there;
}

/**
 * Gets what takes in pastes.
 *
 * @returns rejects where it cannot be loaded; asking again tries again
 */
export async function pasting(): Promise<Pasting> {
  there ??= await import('@typikon/core/pasting');
  return there;
}
