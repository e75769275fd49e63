import { VOID_ELEMENTS } from '../../html/elements';
import { escapeAttribute } from '../../html/serialize';
import { wholesOf } from '../../markup/parts';
import type { Vocabulary } from './vocabulary';

/** Numbers that look as if they came by chance, and are the same every time (mulberry32). */
export function numbersFrom(seed: number): (below: number) => number {
  let state = seed >>> 0;
  return (below) => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return Math.floor((((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296) * below);
  };
}

/** A piece of markup that can be left out or taken apart. */
export type Piece = string | { element: string; attributes: (readonly [string, string])[]; pieces: Piece[] };

/** Texts that rules of words and characters look at. */
const TEXTS = ['words ', 'café – ', '5&nbsp;km ', 'some&nbsp;words', ' ', '\n', '&nbsp;', '<!-- a note -->', 'A. B. ', ''];

/** Writes contents in which everything stands beside and within everything that two profiles name. */
export class Contents {
  constructor(
    private readonly vocabulary: Vocabulary,
    private readonly below: (below: number) => number,
    /** Elements that are to be there more often than others. */
    private readonly favoured: readonly string[] = [],
  ) {}

  write(): Piece[] {
    return this.pieces(1 + this.below(4), 0);
  }

  private pieces(count: number, depth: number): Piece[] {
    return Array.from({ length: count }, () => (depth > 3 || this.below(3) === 0 ? this.of(TEXTS) : this.element(depth)));
  }

  private element(depth: number): Piece {
    const element = this.favoured.length > 0 && this.below(2) === 0 ? this.of(this.favoured) : this.of(this.vocabulary.elements);
    const all = this.vocabulary.attributesOf(element);
    const attributes = Array.from({ length: all.length === 0 ? 0 : this.below(4) }, () => this.attribute(element, this.of(all)));
    const made: Piece = { element, attributes, pieces: this.pieces(this.below(4), depth + 1) };
    // Parts stand in their wholes as a rule, and now and then they do not.
    const [whole] = wholesOf(element) ?? [];
    return whole !== undefined && this.below(8) > 0 ? { element: whole, attributes: [], pieces: [made] } : made;
  }

  private attribute(element: string, name: string): [string, string] {
    return [name, this.of(this.vocabulary.valuesOf(element, name))];
  }

  private of<T>(all: readonly T[]): T {
    return all[this.below(all.length)]!;
  }
}

export function written(pieces: readonly Piece[]): string {
  return pieces
    .map((piece) => {
      if (typeof piece === 'string') return piece;
      const { element, attributes, pieces: inner } = piece;
      const tag = `<${element}${attributes.map(([name, value]) => ` ${name}="${escapeAttribute(value)}"`).join('')}>`;
      return VOID_ELEMENTS.has(element) ? tag : `${tag}${written(inner)}</${element}>`;
    })
    .join('');
}

/** After so many tries what is small enough must do. */
const MOST_TRIES = 400;

/**
 * The smallest part of a content that still shows something.
 *
 * @param isShown whether markup shows it; the content does
 */
export function smallest(pieces: readonly Piece[], isShown: (html: string) => boolean): Piece[] {
  let best = [...pieces];
  let left = MOST_TRIES;
  for (let isSmaller = true; isSmaller;) {
    isSmaller = false;
    for (const smaller of smallerThan(best))
      if (--left < 0) return best;
      else if (isShown(written(smaller))) {
        best = smaller;
        isSmaller = true;
        break;
      }
  }
  return best;
}

/** Contents with one thing less. */
function* smallerThan(pieces: readonly Piece[]): Iterable<Piece[]> {
  for (let at = 0; at < pieces.length; at++) {
    const piece = pieces[at]!;
    yield pieces.toSpliced(at, 1);
    if (typeof piece === 'string') continue;
    yield pieces.toSpliced(at, 1, ...piece.pieces);
    for (let attribute = 0; attribute < piece.attributes.length; attribute++)
      yield pieces.with(at, { ...piece, attributes: piece.attributes.toSpliced(attribute, 1) });
    for (const inner of smallerThan(piece.pieces)) yield pieces.with(at, { ...piece, pieces: inner });
  }
}
