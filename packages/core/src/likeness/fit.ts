import type { Contender } from '../css/cascade';
import { edgesOf, limitOf, Rooms } from '../css/room';
import { parentOf } from '../css/relations';
import type { Placed, Scene } from './context';

/** How wide a picture is of itself, in CSS pixels; null where that is not known. */
export type NaturalWidth = (address: string) => number | null;

/** Something wider than the room that it stands in. */
export interface Misfit {
  index: number;
  /** The element's name, with what gives the width. */
  what: string;
  neededPx: number;
  columnPx: number;
  /** The rule that gives the width; null where an attribute or the picture itself does. */
  rule: Contender | null;
}

const SIZED: ReadonlySet<string> = new Set(['img', 'iframe', 'video', 'table', 'object', 'embed', 'canvas', 'svg', 'pre', 'div', 'figure']);
/** Less than this is rounding. */
const TOLERANCE_PX = 1;

/** Finds what is wider than its column, as far as stylesheets and attributes tell without layout (CSS 2.2, section 10.3). */
export function misfits(scene: Scene, placed: Placed, naturalWidth: NaturalWidth = () => null): Misfit[] {
  const { setting, styles } = scene;
  const frame = placed.elements[0] === undefined ? null : parentOf(placed.elements[0]);
  const rooms = new Rooms(styles, frame === null || setting.columnPx === null ? null : { element: frame, px: setting.columnPx });
  const found: Misfit[] = [];
  placed.elements.forEach((element, index) => {
    const parent = parentOf(element);
    if (parent === null || !SIZED.has(element.name)) return;
    const style = styles.of(element);
    const display = style.value('display');
    if (display === 'none' || style.value('position') === 'absolute' || style.value('position') === 'fixed') return;
    const columnPx = rooms.within(parent);
    const given = style.px('width');
    const own = element.name === 'img' && style.value('width') === 'auto' ? naturalWidth(element.attribute('src') ?? '') : null;
    let width = Math.max(given ?? own ?? 0, style.px('min-width') ?? 0);
    const most = limitOf(style.value('max-width'), columnPx);
    if (most !== null) width = Math.max(Math.min(width, most), style.px('min-width') ?? 0);
    if (width <= 0) return;
    const frameWidth = style.value('box-sizing') === 'border-box' && given !== null ? 0 : edgesOf(style);
    const neededPx = width + frameWidth + Math.max(0, style.px('margin-left') ?? 0) + Math.max(0, style.px('margin-right') ?? 0);
    if (neededPx <= columnPx + TOLERANCE_PX) return;
    const { contender, isBrowser } = style.source((style.px('min-width') ?? 0) >= width ? 'min-width' : 'width');
    const rule = isBrowser || contender === null || contender.selector === '' ? null : contender;
    found.push({
      index,
      what: `${element.name} ${rule === null ? (given === null ? 'natural' : 'attribute') : `${rule.sheet}|${rule.selector}`}`,
      neededPx: Math.round(neededPx),
      columnPx: Math.round(columnPx),
      rule,
    });
  });
  return found;
}
