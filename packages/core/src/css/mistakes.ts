import { find, type CssNode, type SyntaxParseError } from 'css-tree';
import { Lines } from '../html/positions';
import { MOST_SELECTORS } from './stylesheet';
import { DEEPEST_CSS, parseCss, piecesOf, withoutDepths } from './parse';

/** So often a text is read at the most, counted in letters. */
const MOST_READINGS = 6;
/** What it costs to begin reading anything, in letters. */
const COST_OF_READING = 1000;
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
  // What is nested too deep is told once, and not looked at.
  const { css: shallow, depths } = withoutDepths(css);
  const lines = new Lines(css);
  const mistakes: CssMistake[] = depths.map(({ start, end }) => ({
    start,
    end,
    line: lines.at(start).line,
    message: `Nested deeper than ${DEEPEST_CSS} levels. This part is left out.`,
    isLeftOut: true,
  }));
  let isMore = false;
  // Each level of nesting is read once more; what is nested many times over is not looked at for ever.
  let left = css.length * MOST_READINGS + 100_000;
  /** What is read here, and what of it is nested rules, which the parser takes for mistakes. */
  const read = (text: string, offset: number, context: 'stylesheet' | 'block'): CssNode => {
    left -= text.length + COST_OF_READING;
    const nested: { start: number; end: number }[] = [];
    const root = parseCss(text, {
      context,
      positions: true,
      offset,
      line: lines.at(offset).line,
      onParseError: (error: SyntaxParseError, fallback) => {
        const place = (fallback as CssNode | null)?.loc;
        const found = error as SyntaxParseError & { offset: number; rawMessage?: string };
        const start = place?.start.offset ?? found.offset;
        const end = Math.max(place?.end.offset ?? found.offset + 1, found.offset + 1);
        if (shallow.slice(start, end).includes('{') && end - start < text.length) nested.push({ start, end });
        // What is missing there is what was left out.
        else if (depths.some((depth) => start < depth.end && end > depth.start)) return;
        else if (mistakes.length >= MOST_MISTAKES) isMore = true;
        else
          mistakes.push({
            start,
            end,
            line: lines.at(start).line,
            message: `${found.rawMessage ?? found.message}. Browsers pass over this part.`,
          });
      },
    });
    if (left < 0) return root;
    for (const { start, end } of nested)
      for (const { from, to, areRules } of runsOf(shallow.slice(start, end))) {
        const part = shallow.slice(start + from, start + to);
        if (areRules) read(part, start + from, 'stylesheet');
        else if (part.trim() !== '') read(`{${part}}`, start + from - 1, 'block');
      }
    return root;
  };
  const root = read(shallow, 0, 'stylesheet');
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

/** Rules that follow each other, and declarations that do, in the contents of a block. */
function* runsOf(text: string): Iterable<{ from: number; to: number; areRules: boolean }> {
  let run = null as { from: number; to: number; areRules: boolean } | null;
  for (const { start, end, block } of piecesOf(text)) {
    const areRules = block !== -1;
    if (run?.areRules === areRules) run.to = end;
    else {
      if (run !== null) yield run;
      run = { from: start, to: end, areRules };
    }
  }
  if (run !== null) yield run;
}
