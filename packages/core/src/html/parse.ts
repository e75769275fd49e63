import { FragmentNode, append } from './node';
import { Adapter } from './adapter';
import type { Ignored } from './ignored';
import { closeAtEnd, PlacingParser, StandardReading } from './placing-parser';
import { isReadAsItStands, WellFormedReader } from './well-formed';

export type { Ignored } from './ignored';

export interface ParsedFragment {
  /** The text that was parsed, with a mark in place of each half of a character; every offset counts from its begin. */
  input: string;
  root: FragmentNode;
  ignored: Ignored[];
}

/** How many characters were read in each of the two ways, since the program began: a bench asks for it. */
export const readings = { quick: 0, standard: 0 };

/** One half of a pair of surrogates without the other, such as of a cut emoji: no text in UTF-8 can hold it. */
const HALVES = /[\ud800-\udfff]/gu;
/** What stands for a character that cannot be told (Unicode Standard, section 23.8 "Specials"). */
const UNKNOWN_CHARACTER = '\ufffd';

/** Text as it can be stored anywhere (WebIDL, section 3.3 "USVString"): each half is marked, so no offset moves. */
function asText(given: string): { input: string; halves: Ignored[] } {
  if (given.isWellFormed()) return { input: given, halves: [] };
  const halves: Ignored[] = [];
  const input = given.replace(HALVES, (_half, at: number) => {
    halves.push({ kind: 'half-character', name: '', start: at, end: at + 1 });
    return UNKNOWN_CHARACTER;
  });
  return { input, halves };
}

/**
 * Parses markup as the contents of a `div` (HTML, section 13.4 "Parsing HTML fragments"), with the place of every
 * element, comment and left-out tag in the input.
 *
 * @param given markup of any kind and length; a byte order mark at its begin is not text
 * @returns the tree, and what the standard's algorithm left out of it; never throws
 */
export function parseFragment(given: string): ParsedFragment {
  const { input, halves } = asText(given);
  if (!isReadAsItStands(input)) {
    const { root, ignored } = parseByStandard(input);
    return { input, root, ignored: [...halves, ...ignored] };
  }
  const root = new FragmentNode();
  const ignored = [...halves];
  const quick = new WellFormedReader(input, root, ignored);
  let at = 0;
  let reopened = 0;
  for (let least = SHORTEST_PART; ;) {
    const read = quick.read(at);
    readings.quick += read - at;
    if (read === input.length) return { input, root, ignored };
    // Where the quick reader does not come far, it is asked less often.
    least = read - at < least ? Math.min(least * 2, LONGEST_PART) : SHORTEST_PART;
    const standard = new StandardReading(input, read, reopened);
    for (;;) {
      at = endOfPart(input, Math.max(read, at) + least);
      standard.readTo(at);
      if (at === input.length || standard.isDone()) break;
    }
    readings.standard += at - read;
    for (const node of standard.nodes) append(root, node);
    for (const one of standard.ignored) ignored.push(one);
    if (at === input.length) return { input, root, ignored };
    ({ reopened } = standard);
  }
}

/** So much is read by the standard's algorithm before the quick reader is asked again. */
const SHORTEST_PART = 512;
const LONGEST_PART = 1 << 20;

const BETWEEN_TAGS = />\n?(?=<)/g;

/** Where a part may end that is at least so long: before a tag that follows another. */
function endOfPart(input: string, from: number): number {
  if (from >= input.length) return input.length;
  BETWEEN_TAGS.lastIndex = from;
  return BETWEEN_TAGS.test(input) ? BETWEEN_TAGS.lastIndex : input.length;
}

/**
 * The same by the standard's algorithm alone.
 *
 * @param input markup without halves of characters
 */
export function parseByStandard(input: string): ParsedFragment {
  readings.standard += input.length;
  const standard = new StandardReading(input, 0);
  standard.readTo(input.length);
  const root = new FragmentNode();
  for (const node of standard.nodes) append(root, node);
  return { input, root, ignored: [...standard.ignored] };
}

/**
 * Parses a whole page (HTML, section 13.2). What stands there without `html`, `head` and `body` gets them, as in a browser.
 *
 * @param given markup of any kind and length
 * @returns the tree from the document on; never throws
 */
export function parseDocument(given: string): FragmentNode {
  const { input } = asText(given);
  const adapter = new Adapter();
  const parser = new PlacingParser({ treeAdapter: adapter, scriptingEnabled: true });
  parser.placeTokens();
  parser.begin(input);
  parser.tokenizer.write(input, true);
  closeAtEnd(parser, input.length);
  return parser.document;
}
