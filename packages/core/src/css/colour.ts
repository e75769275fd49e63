import 'culori/css';
import { converter, parse, wcagContrast } from 'culori/fn';

const toRgb = converter('rgb');

/** Whether a text is a CSS colour (CSS Color 4, section 5) that stands for itself: not `currentcolor`, a variable or a system colour. */
export function isColour(text: string): boolean {
  return colourKey(text) !== null;
}

/**
 * The same text for every way of writing one colour: `red`, `#F00` and `rgb(255, 0, 0)` are one.
 *
 * @returns channels from 0 to 255 and the opacity in per cent, or null for what is no colour
 */
export function colourKey(text: string): string | null {
  const rgb = toRgb(parse(text.trim().toLowerCase()));
  if (rgb === undefined) return null;
  const channel = (value: number): number => Math.round(Math.min(1, Math.max(0, value)) * 255);
  return [channel(rgb.r), channel(rgb.g), channel(rgb.b), Math.round((rgb.alpha ?? 1) * 100)].join(' ');
}

/** The contrast ratio of two colours (WCAG 2.2, "contrast ratio"), from 1 to 21; 0 where one of them is no colour. */
export function contrastOf(one: string, other: string): number {
  return isColour(one) && isColour(other) ? wcagContrast(one.trim().toLowerCase(), other.trim().toLowerCase()) : 0;
}
