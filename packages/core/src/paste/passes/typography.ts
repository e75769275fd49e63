import { countLetters } from '../../html/text';
import type { PastePasses } from '../../profile/paste-schema';
import { isWesternAt } from '../scripts';
import { replaceInRun, textRuns, type Replaced } from '../text-runs';
import type { Pass } from '../pass';

/** Puts quotation marks, dashes and ellipses into the house form. Code and preformatted text stay as they are. */
export const typography: Pass<'typography'> = {
  id: 'typography',
  run({ root, settings, report }) {
    for (const run of textRuns(root, false)) {
      const changes = changesIn(run.text, settings);
      if (changes.length === 0) continue;
      const places = replaceInRun(run, changes);
      changes.forEach(({ start, end, text }, i) =>
        report.characters(places[i]!, text, 'tidy', countLetters(run.text.slice(start, end)) - countLetters(text)),
      );
    }
  },
};

const MARK =
  /["\u201c\u201d\u201e\u201f]|['\u2018\u2019\u201a\u201b]|\.{3}|\u2026|[ \u00a0]?(?:---?|\u2013|\u2014)[ \u00a0]?|[ \u00a0]-[ \u00a0]/gu;

/** The changes that a line of text needs, in order. */
export function changesIn(text: string, settings: Omit<PastePasses['typography'], 'on'>): Replaced[] {
  const changes: Replaced[] = [];
  const [outer, inner] = settings.quotes === 'curly-double' ? [DOUBLE, SINGLE] : [SINGLE, DOUBLE];
  const swap = swaps(text, settings.quotes);
  let open = 0;
  for (const match of text.matchAll(MARK)) {
    const [mark] = match;
    const start = match.index;
    const end = start + mark.length;
    const [before, after] = [text[start - 1] ?? ' ', text[end] ?? ' '];
    let instead = mark;
    if (/^["\u201c-\u201f'\u2018-\u201b]$/u.test(mark)) {
      const isDouble = /["\u201c-\u201f]/u.test(mark);
      const isApostrophe = !isDouble && (isWordCharacter(before) || (/[\u2019']/u.test(mark) && /^\d\ds?\b/.test(text.slice(end))));
      const opens = /[\s\u00a0([{\u2013\u2014/\u2018\u201c"']/u.test(before) && !/[\s\u00a0]/u.test(after);
      if (settings.quotes === 'straight') instead = isDouble ? '"' : "'";
      else if (settings.quotes !== 'keep') {
        if (isApostrophe && !(open > 0 && isClosing(text, end))) instead = '\u2019';
        else {
          const pair = swap ? (isDouble ? outer : inner) : isDouble ? DOUBLE : SINGLE;
          instead = opens ? pair[0] : pair[1];
          open = Math.max(0, open + (opens ? 1 : -1));
        }
      }
    } else if (mark === '...' || mark === '\u2026') {
      if (settings.ellipsis !== 'keep') instead = settings.ellipsis === 'character' ? '\u2026' : '...';
    } else if (settings.dashes !== 'keep') instead = dash(mark, before, after, settings.dashes);
    if (instead !== mark && isWesternAt(text, start, end)) changes.push({ start, end, text: instead });
  }
  return changes;
}

const SINGLE = ['\u2018', '\u2019'] as const;
const DOUBLE = ['\u201c', '\u201d'] as const;

/** Whether a line quotes by marks of the other kind than the house does, outside of which none of the house's kind stand. */
function swaps(text: string, quotes: PastePasses['typography']['quotes']): boolean {
  if (quotes === 'straight' || quotes === 'keep') return false;
  const doubles = (text.match(/["\u201c\u201d]/gu) ?? []).length;
  const singles = (text.match(/(?<![\p{L}\p{N}])['\u2018](?=\S)/gu) ?? []).length;
  return quotes === 'curly-single' ? doubles > 0 && singles === 0 : false;
}

function isWordCharacter(character: string): boolean {
  return /[\p{L}\p{N}]/u.test(character);
}

/** Whether a single mark behind a word closes a quotation rather than standing for a letter: what follows is no letter. */
function isClosing(text: string, end: number): boolean {
  return !/^[\p{L}]/u.test(text.slice(end, end + 2));
}

/** A dash in the house form; between numbers it is an en rule without spaces. */
function dash(mark: string, before: string, after: string, form: 'spaced-en' | 'em'): string {
  const bare = mark.replace(/[ \u00a0]/g, '');
  const isSpaced = mark.startsWith(' ') || mark.startsWith('\u00a0');
  if (/\d/.test(before) && /\d/.test(after)) return bare === '\u2013' && !isSpaced ? mark : isSpaced ? mark : '\u2013';
  // At the edge of a line there is nothing to part.
  if (before === ' ' || after === ' ') return mark;
  if (bare === '\u2013' && !isSpaced && !/[ \u00a0]$/.test(mark)) return mark;
  return form === 'em' ? '\u2014' : ' \u2013 ';
}
