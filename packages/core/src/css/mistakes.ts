import type { CssNode, SyntaxParseError } from 'css-tree';
import { Lines } from '../html/positions';
import { DEEPEST_CSS, parseCss, withoutDepths } from './parse';

/** Something in a stylesheet that a browser would pass over. */
export interface CssMistake {
  /** UTF-16 offsets into the text. */
  start: number;
  end: number;
  /** One-based. */
  line: number;
  message: string;
}

/**
 * Finds what of a stylesheet cannot be read (CSS Syntax Level 3). A browser passes over such parts in silence.
 *
 * @param css the text of a stylesheet
 * @returns the mistakes in order; never throws
 */
export function cssMistakes(css: string): CssMistake[] {
  const { depths } = withoutDepths(css);
  const lines = new Lines(css);
  const mistakes: CssMistake[] = depths.map(({ start, end }) => ({
    start,
    end,
    line: lines.at(start).line,
    message: `Nested deeper than ${DEEPEST_CSS} levels. This part is left out.`,
  }));
  parseCss(css, {
    positions: true,
    onParseError: (error: SyntaxParseError, fallback) => {
      const place = (fallback as CssNode | null)?.loc;
      const { offset, line, rawMessage } = error as SyntaxParseError & { offset: number; line: number; rawMessage: string };
      mistakes.push({
        start: place?.start.offset ?? offset,
        end: Math.max(place?.end.offset ?? offset + 1, offset + 1),
        line,
        message: `${rawMessage}. Browsers pass over this part.`,
      });
    },
  });
  return mistakes.sort((a, b) => a.start - b.start);
}
