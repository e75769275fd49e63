import type { LikenessFigure } from '../../state/types';

/** Something that may have moved a figure: a save of a profile or of a stylesheet. */
export interface PastSave {
  /** What was saved, by its name. */
  what: string;
  savedAt: string;
  note: string;
}

/** A figure of the past, with what was saved since the one before. */
export interface PastFigure {
  at: Date;
  share: number;
  alike: number;
  elements: number;
  causes: number;
  /** In sentences; empty for the first figure. */
  changes: readonly string[];
}

export const percentOf = (share: number): string => (share === 1 ? '100 %' : `${Math.min(99.9, share * 100).toFixed(1)} %`);

/**
 * The figures of one profile on one kind of page, the oldest first.
 *
 * @param saves of the profile, those it extends, and the stylesheets of the kind of page, in any order
 */
export function likenessPast(figures: readonly LikenessFigure[], saves: readonly PastSave[]): PastFigure[] {
  const told = figures.filter(({ elements }) => elements > 0).sort((one, other) => one.takenAt.localeCompare(other.takenAt));
  return told.map(({ takenAt, elements, alike, causes }, at): PastFigure => {
    const since = told[at - 1];
    return {
      at: new Date(takenAt),
      share: alike / elements,
      alike,
      elements,
      causes,
      changes: since === undefined ? [] : changesBetween(since, { elements }, takenAt, saves),
    };
  });
}

function changesBetween(since: LikenessFigure, { elements }: { elements: number }, until: string, saves: readonly PastSave[]): string[] {
  const between = saves.filter(({ savedAt }) => savedAt > since.takenAt && savedAt <= until);
  const names = [...new Set(between.map(({ what }) => what))];
  const notesOf = (what: string): string =>
    between.flatMap((save) => (save.what === what && save.note !== '' ? [save.note] : [])).join('; ');
  const silent = names.filter((what) => notesOf(what) === '');
  const sentences = names.filter((what) => notesOf(what) !== '').map((what) => `${what} was saved: ${notesOf(what)}.`);
  if (silent.length > 0) sentences.push(`${silent.join(', ')} ${silent.length === 1 ? 'was' : 'were'} saved.`);
  const more = elements - since.elements;
  if (more !== 0)
    sentences.push(`The texts have ${Math.abs(more)} ${Math.abs(more) === 1 ? 'element' : 'elements'} ${more > 0 ? 'more' : 'fewer'}.`);
  return sentences;
}
