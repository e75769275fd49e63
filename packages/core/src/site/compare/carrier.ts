import { isBlock, VOID_ELEMENTS } from '../../html/elements';
import { escapeAttribute } from '../../html/serialize';
import { wholesOf } from '../../markup/parts';

/** Markup in which one thing is looked at, and where that stands. */
export interface Probe {
  html: string;
  /** UTF-16 offsets of the tag that is looked at. */
  start: number;
  end: number;
}

/** Elements whose content is not read as words. */
const WITHOUT_WORDS: ReadonlySet<string> = new Set(['iframe', 'video', 'audio', 'canvas', 'object', 'picture', 'map', 'progress', 'meter']);
/** What a part's whole needs beside it, so that a browser reads the whole as it is meant. */
const WORDS_WITHIN: Readonly<Record<string, string | undefined>> = { ruby: 'sign', summary: 'Summary' };

/**
 * Puts an element where it may stand, with words in it and around it.
 *
 * @param attributes of the element, in order
 * @param within the elements around it, from the outside in, instead of those that it needs
 * @param content what stands in it, instead of words
 */
export function carry(
  element: string,
  attributes: readonly (readonly [name: string, value: string])[] = [],
  { within, content }: { within?: readonly string[]; content?: string } = {},
): Probe {
  const around = within ?? wholesAround(element);
  const isInline = !isBlock(element) && around.length === 0;
  const outside = isInline && within === undefined ? ['p'] : around;
  const open = outside.map((name) => `<${name}>${WORDS_WITHIN[name] ?? ''}`).join('');
  const lead = isInline ? 'Some words and ' : '';
  const tag = `<${element}${attributes.map(([name, value]) => ` ${name}="${escapeAttribute(value)}"`).join('')}>`;
  const start = open.length + lead.length;
  const rest = VOID_ELEMENTS.has(element)
    ? ''
    : `${content ?? (WITHOUT_WORDS.has(element) ? '' : needsBlock(element) ? '<p>words</p>' : 'words')}</${element}>`;
  const close = [...outside].reverse().map((name) => `</${name}>`);
  return { html: `${open}${lead}${tag}${rest}${isInline ? ' behind it' : ''}${close.join('')}`, start, end: start + tag.length };
}

/** The wholes of a part, from the outside in. */
function wholesAround(element: string): string[] {
  const around: string[] = [];
  for (let at = element; ;) {
    const [whole] = wholesOf(at) ?? [];
    if (whole === undefined || around.includes(whole)) return around;
    around.unshift(whole);
    at = whole;
  }
}

const needsBlock = (element: string): boolean => element === 'blockquote' || element === 'figure';
