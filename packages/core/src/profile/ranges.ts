import type { JsonObject } from './merge-patch';

/** The least and the most of each unit; `none` is a number without one. */
export type Ranges = Readonly<Record<string, { min?: number | undefined; max?: number | undefined }>>;

const RANGE = /^(-?[\d.]*)\.\.(-?[\d.]*?)(%|[a-z]*)$/i;

/**
 * Reads ranges as they are typed: `0..720px`, `..100%`, `1..2` for bare numbers.
 *
 * @returns the ranges by unit, or a sentence that says what cannot be read
 */
export function readRanges(text: string): JsonObject | string {
  const made: JsonObject = {};
  for (const part of text.split(/[\s,]+/).filter((word) => word !== '')) {
    const match = RANGE.exec(part);
    if (match === null) return `“${part}” is not written like 0..720px, ..100% or 1..2.`;
    const [, min, max, unit] = match;
    const range = { ...(min === '' ? {} : { min: Number(min) }), ...(max === '' ? {} : { max: Number(max) }) };
    if (Object.values(range).some((bound) => !Number.isFinite(bound))) return `“${part}” has something that is no number.`;
    made[unit === '' ? 'none' : unit!.toLowerCase()] = range;
  }
  return made;
}

/** Ranges as they are typed. */
export function writeRanges(ranges: Ranges): string {
  return Object.entries(ranges)
    .map(([unit, { min, max }]) => `${min ?? ''}..${max ?? ''}${unit === 'none' ? '' : unit}`)
    .join(' ');
}
