import type { Overtaken, Thing } from '@typikon/core';
import { PASS_WORDS, type PassId } from '@typikon/core/settings';

/** A pass as it is cited: "§3 Paste, Inline style". */
export function citePass(pass: PassId): string {
  return `§3 Paste, ${PASS_WORDS[pass].label}`;
}

/** What a pass did, in a word: "14 declarations". */
export function countOf(pass: PassId, changes: number): string {
  const [one, many] = PASS_WORDS[pass].unit;
  return changes === 1 ? one : many;
}

/** The key of a kind of thing of what is left, by which it is chosen. */
export const keyOfThing = ({ kind, name }: Pick<Thing, 'kind' | 'name'>): string => `${kind} ${name}`;

/** A kind of thing of what is left, as it is called. */
export function thingName({ kind, name }: Pick<Thing, 'kind' | 'name'>): { code: string; words: string } {
  switch (kind) {
    case 'element':
      return { code: name, words: '' };
    case 'attribute':
      return { code: name, words: 'attribute' };
    case 'class':
      return { code: `.${name}`, words: '' };
    case 'style':
      return { code: name, words: 'style' };
    case 'hard-space':
      return { code: '', words: 'hard space' };
    case 'empty-paragraph':
      return { code: '', words: 'empty paragraph' };
    case 'link':
      return name === '' ? { code: '', words: 'link within the site' } : { code: name, words: 'link to' };
  }
}

/** A pass that works in vain, in a sentence. */
export function overtakenWords({ pass, by, how }: Overtaken): string {
  const later = by === 'markup' ? 'the markup rules' : PASS_WORDS[by].label;
  return how === 'undone'
    ? `What ${PASS_WORDS[pass].label} does here, ${later} takes back.`
    : `What ${PASS_WORDS[pass].label} does here, ${later} would do anyway.`;
}

/** The number of a pass in the chapter: 3.1 is the source. */
export function passNumber(order: readonly PassId[], pass: PassId): string {
  return `3.${order.indexOf(pass) + 2}`;
}
