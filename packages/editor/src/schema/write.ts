import { escapeAttribute, escapeText, VOID_ELEMENTS } from '@typikon/core/editing';
import { Fragment, type Mark, type Node } from 'prosemirror-model';
import type { HtmlAttributes } from './dom';
import { OPAQUE_BLOCK, OPAQUE_INLINE, PLACE_TO_TYPE } from './compile';
import type { Level, Source } from './source';

/**
 * Writes the editor's document as markup. What was not edited since it was read is written as it stood there, with the
 * white space around it; the rest a block to a line.
 *
 * @param source what the document was read from; without it everything is written anew
 */
export function writeDocument(doc: Node, source: Source | null = null): string {
  // What was typed and taken back leaves another document that is the same.
  if (source?.document != null && isSame(doc, source.document)) return source.given;
  return new Writer(source).level(doc, source?.top ?? null, '\n');
}

class Writer {
  constructor(private readonly source: Source | null) {}

  level(parent: Node, level: Level | null, separator: string): string {
    const { source } = this;
    const known = source === null || level === null ? null : source.placesIn(level);
    let between: string | null = source === null || level === null ? separator : null;
    let out = '';
    /** The place in the old order that was written last. */
    let last = -1;
    let before: Node | null = null;
    let isFirst = true;
    parent.forEach((node) => {
      // What was taken back to how it stood, stands there to the letter.
      const expected = level?.pieces[last + 1];
      const place = known?.get(node) ?? (expected !== undefined && isSame(expected.node, node) ? last + 1 : undefined);
      const isOld = place !== undefined && level !== null && source !== null;
      // A place to type that nothing was typed in is no markup.
      if (!isOld && node.content.size === 0 && (node.type.name === 'line' || node.attrs['attributes'] === PLACE_TO_TYPE)) return;
      const next = isOld ? place : last + 1;
      const isInOrder = level !== null && source !== null && next === last + 1 && next <= level.pieces.length;
      if (isFirst) out += isInOrder ? source.gap(level, 0) : '';
      else if (isInOrder && next < level.pieces.length) out += source.gap(level, next);
      else out += between ??= this.usualGap(level!, separator);
      // Lines have no tags: two in a row would become one.
      if (before?.type.name === 'line' && node.type.name === 'line' && out.trimEnd() === out) out += '\n';
      if (isOld) out += source.text(level.pieces[place]!);
      else out += this.node(node);
      last = next;
      before = node;
      isFirst = false;
    });
    if (source !== null && level !== null) out += source.gap(level, level.pieces.length);
    return out;
  }

  private usualGap(level: Level, otherwise: string): string {
    const counts = new Map<string, number>();
    for (let i = 1; i < level.pieces.length; i++) {
      const gap = this.source!.gap(level, i);
      if (gap.trim() === '') counts.set(gap, (counts.get(gap) ?? 0) + 1);
    }
    return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? otherwise;
  }

  private node(node: Node): string {
    const { name } = node.type;
    if (name === OPAQUE_BLOCK) return node.attrs['markup'] as string;
    if (name === 'line') return wordsAsMarkup(node);
    const element = node.type.spec['element'] as string;
    const attributes = node.attrs['attributes'] as HtmlAttributes;
    const level = this.source?.levels.get(attributes);
    const tag = level?.startTag ?? startTag(element, attributes);
    if (VOID_ELEMENTS.has(element)) return tag;
    const content = node.isTextblock ? wordsAsMarkup(node) : this.level(node, level ?? null, '');
    const isNewlineLost = element === 'pre' && content.startsWith('\n');
    return `${tag}${isNewlineLost ? '\n' : ''}${content}${level === undefined || level.endTag === '' ? `</${element}>` : level.endTag}`;
  }
}

/**
 * Whether two nodes hold the same. Marks of one type may stand in another order, as they do once one of them was taken away
 * and given back.
 */
function isSame(one: Node, other: Node): boolean {
  if (one === other) return true;
  if (!one.hasMarkup(other.type, other.attrs, other.marks)) return false;
  if (one.isTextblock) return inOneOrder(one.content).eq(inOneOrder(other.content));
  if (one.childCount !== other.childCount) return false;
  for (let i = 0; i < one.childCount; i++) if (!isSame(one.child(i), other.child(i))) return false;
  return true;
}

/** Words with the marks of one type in an order that does not depend on how they came there. */
function inOneOrder(words: Fragment): Fragment {
  let areMany = false;
  const nodes = words.content.map((node) => {
    const { marks } = node;
    if (!marks.some(({ type }, index) => marks[index - 1]?.type === type)) return node;
    areMany = true;
    const key = ({ type, attrs }: Mark): string => `${marks.findIndex((mark) => mark.type === type)} ${JSON.stringify(attrs)}`;
    return node.mark([...marks].sort((a, b) => (key(a) < key(b) ? -1 : 1)));
  });
  return areMany ? Fragment.from(nodes) : words;
}

function startTag(element: string, attributes: HtmlAttributes): string {
  let tag = `<${element}`;
  for (const [name, value] of Object.entries(attributes)) tag += ` ${name}="${escapeAttribute(value)}"`;
  return `${tag}>`;
}

/** The words of a block as markup, with white space as a browser shows it. */
export function wordsAsMarkup(block: Node): string {
  const isPreformatted = block.type.spec.code === true;
  const nodes: { node: Node; text: string }[] = [];
  let isAfterSpace = !isPreformatted;
  block.forEach((node) => {
    let text = node.text ?? '';
    if (node.isText && !isPreformatted) {
      text = text.replace(/[ \t\n\f\r]+/g, ' ');
      if (isAfterSpace && text.startsWith(' ')) text = text.slice(1);
      if (text === '') return;
      isAfterSpace = text.endsWith(' ');
    } else isAfterSpace = node.type.spec['element'] === 'br';
    nodes.push({ node, text });
  });
  const end = nodes[nodes.length - 1];
  if (end?.node.isText === true && !isPreformatted) {
    end.text = end.text.replace(/ $/, '');
    if (end.text === '') nodes.pop();
  }
  let out = '';
  let open: Mark[] = [];
  for (const { node, text } of nodes) {
    const wanted = inOrder(node.marks, open);
    let shared = 0;
    while (shared < open.length && shared < wanted.length && open[shared]!.eq(wanted[shared]!)) shared++;
    for (const mark of open.slice(shared).reverse()) out += `</${mark.type.spec['element']}>`;
    for (const mark of wanted.slice(shared))
      out += startTag(mark.type.spec['element'] as string, mark.attrs['attributes'] as HtmlAttributes);
    open = wanted;
    if (node.isText) out += escapeText(text);
    else if (node.type.name === OPAQUE_INLINE) out += node.attrs['markup'] as string;
    else out += startTag(node.type.spec['element'] as string, node.attrs['attributes'] as HtmlAttributes) + closing(node);
  }
  for (const mark of open.reverse()) out += `</${mark.type.spec['element']}>`;
  return out;
}

function closing(node: Node): string {
  const element = node.type.spec['element'] as string;
  return VOID_ELEMENTS.has(element) ? '' : `</${element}>`;
}

/** Marks that are open already stay outside, so that no tag is closed only to be opened again. */
function inOrder(marks: readonly Mark[], open: readonly Mark[]): Mark[] {
  const links = marks.filter(({ type }) => type.spec['element'] === 'a');
  const rest = marks.filter((mark) => !links.includes(mark));
  const kept = open.filter((mark) => rest.some((other) => other.eq(mark)));
  return [...links, ...kept, ...rest.filter((mark) => !kept.some((other) => other.eq(mark)))];
}
