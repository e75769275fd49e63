import type { ChildNode, ElementNode } from '../../html/node';
import { countLetters } from '../../html/text';
import { styleOf } from '../declarations';
import type { Marker } from '../markers';
import type { Item } from './item';

/**
 * Lists that online editors and chats write one after another instead of into each other, with the level of each noted on
 * it: every such list's items, with their levels.
 *
 * @param children siblings
 */
export function levelledItems(children: readonly ChildNode[]): Map<ChildNode, Item[]> {
  const found = new Map<ChildNode, Item[]>();
  let run: { child: ChildNode; list: ElementNode; level: number }[] = [];
  const close = (): void => {
    // A list that stands alone, or beside others of its level that are complete in themselves, is a list already.
    const isScattered =
      run.length > 1 && (run.some(({ level }) => level !== run[0]!.level) || run.every(({ list }) => itemsOf(list).length === 1));
    if (isScattered)
      for (const { child, list, level } of run)
        found.set(
          child,
          itemsOf(list).map((li, i) => itemOf(li, list, level, i)),
        );
    run = [];
  };
  for (const child of children) {
    if (child.type === 'text' && countLetters(child.value) === 0) continue;
    const list = listIn(child);
    const level = list === null ? null : levelOf(list);
    if (list === null || level === null || list.children.some((inner) => inner.type === 'element' && inner.name !== 'li')) close();
    else run.push({ child, list, level });
  }
  close();
  return found;
}

/** A list, or the one that a wrapper holds and nothing else. */
function listIn(child: ChildNode): ElementNode | null {
  let at: ChildNode | undefined = child;
  for (let steps = 0; steps < 3; steps++) {
    if (at?.type !== 'element') return null;
    if (at.name === 'ul' || at.name === 'ol') return at;
    if (at.name !== 'div') return null;
    const inner: ChildNode[] = at.children.filter((node) => node.type !== 'text' || countLetters(node.value) > 0);
    if (inner.length !== 1) return null;
    at = inner[0];
  }
  return null;
}

function itemsOf(list: ElementNode): ElementNode[] {
  return list.children.filter((child): child is ElementNode => child.type === 'element' && child.name === 'li');
}

/** The level that a list or its items are marked with; null where none is. */
function levelOf(list: ElementNode): number | null {
  const byClass = /(?:^|\s)lst-[\w-]*-(\d)(?=\s|$)/.exec(list.attribute('class') ?? '')?.[1];
  if (byClass !== undefined) return Number(byClass);
  for (const element of [list, ...itemsOf(list).slice(0, 1)])
    for (const name of ['data-aria-level', 'aria-level', 'data-indent', 'data-stringify-indent', 'data-level']) {
      const value = Number(element.attribute(name) ?? Number.NaN);
      if (Number.isInteger(value) && value >= 0 && value < 20) return value;
    }
  return null;
}

const TYPES: Readonly<Record<string, Marker['type']>> = {
  'lower-alpha': 'a',
  'lower-latin': 'a',
  'upper-alpha': 'A',
  'upper-latin': 'A',
  'lower-roman': 'i',
  'upper-roman': 'I',
};

function itemOf(li: ElementNode, list: ElementNode, level: number, index: number): Item {
  const ordered = list.name === 'ol';
  const start = Number(list.attribute('start') ?? 1) || 1;
  const written = list.attribute('type') ?? '';
  const type = /^[aAiI1]$/.test(written)
    ? (written as Marker['type'])
    : (TYPES[styleOf(list, 'list-style-type') || styleOf(li, 'list-style-type')] ?? '1');
  const marker: Marker = ordered ? { ordered, type, value: start + index } : { ordered, type: '', value: 0 };
  // Lists that all say they begin at 1 go on from one another, since the program drew them as one.
  const follows = (before: Marker | null): Marker =>
    ordered && index === 0 && list.attribute('start') === undefined && before?.ordered === true && before.type === type
      ? { ...marker, value: before.value + 1 }
      : marker;
  return {
    element: li,
    level,
    list: li.attribute('data-listid') ?? 'levelled',
    marker,
    letters: 0,
    restsOn: 'the level noted on the list',
    markerAfter: (before) => (itemsOf(list).length === 1 ? follows(before) : marker),
  };
}
