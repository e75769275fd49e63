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
  /** The figures over time as points of a line, 60 wide and 14 high; empty for a single one. */
  line: string;
}

const WIDTH = 60;
const HEIGHT = 14;
const MOST_POINTS = 30;

export const percentOf = (share: number): string => (share === 1 ? '100 %' : `${Math.min(99.9, share * 100).toFixed(1)} %`);

/** The figures of a profile, one line for each page kind. */
export function figureLines(figures: readonly LikenessFigure[], profileId: string, kindNames: ReadonlyMap<string, string>): FigureLine[] {
  const byKind = new Map<string, number[]>();
  for (const { pageKindId, alike, elements, ...figure } of figures)
    if (figure.profileId === profileId && elements > 0) byKind.set(pageKindId, [...(byKind.get(pageKindId) ?? []), alike / elements]);
  return [...byKind].flatMap(([pageKindId, shares]): FigureLine[] => {
    const name = kindNames.get(pageKindId);
    if (name === undefined) return [];
    const shown = shares.slice(-MOST_POINTS);
    const now = shown.at(-1)!;
    const before = shown.at(-2);
    const least = Math.min(...shown);
    const span = 1 - least || 1;
    const line =
      shown.length < 2
        ? ''
        : shown
            .map(
              (share, at) =>
                `${((at / (shown.length - 1)) * WIDTH).toFixed(1)},${(1 + (1 - (share - least) / span) * (HEIGHT - 2)).toFixed(1)}`,
            )
            .join(' ');
    return [
      {
        pageKindId,
        name,
        now: percentOf(now),
        was: before === undefined || percentOf(before) === percentOf(now) ? '' : percentOf(before),
        isWhole: now === 1,
        line,
      },
    ];
  });
}
