import type { AttributeTest } from '../profile/schema';

/** For each unit the range of numbers that pass; "none" is a number without a unit. */
export type Ranges = Extract<AttributeTest, { test: 'length' }>['ranges'];

const DIMENSION = /^([+-]?(?:\d{1,9}(?:\.\d{0,9})?|\.\d{1,9}))(%|[a-z]{1,5})?$/;

/** A number with its unit, as CSS reads a dimension (CSS Values 4, section 5.2) and HTML a length; null for anything else. */
export function readLength(text: string): { number: number; unit: string } | null {
  const match = DIMENSION.exec(text.trim().toLowerCase());
  return match === null ? null : { number: Number(match[1]), unit: match[2] ?? 'none' };
}

/** Whether a text is a length within one of the ranges. Zero needs no unit. */
export function isLengthWithin(text: string, ranges: Ranges): boolean {
  const length = readLength(text);
  if (length === null) return false;
  const { number, unit } = length;
  if (number === 0 && unit === 'none') return Object.values(ranges).some((range) => isWithin(0, range));
  return Object.hasOwn(ranges, unit) && isWithin(number, ranges[unit]!);
}

function isWithin(number: number, { min = -Infinity, max = Infinity }: { min?: number | undefined; max?: number | undefined }): boolean {
  return number >= min && number <= max;
}
