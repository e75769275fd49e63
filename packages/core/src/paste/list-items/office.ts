import { isBlock } from '../../html/elements';
import type { ChildNode, ElementNode, ParentNode } from '../../html/node';
import { countLetters, hasLetters, visibleText } from '../../html/text';
import { steps } from '../../html/steps';
import { pointsOf, styleOf } from '../declarations';
import { readMarker, type Marker } from '../markers';
import type { Item } from './item';

/** What the style sheet of a paste says of its lists: the numbering of each level. */
export type ListLook = ReadonlyMap<string, string>;

/** Reads `@list l0:level1 { mso-level-number-format: … }` of a style sheet: `decimal`, `bullet`, `alpha-lower`, `roman-upper`. */
export function lookOfLists(css: string): ListLook {
  const look = new Map<string, string>();
  for (const [, list, level, body] of css.matchAll(/@list\s+l(\d{1,9}):level(\d{1,2})\b[^{]{0,200}\{([^}]*)\}/gi)) {
    const key = `${list} ${level}`;
    if (!look.has(key)) look.set(key, /mso-level-number-format:\s*([\w-]+)/i.exec(body!)?.[1]?.toLowerCase() ?? 'decimal');
  }
  return look;
}

/**
 * A paragraph with the list properties of an office suite (`mso-list: l0 level2 lfo1`), or with a bullet that one marks as such
 * (`mso-special-format: bullet`). Its marker is taken out of its text.
 */
export function officeItem(paragraph: ElementNode, look: ListLook): Item | null {
  // A numbered heading stays a heading.
  if (paragraph.name !== 'p' && paragraph.name !== 'div') return null;
  const match = /l(\d+)\s+level(\d+)(?:\s+lfo(\d+))?/.exec(styleOf(paragraph, 'mso-list'));
  if (match === null) return slideItem(paragraph);
  const [, list, level] = match;
  const markers = markerNodes(paragraph);
  const numbering = look.get(`${list} ${level}`) ?? null;
  const text = markers.map((node) => visibleText(node)).join('');
  cutMarker(paragraph, new Set(markers));
  const isRoman = numbering === null ? null : /roman/.test(numbering) ? true : /alpha/.test(numbering) ? false : null;
  const markerAfter = (before: Marker | null): Marker => readMarker(text, isRoman, before) ?? followingMarker(numbering, text, before);
  return {
    element: paragraph,
    level: Number(level),
    list: `l${list}`,
    marker: markerAfter(null),
    letters: countLetters(text),
    restsOn: 'mso-list',
    markerAfter,
  };
}

/** A line of a slide: its bullet is a wrapper of its own, its depth an indentation. */
function slideItem(paragraph: ElementNode): Item | null {
  if (paragraph.name === 'div' && !paragraph.children.some((child) => child.type === 'element' && child.name === 'span')) return null;
  const bullet =
    paragraph.children.length > 200
      ? undefined
      : firstIn(paragraph, (element) => /bullet|numbullet/.test(styleOf(element, 'mso-special-format')));
  if (bullet === undefined) return null;
  const text = visibleText(bullet);
  cutMarker(paragraph, new Set([bullet]));
  const format = styleOf(bullet, 'mso-special-format');
  const level = Math.round(pointsOf(styleOf(paragraph, 'margin-left')));
  const markerAfter = (before: Marker | null): Marker =>
    readMarker(text, null, before) ?? followingMarker(format.startsWith('numbullet') ? 'decimal' : 'bullet', text, before);
  return {
    element: paragraph,
    level,
    list: 'slide',
    marker: markerAfter(null),
    letters: countLetters(text),
    restsOn: 'mso-special-format',
    markerAfter,
  };
}

/** What a program wrote before the words as their marker: it says so by a property, by comments around it, or it stands first in a wrapper. */
function markerNodes(paragraph: ElementNode): ChildNode[] {
  const ignored = firstIn(paragraph, (element) => styleOf(element, 'mso-list') === 'ignore');
  if (ignored !== undefined) return [ignored];
  const { children } = paragraph;
  const begin = children.findIndex((child) => child.type === 'comment' && /^\[if !supportlists\]/i.test(child.data.trim()));
  const end = children.findIndex((child, i) => i > begin && child.type === 'comment' && /^\[endif\]/i.test(child.data.trim()));
  if (begin !== -1 && end !== -1) return children.slice(begin + 1, end);
  const first = children.find((child) => child.type === 'element' || (child.type === 'text' && hasLetters(child.value)));
  return first?.type === 'element' && first.name === 'span' && readMarker(visibleText(first)) !== null ? [first] : [];
}

/** The marker of an item that has none that can be read: one more than the one before it. */
function followingMarker(numbering: string | null, text: string, before: Marker | null): Marker {
  const number = /(\d{1,4})\D*$/.exec(text)?.[1];
  if (numbering === 'bullet' || (numbering === null && number === undefined)) return { ordered: false, type: '', value: 0 };
  const kind = numbering ?? 'decimal';
  const type = kind.includes('roman')
    ? kind.includes('upper')
      ? 'I'
      : 'i'
    : kind.includes('alpha')
      ? kind.includes('upper')
        ? 'A'
        : 'a'
      : '1';
  const value = number !== undefined ? Number(number) : before?.ordered === true ? before.value + 1 : 1;
  return { ordered: true, type, value, isGuessed: number === undefined };
}

/** Takes the marker that a program wrote into the text out of it, and the comments around it. */
function cutMarker(paragraph: ElementNode, markers: ReadonlySet<ChildNode>): void {
  const parents: ParentNode[] = [paragraph];
  for (let parent = parents.pop(); parent !== undefined; parent = parents.pop()) {
    steps.taken += parent.children.length;
    parent.children = parent.children.filter(
      (child) => !markers.has(child) && !(child.type === 'comment' && /^\[(if|endif)/i.test(child.data.trim())),
    );
    // Blocks in it have markers of their own.
    for (const child of parent.children) if (child.type === 'element' && !isBlock(child.name)) parents.push(child);
  }
}

/** The first element in a paragraph that a test holds for, blocks in it left out; a marker stands at the begin. */
function firstIn(paragraph: ElementNode, test: (element: ElementNode) => boolean): ElementNode | undefined {
  const stack: ElementNode[] = [paragraph];
  for (let element = stack.pop(), seen = 0; element !== undefined && seen < MOST_LOOKED_AT; element = stack.pop(), seen++) {
    steps.taken++;
    if (element !== paragraph && test(element)) return element;
    for (let i = Math.min(element.children.length, MOST_LOOKED_AT) - 1; i >= 0; i--) {
      const child = element.children[i]!;
      if (child.type === 'element' && !isBlock(child.name)) stack.push(child);
    }
  }
  return undefined;
}

const MOST_LOOKED_AT = 200;
