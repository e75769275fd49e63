import { append, copyPlace, ElementNode, HTML_NAMESPACE, textInPlaceOf, TextNode, type ParentNode } from '../../html/node';
import { renderedText } from '../../html/rendered-text';
import { countLetters, hasLetters, visibleLetters } from '../../html/text';
import { elementsOf, transform, type Transformation } from '../../html/transform';
import { styleOf } from '../declarations';
import type { Pass } from '../pass';

/** Footnotes and endnotes: two anchors that point at each other, one at the place and one before the note's text. */
interface Note {
  /** The anchor at the place, and others that lead to the same note. */
  references: ElementNode[];
  back: ElementNode;
  body: ElementNode;
}

/** Makes linked notes with a list at the end of footnotes and endnotes, or bracketed text, or takes them away. */
export const notes: Pass<'notes'> = {
  id: 'notes',
  finds: ({ elements }) => elements.has('a'),
  run({ root, settings, idPrefix, report }) {
    const found = notesIn(root);
    if (found.length === 0) return;
    const bodies = new Set(found.map(({ body }) => body));
    const list = new ElementNode('ol', HTML_NAMESPACE, []);
    const references = new Map(found.flatMap((note, index) => note.references.map((reference) => [reference, { note, index }] as const)));
    const isSeparator = isSeparatorBefore(bodies);
    const met = new Set<Note>();
    // What goes with all it holds keeps its number until then.
    for (const { body, back } of settings.become === 'drop' ? [] : found)
      transform(body, { element: (element) => (element === back || onlyChild(element) === back ? 'drop' : 'keep') });
    const referenceAt = (element: ElementNode) => references.get(element) ?? references.get(onlyChild(element)!);
    const transformation: Transformation = {
      element(element) {
        if (bodies.has(element) || isSeparator(element)) return 'drop';
        const known = referenceAt(element);
        if (known === undefined) return 'keep';
        const { note, index } = known;
        const isFirst = !met.has(note);
        met.add(note);
        if (settings.become === 'drop') {
          report.removed(element, 'change');
          if (isFirst) report.removed(note.body, 'change');
          return 'drop';
        }
        if (settings.become === 'bracketed') {
          const text = ` [${renderedText(note.body).replace(/\s+/g, ' ').trim()}]`;
          const before = visibleLetters(element) + (isFirst ? visibleLetters(note.body) + visibleLetters(note.back) : 0);
          report.changed(element, text.trim(), 'change', before - countLetters(text), 'paste-note-bracketed');
          return [textInPlaceOf(element, text)];
        }
        const number = index + 1;
        const [id, backId] = [`${idPrefix}note-${number}`, `${idPrefix}noteref-${number}`];
        if (isFirst) list.children.push(item(note, id, backId));
        const link = new ElementNode('a', HTML_NAMESPACE, [{ name: 'href', value: `#${id}` }]);
        if (isFirst) link.attributes.push({ name: 'id', value: backId });
        const sup = new ElementNode('sup', HTML_NAMESPACE, []);
        copyPlace(element, sup);
        copyPlace(element, link);
        append(link, textInPlaceOf(element, String(number)));
        append(sup, link);
        // The number and its brackets were the program's own; the arrow back is ours.
        const gone = visibleLetters(element) + (isFirst ? visibleLetters(note.back) - countLetters('↩') : 0) - countLetters(String(number));
        report.changed(element, `<sup><a href="#${id}">${number}</a></sup>`, 'change', gone);
        return [sup];
      },
    };
    transform(root, transformation);
    // A note may refer to another, which adds that to the list.
    for (let i = 0; i < list.children.length; i++) transform(list.children[i] as ElementNode, transformation);
    for (const note of found) if (!met.has(note)) report.removed(note.body, 'loss');
    if (list.children.length === 0) return;
    for (const child of list.children) child.parent = list;
    copyPlace(found[0]!.body, list);
    append(root, list);
  },
};

/** The element that another holds and nothing else: a raised number may stand in `sup` already. */
function onlyChild(element: ElementNode): ElementNode | null {
  if (element.name !== 'sup') return null;
  const [only, ...rest] = element.children.filter((child) => child.type !== 'text' || countLetters(child.value) > 0);
  return only?.type === 'element' && rest.length === 0 ? only : null;
}

function item({ body }: Note, id: string, backId: string): ElementNode {
  const li = new ElementNode('li', HTML_NAMESPACE, [{ name: 'id', value: id }]);
  copyPlace(body, li);
  // A note of one paragraph needs no paragraph in its item.
  const blocks = body.children.filter((child) => child.type === 'element');
  const only = blocks.length === 1 && blocks[0]!.name === 'p' ? blocks[0]! : body;
  const first = only.children[0];
  if (first?.type === 'text') first.value = first.value.replace(/^[\s\u00a0]+/, '');
  for (const child of only.children) append(li, child);
  const link = new ElementNode('a', HTML_NAMESPACE, [{ name: 'href', value: `#${backId}` }]);
  copyPlace(body, link);
  append(link, new TextNode('↩'));
  // Behind the last words, in the paragraph that they stand in.
  const last = li.children.findLast((child) => child.type === 'element' || hasLetters(child.type === 'text' ? child.value : ''));
  const end = last?.type === 'element' && last.name === 'p' ? last : li;
  append(end, new TextNode(' '));
  append(end, link);
  return li;
}

/** Pairs of anchors that point at each other, where the second stands first in a block of its own. */
function notesIn(root: ParentNode): Note[] {
  const anchors = elementsOf(root).filter(({ name }) => name === 'a');
  const byName = new Map(anchors.flatMap((anchor) => (nameOf(anchor) === '' ? [] : [[nameOf(anchor), anchor] as const])));
  const byBack = new Map<ElementNode, Note>();
  const used = new Set<ElementNode>();
  const bodies = new Set<ElementNode>();
  for (const reference of anchors) {
    const target = targetOf(reference);
    const back = target === '' ? undefined : byName.get(target);
    if (back === undefined || back === reference || used.has(reference) || byBack.has(back) || used.has(back)) continue;
    if (targetOf(back) !== nameOf(reference) || nameOf(reference) === '') continue;
    const body = bodyOf(back);
    if (body === null || body === bodyOf(reference) || bodies.has(body)) continue;
    used.add(reference).add(back);
    bodies.add(body);
    byBack.set(back, { references: [reference], back, body });
  }
  // Who refers to a note a second time has a name of its own, or none.
  for (const anchor of anchors) {
    const note = byBack.get(byName.get(targetOf(anchor))!);
    if (note !== undefined && !used.has(anchor)) note.references.push(anchor);
  }
  return [...byBack.values()];
}

function nameOf(anchor: ElementNode): string {
  return anchor.attribute('name') ?? anchor.attribute('id') ?? '';
}

function targetOf(anchor: ElementNode): string {
  const href = anchor.attribute('href') ?? '';
  return href.startsWith('#') ? href.slice(1) : '';
}

/** The block that holds a note: the outermost one that holds nothing but it. */
function bodyOf(back: ElementNode): ElementNode | null {
  let body: ElementNode | null = null;
  for (let at = back.parent; at?.type === 'element'; at = at.parent) {
    if (isNoteList(at)) break;
    if (/^(p|div|li|dd|section|aside)$/.test(at.name)) {
      if (body !== null && at.children.filter((child) => child.type === 'element').length > 1 && !isNote(at)) break;
      body = at;
      if (isNote(at)) break;
    }
  }
  return body;
}

/** Lines that a program draws above its notes: those in its list of notes, and one that stands straight before the first note. */
function isSeparatorBefore(bodies: ReadonlySet<ElementNode>): (element: ElementNode) => boolean {
  const separators = new Set<ElementNode>();
  for (const { parent } of bodies)
    for (let at: ElementNode | null = null, i = 0; parent !== null && i < parent.children.length; i++) {
      const child = parent.children[i]!;
      if (child.type !== 'element') continue;
      if (bodies.has(child)) {
        if (at?.name === 'hr') separators.add(at);
        break;
      }
      at = child;
    }
  return (element) =>
    separators.has(element) || (/^(hr|br)$/.test(element.name) && element.parent?.type === 'element' && isNoteList(element.parent));
}

function isNote(element: ElementNode): boolean {
  return (
    /^(footnote|endnote)$/.test(styleOf(element, 'mso-element')) ||
    /^(sd(foot|end)note\d+|(ftn|edn|ftnt|endnote-?|footnote-?|fn-?)\d+)$/.test(element.attribute('id') ?? '')
  );
}

function isNoteList(element: ElementNode): boolean {
  return /^(footnote|endnote)-list$/.test(styleOf(element, 'mso-element'));
}
