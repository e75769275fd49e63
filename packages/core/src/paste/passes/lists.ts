import { append, ElementNode, HTML_NAMESPACE, type TextNode, type ChildNode, type ParentNode } from '../../html/node';
import { countLetters, hasLetters, visibleText } from '../../html/text';
import { elementsOf, transform } from '../../html/transform';
import { styleOf } from '../declarations';
import { readMarker, typedMarker, type Marker } from '../markers';
import type { Pass, Reporter } from '../pass';

/** One paragraph that only looks like a list item. */
interface Item {
  paragraph: ElementNode;
  /** From 0. */
  level: number;
  /** Which list it belongs to, as far as the source tells; items of one list that stand apart go on counting. */
  list: string;
  marker: Marker;
  /** Letters of the marker, which the list draws itself from now on. */
  letters: number;
}

/** Makes true lists of paragraphs that only look like list items: by office list properties, or by what is typed before them. */
export const lists: Pass<'lists'> = {
  id: 'lists',
  label: 'Rebuild lists',
  effect: 'Paragraphs that only look like list items become lists.',
  run({ root, settings, styles, report }) {
    mendNesting(root, report);
    const parents: ParentNode[] = [root, ...elementsOf(root).filter(({ name }) => !/^(p|ul|ol|li|table|tr|h[1-6])$/.test(name))];
    for (const parent of parents) rebuild(parent, styles, settings.typed, report);
  },
};

function rebuild(parent: ParentNode, styles: string, withTyped: boolean, report: Reporter): void {
  const items = new Map<ChildNode, Item>();
  for (const child of parent.children) {
    const item = child.type === 'element' ? officeItem(child, styles) : null;
    if (item !== null) items.set(child, item);
  }
  if (withTyped) for (const [child, item] of typedItems(parent.children.filter((child) => !items.has(child)))) items.set(child, item);
  if (items.size === 0) return;
  const children: ChildNode[] = [];
  const open: { list: ElementNode; item: Item }[] = [];
  let waiting: ChildNode[] = [];
  for (const child of parent.children) {
    const item = items.get(child);
    if (item === undefined) {
      // White space between items does not end a list.
      if (child.type === 'text' && !hasLetters(child.value) && open.length > 0) waiting.push(child);
      else {
        children.push(...waiting, child);
        waiting = [];
        open.length = 0;
      }
      continue;
    }
    waiting = [];
    place(item, open, children, parent, report);
  }
  children.push(...waiting);
  parent.children = children;
  for (const child of children) child.parent = parent;
}

/** Puts an item into the list it belongs to, opening and closing lists as its level says. */
function place(item: Item, open: { list: ElementNode; item: Item }[], children: ChildNode[], parent: ParentNode, report: Reporter): void {
  while (open.length > item.level + 1) open.pop();
  const last = open[item.level];
  if (last !== undefined && !goesOn(last.item, item)) open.length = item.level;
  while (open.length <= item.level) {
    const isInner = open.length > 0;
    const holder = isInner ? lastItemOf(open[open.length - 1]!.list) : null;
    const list = new ElementNode(item.marker.ordered ? 'ol' : 'ul', HTML_NAMESPACE, []);
    const isOwn = open.length === item.level;
    if (isOwn && item.marker.ordered) {
      if (item.marker.type !== '1') list.attributes.push({ name: 'type', value: item.marker.type });
      if (item.marker.value > 1) list.attributes.push({ name: 'start', value: String(item.marker.value) });
    }
    list.start = item.paragraph.start;
    list.startTagEnd = item.paragraph.startTagEnd;
    list.endTagStart = list.end = item.paragraph.end;
    if (holder === null) {
      children.push(list);
      list.parent = parent;
    } else append(holder, list);
    open.push({ list, item });
  }
  const { list } = open[item.level]!;
  open[item.level] = { list, item };
  const li = new ElementNode('li', HTML_NAMESPACE, []);
  li.start = item.paragraph.start;
  li.startTagEnd = item.paragraph.startTagEnd;
  li.endTagStart = item.paragraph.endTagStart;
  li.end = item.paragraph.end;
  for (const child of item.paragraph.children) append(li, child);
  append(list, li);
  report.renamed(li, item.paragraph.name, item.letters);
}

function goesOn(before: Item, next: Item): boolean {
  if (before.marker.ordered !== next.marker.ordered) return false;
  if (!next.marker.ordered) return true;
  // A number that does not follow begins a list of its own.
  return (
    next.marker.value === before.marker.value + 1 ||
    (before.list === next.list &&
      next.marker.value > 1 &&
      next.marker.type === before.marker.type &&
      next.marker.value === before.marker.value + 1)
  );
}

function lastItemOf(list: ElementNode): ElementNode {
  const last = list.children[list.children.length - 1];
  if (last?.type === 'element') return last;
  // A deeper item without one above it stands in an empty item.
  const li = new ElementNode('li', HTML_NAMESPACE, []);
  append(list, li);
  return li;
}

/** A paragraph with the list properties of an office suite (`mso-list: l0 level2 lfo1`); its marker is taken out of its text. */
function officeItem(paragraph: ElementNode, styles: string): Item | null {
  if (!/^(p|h[1-6]|div)$/.test(paragraph.name)) return null;
  const property = styleOf(paragraph, 'mso-list');
  const match = /l(\d+)\s+level(\d+)/.exec(property);
  if (match === null) return null;
  const [, list, level] = match;
  const markers = markerNodes(paragraph);
  const numbering = numberingOf(styles, list!, level!);
  const text = markers.map((node) => visibleText(node)).join('');
  const marker = readMarker(text, numbering === null ? null : /roman/.test(numbering)) ?? markerFor(numbering);
  cutMarker(paragraph, new Set(markers));
  return { paragraph, level: Number(level) - 1, list: list!, marker, letters: countLetters(text) };
}

/** What a program wrote before the words as their marker: it says so by a property, by comments around it, or it stands first in a wrapper. */
function markerNodes(paragraph: ElementNode): ChildNode[] {
  const ignored = elementsOf(paragraph).find((element) => styleOf(element, 'mso-list') === 'ignore');
  if (ignored !== undefined) return [ignored];
  const { children } = paragraph;
  const begin = children.findIndex((child) => child.type === 'comment' && /^\[if !supportlists\]/i.test(child.data.trim()));
  const end = children.findIndex((child, i) => i > begin && child.type === 'comment' && /^\[endif\]/i.test(child.data.trim()));
  if (begin !== -1 && end !== -1) return children.slice(begin + 1, end);
  const first = children.find((child) => child.type === 'element' || (child.type === 'text' && hasLetters(child.value)));
  return first?.type === 'element' && first.name === 'span' && readMarker(visibleText(first)) !== null ? [first] : [];
}

/** What the style sheet of the paste says of a list level: `decimal`, `bullet`, `alpha-lower`, `roman-upper`. */
function numberingOf(styles: string, list: string, level: string): string | null {
  const rule = new RegExp(`@list\\s+l${list}:level${level}\\b[^{]*\\{([^}]*)\\}`, 'i').exec(styles);
  if (rule === null) return null;
  return /mso-level-number-format:\s*([\w-]+)/i.exec(rule[1]!)?.[1]?.toLowerCase() ?? 'decimal';
}

function markerFor(numbering: string | null): Marker {
  if (numbering === null || numbering === 'bullet') return { ordered: false, type: '', value: 0 };
  const type = numbering.includes('roman')
    ? numbering.includes('upper')
      ? 'I'
      : 'i'
    : numbering.includes('alpha')
      ? numbering.includes('upper')
        ? 'A'
        : 'a'
      : '1';
  return { ordered: true, type, value: 1 };
}

/** Takes the marker that a program wrote into the text out of it, and the comments around it. */
function cutMarker(paragraph: ElementNode, markers: ReadonlySet<ChildNode>): void {
  transform(paragraph, {
    element: (element) => (markers.has(element) ? 'drop' : 'keep'),
    text: (text) => (markers.has(text) ? 'drop' : 'keep'),
    comment: (comment) => (/^\[(if|endif)/i.test(comment.data.trim()) ? 'drop' : 'keep'),
  });
}

/** Paragraphs in a row that begin with a bullet or with numbers that follow each other. */
function typedItems(children: readonly ChildNode[]): Map<ChildNode, Item> {
  const found = new Map<ChildNode, Item>();
  let run: { paragraph: ElementNode; marker: Marker; length: number; text: TextNode }[] = [];
  const close = (): void => {
    if (run.length > 1)
      for (const { paragraph, marker, length, text } of run) {
        found.set(paragraph, { paragraph, level: 0, list: 'typed', marker, letters: countLetters(text.value.slice(0, length)) });
        text.value = text.value.slice(length);
      }
    run = [];
  };
  for (const child of children) {
    if (child.type === 'text' && !hasLetters(child.value)) continue;
    const first = child.type === 'element' && child.name === 'p' ? firstText(child) : null;
    const typed = first === null ? null : typedMarker(first.value, run[run.length - 1]?.marker ?? null);
    // A marker with nothing behind it is no item.
    const isItem = typed !== null && child.type === 'element' && visibleText(child).trim().length > typed.length;
    if (child.type !== 'element' || first === null || typed === null || !isItem) {
      close();
      continue;
    }
    const last = run[run.length - 1];
    if (
      last !== undefined &&
      (last.marker.ordered !== typed.marker.ordered || (typed.marker.ordered && typed.marker.value !== last.marker.value + 1))
    )
      close();
    run.push({ paragraph: child, ...typed, text: first });
  }
  close();
  return found;
}

function firstText(element: ElementNode): TextNode | null {
  let at: ParentNode = element;
  for (let steps = 0; steps < 6; steps++) {
    const child: ChildNode | undefined = at.children.find((node) => node.type !== 'text' || hasLetters(node.value));
    if (child === undefined || child.type === 'comment') return null;
    if (child.type === 'text') return countLetters(child.value) > 0 ? child : null;
    at = child;
  }
  return null;
}

/** A list that stands in a list beside its items belongs into the item before it. */
function mendNesting(root: ParentNode, report: Reporter): void {
  for (const list of elementsOf(root)) {
    if (list.name !== 'ul' && list.name !== 'ol') continue;
    if (!list.children.some((child) => child.type === 'element' && (child.name === 'ul' || child.name === 'ol'))) continue;
    const kept: ChildNode[] = [];
    let before: ElementNode | null = null;
    for (const child of list.children) {
      if (child.type === 'element' && (child.name === 'ul' || child.name === 'ol') && before?.name === 'li') {
        append(before, child);
        report.changed(child, '', 'tidy');
        continue;
      }
      kept.push(child);
      if (child.type === 'element') before = child;
    }
    list.children = kept;
  }
}
