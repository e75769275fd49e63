import type { Node } from 'prosemirror-model';
import type { HtmlAttributes } from './dom';

/** Where something stands in the markup that was opened: UTF-16 offsets. */
interface Place {
  start: number;
  end: number;
}

/** The contents of an element, or of the whole, as they stood in the markup. */
export interface Level extends Place {
  pieces: readonly (Place & { node: Node })[];
}

/**
 * The markup that a document was read from. Nodes of a document never change, so a node that is still the same object
 * was not edited, and is written as it stood, to the letter.
 */
export class Source {
  /** The contents of each element, by the attributes of its node, which stay with it while its contents are edited. */
  readonly levels = new WeakMap<HtmlAttributes, Level & { startTag: string; endTag: string }>();
  top: Level = { start: 0, end: 0, pieces: [] };
  document: Node | null = null;
  private readonly places = new WeakMap<Level, ReadonlyMap<Node, number>>();

  /**
   * @param html what the places count in
   * @param given the markup as it was opened, which differs where that cannot be read part by part
   */
  constructor(
    readonly html: string,
    readonly given: string = html,
  ) {}

  /** Where in a level each of its nodes stood. */
  placesIn(level: Level): ReadonlyMap<Node, number> {
    let places = this.places.get(level);
    if (places === undefined) this.places.set(level, (places = new Map(level.pieces.map(({ node }, index) => [node, index]))));
    return places;
  }

  text({ start, end }: Place): string {
    return this.html.slice(start, end);
  }

  /** What stands before a piece of a level, or behind the last one. */
  gap(level: Level, index: number): string {
    const before = index === 0 ? level.start : level.pieces[index - 1]!.end;
    const after = index === level.pieces.length ? level.end : level.pieces[index]!.start;
    return this.html.slice(before, after);
  }
}
