import type { Right } from '@typikon/core';

/** A list of rights in a few words. */
export const rightsInShort = (rights: readonly Right[]): string =>
  rights.includes('administer')
    ? 'administers'
    : rights.includes('design')
      ? 'designs'
      : rights.includes('write')
        ? 'writes'
        : rights.includes('read')
          ? 'looks'
          : 'may do nothing';
