import type { Field } from '@typikon/core';

/** What a field holds, in a few words. */
export const KIND_WORDS: Readonly<Record<Field['kind'], string>> = {
  rich: 'rich text',
  line: 'one line',
  picture: 'picture',
  date: 'date',
  choice: 'choice',
};
