import { percentOf } from '../../shared/likeness/likeness-past';
import type { LikenessFigure } from '../../state/types';

/** How alike the editor and the pages of one kind are, now and before. */
export interface FigureLine {
  pageKindId: string;
  name: string;
  /** Such as `93.1 %`. */
  now: string;
  /** What it was before the last change; empty where it was never another. */
  was: string;
  isWhole: boolean;
}

/** The figures of a profile, one line for each page kind. */
export function figureLines(figures: readonly LikenessFigure[], profileId: string, kindNames: ReadonlyMap<string, string>): FigureLine[] {
  const byKind = new Map<string, number[]>();
  for (const { pageKindId, alike, elements, ...figure } of figures)
    if (figure.profileId === profileId && elements > 0) byKind.set(pageKindId, [...(byKind.get(pageKindId) ?? []), alike / elements]);
  return [...byKind].flatMap(([pageKindId, shares]): FigureLine[] => {
    const name = kindNames.get(pageKindId);
    if (name === undefined) return [];
    const now = shares.at(-1)!;
    const before = shares.at(-2);
    return [
      {
        pageKindId,
        name,
        now: percentOf(now),
        was: before === undefined || percentOf(before) === percentOf(now) ? '' : percentOf(before),
        isWhole: now === 1,
      },
    ];
  });
}
