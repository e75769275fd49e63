import type { Node } from 'prosemirror-model';
import { attributesOf, elementOf } from '../commands/attributes';

export interface OutlineEntry {
  level: number;
  text: string;
  /** Position before the heading. */
  at: number;
  id: string;
  /** What is wrong with its place among the others, in a sentence; empty where nothing is. */
  fault: string;
}

/**
 * The headings of a document, with gaps between levels and doubled top levels named (WCAG 2.2, technique G141).
 *
 * @param top the level at which content begins
 */
export function outlineOf(doc: Node, top = 2): OutlineEntry[] {
  const entries: OutlineEntry[] = [];
  let last = top - 1;
  let ones = 0;
  doc.descendants((node, at) => {
    const match = /^h([1-6])$/.exec(elementOf(node));
    if (match === null) return !node.isTextblock;
    const level = Number(match[1]);
    if (level === 1) ones++;
    const text = node.textContent.trim();
    const fault =
      text === ''
        ? 'It is empty: readers with a screen reader come to a heading without a name.'
        : level === 1 && ones > 1
          ? 'A second heading of level 1.'
          : level > last + 1
            ? last < top
              ? `The first heading should be of level ${top}.`
              : `Level ${last} is followed by level ${level}: ${level - last === 2 ? `level ${last + 1} is` : 'levels between are'} left out.`
            : '';
    entries.push({ level, text, at, id: attributesOf(node)['id'] ?? '', fault });
    last = level;
    return false;
  });
  return entries;
}

/** Every id in a document, with where it is. */
export function idsIn(doc: Node): Map<string, number> {
  const ids = new Map<string, number>();
  const note = (id: string | undefined, at: number): void => {
    if (id !== undefined && id !== '' && !ids.has(id)) ids.set(id, at);
  };
  doc.descendants((node, at) => {
    note(attributesOf(node)['id'], at);
    for (const mark of node.marks) note((mark.attrs['attributes'] as Record<string, string> | undefined)?.['id'], at);
    const markup = node.attrs['markup'] as string | undefined;
    if (markup !== undefined) for (const [, id] of markup.matchAll(/\sid="([^"]*)"/g)) note(id, at);
  });
  return ids;
}

/** An id made of words, that no other element has. */
export function idFor(words: string, taken: ReadonlyMap<string, unknown>, prefix: string): string {
  const base =
    prefix +
    (words
      .normalize('NFKD')
      .replace(/\p{M}/gu, '')
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 40)
      .replace(/-+$/, '') || 'place');
  let id = base;
  for (let n = 2; taken.has(id); n++) id = `${base}-${n}`;
  return id;
}
