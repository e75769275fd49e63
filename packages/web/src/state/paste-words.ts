import type { Expectation, Overtaken, Thing } from '@typikon/core';
import { PASS_WORDS, type PassId, type PasteSource } from '@typikon/core/settings';

const SOURCES: Readonly<Record<PasteSource, string>> = {
  'word-processor': 'Word processor',
  spreadsheet: 'Spreadsheet',
  presentation: 'Presentation',
  'web-mail': 'Web mail',
  chat: 'Chat',
  'web-page': 'Web page',
  'pdf-viewer': 'PDF viewer',
  'this-editor': 'This editor',
  'plain-text': 'Plain text',
  markdown: 'Markdown',
};

/** What a kind of source is called. */
export function sourceName(source: PasteSource): string {
  return SOURCES[source];
}

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

/** An expectation in a sentence. */
export function expectationWords(expectation: Expectation): string {
  switch (expectation.expect) {
    case 'no-inline-style':
      return 'No inline style is left';
    case 'no-hard-space':
      return 'No hard space is left';
    case 'no-office':
      return 'Nothing of an office program is left';
    case 'no-empty-paragraph':
      return 'No empty paragraph is left';
    case 'links-lead-somewhere':
      return 'Every link within the text leads somewhere';
    case 'text-kept':
      return `${expectation.percent} % of the letters are kept`;
    case 'count':
      return `There are ${expectation.is} ${nounOf(expectation.of)}`;
    case 'text-is':
      return `The text is “${short(expectation.text)}”`;
    case 'text-has':
      return `The text has “${short(expectation.text)}”`;
    case 'text-lacks':
      return `The text has no “${short(expectation.text)}”`;
    case 'markup-has':
      return `The markup has ${short(expectation.html)}`;
    case 'markup-lacks':
      return `The markup has no ${short(expectation.html)}`;
    case 'outline':
      return `The headings are ${expectation.is.map((line) => `h${line}`).join(' · ') || 'none'}`;
    case 'source':
      return `It is told as ${sourceName(expectation.is).toLowerCase()}`;
    case 'pictures-to-upload':
      return `${expectation.is} pictures have to be uploaded`;
  }
}

function nounOf(of: string): string {
  return of.startsWith('@') ? `${of.slice(1)} attributes` : of.startsWith('.') ? `elements of class ${of.slice(1)}` : `<${of}>`;
}

function short(text: string): string {
  return text.length > 90 ? `${text.slice(0, 88)}…` : text;
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
