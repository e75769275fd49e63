import type { Right } from '@typikon/core';

/** What each right lets somebody do. */
export const RIGHT_WORDS: Readonly<Record<Right, string>> = {
  read: 'look at everything',
  write: 'write content',
  design: 'change how content is written and looks',
  administer: 'say what there is to write, and who may do what',
};

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
