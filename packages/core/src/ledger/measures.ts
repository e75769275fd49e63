import type { FragmentNode } from '../html/node';
import { utf8Length } from '../html/bytes';
import { visibleLetters, visibleText } from '../html/text';
import type { LedgerEntry } from './entry';

/** Figures of one run, to compare what came in with what is stored. */
export interface Measures {
  /** UTF-8 bytes. */
  bytesBefore: number;
  bytesAfter: number;
  /** Letters a reader could see (UTF-16 units that are not white space). */
  lettersAfter: number;
  /** Letters that were there before: those still there and those the ledger counts as lost. */
  lettersBefore: number;
  /** Of the letters that are gone, those that a reader misses; the others were markers and the like that something else shows now. */
  lettersMissed: number;
  /** Elements of the result. */
  elements: number;
  /** Levels of the deepest element of the result; 0 for plain text. */
  deepest: number;
  /** Elements of the result with a `style` attribute. */
  inlineStyles: number;
  /** Bytes of markup for each byte of visible text, in the input and in the result; 0 where there is no text. */
  markupPerTextBefore: number;
  markupPerTextAfter: number;
  /** Ledger entries in all, and those that a reader misses. */
  changes: number;
  losses: number;
  /** How many different rules made them. */
  rules: number;
}

/** Works out the measures of a run from its input, its result and its ledger. */
export function measure(input: string, html: string, root: FragmentNode, ledger: readonly LedgerEntry[]): Measures {
  const lettersAfter = visibleLetters(root);
  const textBytes = utf8Length(visibleText(root).replace(/[\s\u00a0]+/g, ''));
  const lost = ledger.reduce((sum, entry) => sum + entry.textLost, 0);
  return {
    bytesBefore: utf8Length(input),
    bytesAfter: utf8Length(html),
    lettersAfter,
    lettersBefore: lettersAfter + lost,
    lettersMissed: ledger.reduce((sum, { severity, textLost }) => sum + (severity === 'loss' ? textLost : 0), 0),
    ...sizeOf(root),
    markupPerTextBefore: markupPerText(input, lettersAfter === 0 && lost === 0 ? 0 : textBytes + lost),
    markupPerTextAfter: markupPerText(html, textBytes),
    changes: ledger.length,
    losses: ledger.filter(({ severity }) => severity === 'loss').length,
    rules: new Set(
      ledger.map(({ layer, rule, subject, reason }) => `${layer} ${rule} ${rule === '/markup/unlisted' ? subject.element : ''} ${reason}`),
    ).size,
  };
}

/** Bytes that are not text for each byte of text, white space left out of both. */
function markupPerText(html: string, textBytes: number): number {
  if (textBytes === 0) return 0;
  return Math.max(0, (utf8Length(html.replace(/\s+/g, '')) - textBytes) / textBytes);
}

function sizeOf(root: FragmentNode): { elements: number; deepest: number; inlineStyles: number } {
  let elements = 0;
  let inlineStyles = 0;
  let deepest = 0;
  const stack = root.children.map((node) => ({ node, depth: 1 }));
  for (let open = stack.pop(); open !== undefined; open = stack.pop()) {
    if (open.node.type !== 'element') continue;
    elements++;
    if (open.node.attribute('style') !== undefined) inlineStyles++;
    deepest = Math.max(deepest, open.depth);
    for (const node of open.node.children) stack.push({ node, depth: open.depth + 1 });
  }
  return { elements, deepest, inlineStyles };
}
