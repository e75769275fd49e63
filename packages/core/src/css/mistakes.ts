import { find, type CssNode, type SyntaxParseError } from 'css-tree';
import { Lines } from '../html/positions';
import { MOST_SELECTORS } from './stylesheet';
import { DEEPEST_CSS, parseCss, withoutDepths } from './parse';

/** No more mistakes are listed than anybody reads. */
const MOST_MISTAKES = 1000;

/** Something in a stylesheet that a browser would pass over. */
export interface CssMistake {
  /** UTF-16 offsets into the text. */
  start: number;
  end: number;
  /** One-based. */
  line: number;
  message: string;
  /** Whether it is too much to be read here, rather than something that browsers pass over. */
  isLeftOut?: true;
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
    isLeftOut: true,
  }));
  let isMore = false;
  const root = parseCss(css, {
    positions: true,
    onParseError: (error: SyntaxParseError, fallback) => {
      if (mistakes.length >= MOST_MISTAKES) {
        isMore = true;
        return;
      }
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
  const beyond = firstBeyond(root);
  if (beyond?.loc != null)
    mistakes.push({
      start: beyond.loc.start.offset,
      end: beyond.loc.end.offset,
      line: beyond.loc.start.line,
      message: `More than ${MOST_SELECTORS.toLocaleString('en')} selectors. This one and all after it are left out.`,
      isLeftOut: true,
    });
  mistakes.sort((a, b) => a.start - b.start);
  const last = mistakes.at(-1);
  return isMore && last !== undefined ? [...mistakes, { ...last, message: 'There are more mistakes than are listed here.' }] : mistakes;
}

/** The first selector of a stylesheet that is one too many. */
function firstBeyond(root: CssNode): CssNode | null {
  let selectors = 0;
  return find(root, ({ type }) => type === 'Selector' && ++selectors > MOST_SELECTORS);
}
