import type { ElementNode } from '../../html/node';
import type { Marker } from '../markers';

/** One thing that only looks like a list item. */
export interface Item {
  element: ElementNode;
  /** How deep it stands; only more and less count. */
  level: number;
  /** Which list it belongs to, as far as the source tells; items of one list that stand apart go on counting. */
  list: string;
  marker: Marker;
  /** Letters of the marker, which the list draws itself from now on. */
  letters: number;
  /** What says that it is one. */
  restsOn: string;
  /** The marker, once what comes before it in its list is known: letters and Roman digits look alike, and some programs write no number at all. */
  markerAfter(before: Marker | null): Marker;
}
