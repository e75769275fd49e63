import { append, copyPlace, ElementNode, HTML_NAMESPACE, type ChildNode, type ParentNode } from '../../html/node';
import { countLetters, firstText, hasLetters } from '../../html/text';
import { elementsOf } from '../../html/transform';
import { setAttribute, styleOf } from '../declarations';
import { lookOfLists, officeItem, type ListLook } from '../list-items/office';
import { levelledItems } from '../list-items/levelled';
import { partLines, typedItems } from '../list-items/typed';
import type { Item } from '../list-items/item';
import { readMarker, type Marker } from '../markers';
import type { Pass, Reporter } from '../pass';

/** Makes true lists of what only looks like lists: by office list properties, by levels noted on single lists, or by what is typed before lines. */
export const lists: Pass<'lists'> = {
  id: 'lists',
  run({ root, settings, sheet, report }) {
    mendNesting(root, report);
    takeLabels(root, report);
    const look = lookOfLists(sheet.css);
    const parents: ParentNode[] = [root, ...elementsOf(root).filter(({ name }) => !/^(p|ul|ol|table|tr|h[1-6])$/.test(name))];
    for (const parent of parents) rebuild(parent, look, settings.typed, report);
    for (const item of elementsOf(root)) if (item.name === 'li') bareItem(item, report);
  },
};

/** What an item can be before it is one, or what it can stand in. */
const CANDIDATES: ReadonlySet<string> = new Set(['p', 'div', 'ul', 'ol']);

function rebuild(parent: ParentNode, look: ListLook, withTyped: boolean, report: Reporter): void {
  if (!parent.children.some((child) => child.type === 'element' && CANDIDATES.has(child.name))) return;
  if (withTyped) partLines(parent, report);
  const items = new Map<ChildNode, Item[]>(levelledItems(parent.children));
  for (const child of parent.children) {
    const item = child.type === 'element' && !items.has(child) ? officeItem(child, look) : null;
    if (item !== null) items.set(child, [item]);
  }
  if (withTyped) for (const [child, item] of typedItems(parent.children, (child) => items.has(child))) items.set(child, [item]);
  if (items.size === 0) return;
  const builder = new ListBuilder(parent, report);
  let waiting: ChildNode[] = [];
  for (const child of parent.children) {
    const own = items.get(child);
    if (own === undefined) {
      // White space and remarks of the program between items do not end a list.
      if ((child.type === 'comment' || (child.type === 'text' && !hasLetters(child.value))) && builder.isOpen) waiting.push(child);
      else if (builder.isOpen && isContinuation(child)) {
        builder.goOn(child as ElementNode);
        waiting = [];
      } else {
        for (const before of waiting) builder.children.push(before);
        builder.children.push(child);
        waiting = [];
        builder.close();
      }
      continue;
    }
    // Comments stay where they are for the pass that is about them.
    for (const before of waiting) if (before.type === 'comment') builder.children.push(before);
    waiting = [];
    for (const item of own) builder.add(item);
  }
  parent.children = [...builder.children, ...waiting];
  for (const child of parent.children) child.parent = parent;
}

/** A further paragraph of the item before it, as word processors mark it. */
function isContinuation(child: ChildNode): boolean {
  return child.type === 'element' && child.name === 'p' && /^MsoList(?:Continue|ParagraphCxSp)/.test(child.attribute('class') ?? '');
}

interface Open {
  list: ElementNode;
  level: number;
  item: Item;
  last: ElementNode;
}

/** Puts items into lists, one after another, opening and closing lists as their levels say. */
class ListBuilder {
  readonly children: ChildNode[] = [];
  private open: Open[] = [];
  /** The last number of each list that was closed, so that one that goes on is told from one that begins anew. */
  private readonly last = new Map<string, Marker>();

  constructor(
    private readonly parent: ParentNode,
    private readonly report: Reporter,
  ) {}

  get isOpen(): boolean {
    return this.open.length > 0;
  }

  close(): void {
    this.open = [];
  }

  /** Puts a block into the item that came last. */
  goOn(block: ElementNode): void {
    const { last } = this.open[this.open.length - 1]!;
    append(last, block);
    this.report.changed(block, '<li>', 'tidy');
  }

  add(item: Item): void {
    const { level } = item;
    while (this.open.length > 0 && this.open[this.open.length - 1]!.level > level) this.open.pop();
    let top = this.open[this.open.length - 1];
    const before = top?.level === level ? top.item.marker : this.last.get(`${item.list} ${level}`);
    const marker = item.markerAfter(before ?? null);
    if (top?.level === level && !goesOn(top.item, { ...item, marker })) {
      this.open.pop();
      top = this.open[this.open.length - 1];
    }
    const placed = { ...item, marker };
    if (top === undefined || top.level < level) {
      const list = this.listFor(placed);
      if (top === undefined) {
        this.children.push(list);
        list.parent = this.parent;
      } else append(top.last, list);
      this.open.push({ list, level, item: placed, last: list });
    }
    const at = this.open[this.open.length - 1]!;
    const li = new ElementNode('li', HTML_NAMESPACE, []);
    copyPlace(item.element, li);
    for (const child of item.element.children) append(li, child);
    append(at.list, li);
    at.item = placed;
    at.last = li;
    this.last.set(`${item.list} ${level}`, marker);
    if (item.element.name === 'li') this.report.changed(li, '<li>');
    else this.report.renamed(li, item.element.name, item.letters, undefined, item.restsOn);
  }

  private listFor({ marker, element }: Item & { marker: Marker }): ElementNode {
    const list = new ElementNode(marker.ordered ? 'ol' : 'ul', HTML_NAMESPACE, []);
    if (marker.ordered) {
      if (marker.type !== '1') list.attributes.push({ name: 'type', value: marker.type });
      if (marker.value > 1) list.attributes.push({ name: 'start', value: String(marker.value) });
    }
    copyPlace(element, list);
    return list;
  }
}

/** Whether an item follows another in one list: bullets always do, numbers where they count on. */
function goesOn({ marker: before }: Item, { marker: next }: { marker: Marker }): boolean {
  if (before.ordered !== next.ordered) return false;
  return !next.ordered || (next.value === before.value + 1 && (next.type === before.type || next.isGuessed === true));
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

/** Labels that a program wrote into items of true lists, in boxes set to the left of the words; lists of numbers become numbered. */
function takeLabels(root: ParentNode, report: Reporter): void {
  for (const list of elementsOf(root)) {
    if (list.name !== 'ul' && list.name !== 'ol') continue;
    const labels = list.children.flatMap((item) => (item.type === 'element' && item.name === 'li' ? (labelOf(item) ?? []) : []));
    const [first] = labels;
    if (first === undefined) continue;
    let before: Marker | null = null;
    for (const { span, text } of labels) {
      before = readMarker(text, null, before) ?? before;
      report.removed(span);
      span.parent!.children = span.parent!.children.filter((child) => child !== span);
    }
    const marker = readMarker(first.text);
    if (marker === null || marker.ordered === (list.name === 'ol')) continue;
    const name = list.name;
    list.name = marker.ordered ? 'ol' : 'ul';
    if (marker.ordered && marker.type !== '1' && marker.type !== '') setAttribute(list, 'type', marker.type);
    if (marker.value > 1) setAttribute(list, 'start', String(marker.value));
    report.renamed(list, name, 0, 'paste-list-kind', `the label ${JSON.stringify(first.text.trim())}`);
  }
}

/** The box at the begin of an item that holds nothing but a marker; null where there is none. */
function labelOf(item: ElementNode): { span: ElementNode; text: string } | null {
  let at: ElementNode = item;
  for (let steps = 0; steps < 3; steps++) {
    const first: ChildNode | undefined = at.children.find(
      (child) => child.type === 'element' || (child.type === 'text' && hasLetters(child.value)),
    );
    if (first?.type !== 'element') return null;
    if (first.name === 'span' && styleOf(first, 'float') === 'left') {
      const text = firstText(first, 30);
      return readMarker(text) === null ? null : { span: first, text };
    }
    at = first;
  }
  return null;
}

/** An item that begins with its only paragraph needs none. */
function bareItem(item: ElementNode, report: Reporter): void {
  const telling = item.children.filter((child) => child.type === 'element' || (child.type === 'text' && countLetters(child.value) > 0));
  const [first, ...rest] = telling;
  if (first?.type !== 'element' || first.name !== 'p' || styleOf(first, 'display') === 'none') return;
  if (!rest.every((child) => child.type === 'element' && (child.name === 'ul' || child.name === 'ol'))) return;
  const children: ChildNode[] = [];
  for (const child of item.children) {
    if (child === first) for (const inner of first.children) children.push(inner);
    else children.push(child);
  }
  item.children = [];
  for (const child of children) append(item, child);
  report.unwrapped(first);
}
