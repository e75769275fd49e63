import type { ElementNode } from '../html/node';
import { parentOf } from './relations';

/** What an element's computed style tells about its box. */
interface BoxStyle {
  /** A property's computed value. */
  value(property: string): string;
  /** A property's value in CSS pixels; null where it is no length. */
  px(property: string): number | null;
}

/** Computed styles of elements, and the width of the page. */
interface BoxStyles {
  of(element: ElementNode): BoxStyle;
  media: { widthPx: number };
}

/** How much room elements have, in CSS pixels, as far as stylesheets tell without layout (CSS 2.2, section 10.3). */
export class Rooms {
  private readonly known = new Map<ElementNode, number>();

  /**
   * @param bound an element that something else than a stylesheet holds to a width
   */
  constructor(
    private readonly styles: BoxStyles,
    private readonly bound: { element: ElementNode; px: number } | null = null,
  ) {}

  /** The room within an element. */
  within(element: ElementNode): number {
    let room = this.known.get(element);
    if (room === undefined) {
      const parent = parentOf(element);
      room = inner(this.styles.of(element), parent === null ? this.styles.media.widthPx : this.within(parent));
      if (element === this.bound?.element) room = Math.min(room, this.bound.px);
      this.known.set(element, room);
    }
    return room;
  }
}

/** The room within an element that stands in a room. */
function inner(style: BoxStyle, room: number): number {
  const margins = Math.max(0, style.px('margin-left') ?? 0) + Math.max(0, style.px('margin-right') ?? 0);
  const isBorderBox = style.value('box-sizing') === 'border-box';
  const given = limitOf(style.value('width'), room);
  const most = limitOf(style.value('max-width'), room);
  let outer = given === null ? room - margins : isBorderBox ? given : given + edgesOf(style);
  if (most !== null) outer = Math.min(outer, isBorderBox ? most : most + edgesOf(style));
  return Math.max(0, outer - edgesOf(style));
}

/** A length or share of the room in pixels; null for what sets no bound. */
export function limitOf(value: string, room: number): number | null {
  if (value === '0') return 0;
  if (/^[\d.]+px$/.test(value)) return Number.parseFloat(value);
  if (/^[\d.]+%$/.test(value)) return (Number.parseFloat(value) / 100) * room;
  const smallest = /^min\((.*)\)$/.exec(value)?.[1];
  if (smallest === undefined) return null;
  const bounds = smallest.split(',').flatMap((part) => limitOf(part.trim(), room) ?? []);
  return bounds.length === 0 ? null : Math.min(...bounds);
}

/** The width of paddings and borders on both sides. */
export function edgesOf(style: BoxStyle): number {
  return ['padding-left', 'padding-right', 'border-left-width', 'border-right-width'].reduce((sum, name) => sum + (style.px(name) ?? 0), 0);
}
